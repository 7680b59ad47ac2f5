import { expect } from '@playwright/test';
import type { Stride } from './strides';

export const WRITING: readonly Stride[] = [
  {
    name: 'write a memo',
    weight: 5,
    go: async (walk) => {
      const { page, dice, filum } = walk;
      await filum.goTo(dice.one(['Overview', 'Codebook', 'Memos', 'Reading', 'Queries']));
      await page.waitForTimeout(150);
      await page.locator('main').focus();
      await page.keyboard.press('m');
      const paper = page.getByRole('textbox', { name: 'Memo' });
      await expect(paper).toBeVisible();
      await page.locator('fl-desk').getByLabel('Title').fill(dice.words(3));
      await paper.click();
      const words = dice.words();
      await page.keyboard.type(words);
      await expect(paper).toContainText(words.replace(/\s+/g, ' ').slice(0, 12));
      const end = dice.one(['keep', 'keep', 'leave', 'go elsewhere', 'reload']);
      walk.note(end);
      if (end === 'keep') await page.keyboard.press('ControlOrMeta+Enter');
      if (end === 'leave') {
        await page.locator('fl-desk').getByLabel('Title').focus();
        await page.keyboard.press('Escape');
      }
      if (end === 'go elsewhere') await filum.goTo(dice.one(['Material', 'Overview']));
      if (end === 'reload') {
        await page.reload();
        await expect(page.getByRole('textbox', { name: 'Memo' })).toContainText(words.replace(/\s+/g, ' ').slice(0, 12));
      }
    },
  },
  {
    name: 'memos: filter, choose, put away, delete',
    weight: 4,
    go: async (walk) => {
      const { page, dice, filum } = walk;
      await filum.goTo('Memos');
      const find = page.getByLabel('Find in memos');
      await expect(find).toBeVisible();
      const boxes = page.locator('fl-memo-list .row input:visible');
      if ((await walk.settled(boxes)) === 0) return;
      for (let left = 1 + dice.below(3); left > 0; left--) await boxes.nth(dice.below(await boxes.count())).click();
      if (dice.onceIn(2)) await find.fill(dice.one(['boat', 'zzz', 'a']));
      const act = await walk.any('fl-memo-list [role=toolbar] button.act');
      const name = (await act?.textContent())?.trim() ?? '';
      walk.note(name);
      if (act && !/Export|colour/.test(name) && (await act.isEnabled())) {
        await act.click();
        await page.waitForTimeout(150);
        const dialog = page.locator('mat-dialog-container');
        if (await dialog.isVisible()) {
          if (await dialog.locator('input').isVisible()) await dialog.locator('input').fill(dice.words(1));
          await dialog.locator('mat-dialog-actions .do').last().click();
        }
      }
      await find.fill('');
    },
  },
  {
    name: 'edit a memo’s heading',
    weight: 2,
    go: async (walk) => {
      const { page, dice, filum } = walk;
      await filum.goTo('Memos');
      const row = await walk.any('fl-memo-list .pick');
      if (!row) return;
      await row.click();
      const field = page.locator('fl-memo-sheet').getByLabel(dice.one(['Title', 'Kind', 'Tags, with commas between']), { exact: true });
      await field.fill(dice.words(3));
      if (dice.onceIn(2)) await (await walk.any('fl-memo-list .pick'))?.click();
      else await filum.goTo('Overview');
    },
  },
  {
    name: 'write into the log',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      await page.goto(`${walk.studyUrl}/log`);
      const begun = page.getByRole('button', { name: 'Go on' }).first();
      await expect(page.getByRole('button', { name: 'Own entry' })).toBeVisible();
      if (await begun.isVisible()) await begun.click();
      else await page.getByRole('button', { name: 'Own entry' }).click();
      const words = dice.words();
      await page.getByLabel('What was decided, discussed, noticed').fill(words);
      if (dice.onceIn(3)) {
        await page.reload();
        await page.getByRole('button', { name: 'Go on' }).first().click();
        await expect(page.getByLabel('What was decided, discussed, noticed')).toHaveValue(words);
      }
      const form = page.getByRole('region', { name: 'Log entries' });
      await form.getByRole('button', { name: dice.one(['Keep', 'Cancel']), exact: true }).click();
    },
  },
  {
    name: 'ask and keep a question',
    weight: 3,
    go: async (walk) => {
      const { page, dice } = walk;
      await walk.goToPart('Queries', 'Passages');
      const anew = page.getByRole('button', { name: 'Ask anew' });
      if ((await anew.isVisible()) && dice.onceIn(2)) await anew.click();
      for (let left = 1 + dice.below(3); left > 0; left--) {
        await page.locator('fl-condition-list > .add').last().click();
        const offers = page.locator('.mat-mdc-menu-panel [mat-menu-item]');
        const offer = offers.nth(dice.below(await walk.settled(offers)));
        walk.note((await offer.textContent())!.trim());
        await offer.click();
        const find = page.locator('fl-choose-codes input').first();
        if (!(await find.isVisible())) continue;
        await find.fill(dice.one(['wor', 'wait', 'time', 'zzz']));
        await page.keyboard.press('Enter');
        await page.keyboard.press('Escape');
      }
      const part = await walk.any('fl-condition-list fl-part .part');
      if (part) await part.click();
      const other = await walk.any('.mat-mdc-menu-panel [mat-menu-item]');
      if (other) await other.click();
      const keep = page.getByRole('button', { name: 'Keep', exact: true }).first();
      if ((await keep.isVisible()) && dice.onceIn(2)) {
        await keep.click();
        await page.locator('mat-dialog-container').getByRole('button', { name: 'Keep', exact: true }).click();
      }
    },
  },
  {
    name: 'find words, and sweep them or go through what was swept',
    weight: 3,
    go: async (walk) => {
      const { page, dice } = walk;
      const swept = dice.onceIn(3);
      await walk.goToPart('Queries', swept ? /^Swept/ : 'Words');
      if (swept) {
        await page.waitForTimeout(300);
        for (let left = 1 + dice.below(4); left > 0; left--) {
          const key = dice.one(['k', 'd', 's', 'l', 'Shift+S', 'Shift+L', 'ArrowRight', 'ArrowLeft']);
          walk.note(key);
          await page.keyboard.press(key);
          await page.waitForTimeout(150);
        }
        return;
      }
      await page
        .getByLabel('Words to look for')
        .fill(dice.one(['wait*', 'ferry or boat', '"last boat"', 'pier not night', 'bridge within 4 of they', '(']));
      await page.waitForTimeout(500);
      const all = page.getByRole('button', { name: 'Choose all' });
      if (!(await all.isVisible())) return;
      const box = await walk.any('fl-words [role=listitem] input');
      await (dice.onceIn(3) || !box ? all : box).click();
      await page.getByRole('button', { name: 'Sweep with a code…' }).click();
      await page.getByLabel('Find a code').fill(dice.one(['wor', 'wait', dice.words(1)]));
      await page.keyboard.press('Enter');
    },
  },
  {
    name: 'take away a part, or a kept query',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      await walk.goToPart('Queries', 'Passages');
      const away = await walk.any('fl-condition-list button[aria-label^="Take away"]');
      if (away && dice.onceIn(2)) return away.click();
      const kept = page.getByRole('button', { name: 'Kept queries' });
      if (!(await kept.isVisible())) return;
      await kept.click();
      const entry = await walk.any(
        dice.onceIn(3) ? '.mat-mdc-menu-panel .forget' : '.mat-mdc-menu-panel .saved [mat-menu-item]:first-child',
      );
      await entry?.click();
      const yes = page.locator('mat-dialog-container button.danger');
      await page.waitForTimeout(200);
      if (await yes.isVisible()) await yes.click();
    },
  },
];
