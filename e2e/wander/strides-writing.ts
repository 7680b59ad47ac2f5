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
    name: 'ask and save a question',
    weight: 2,
    go: async (walk) => {
      const { page, dice, filum } = walk;
      await filum.goTo('Queries');
      await page.getByRole('button', { name: 'Choose codes: that carry all of' }).click();
      await page
        .locator('fl-choose-codes input')
        .first()
        .fill(dice.one(['wor', 'wait', 'time']));
      await page.keyboard.press('Enter');
      await page.keyboard.press('Escape');
      const save = page.getByRole('button', { name: /^Save/ }).first();
      if ((await save.isVisible()) && (await save.isEnabled()) && dice.onceIn(2)) {
        await save.click();
        await page.locator('mat-dialog-container').getByRole('button', { name: 'Save', exact: true }).click();
      }
    },
  },
];
