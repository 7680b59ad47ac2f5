import { expect } from '@playwright/test';
import type { Stride } from './strides';

export const ASKING: readonly Stride[] = [
  {
    name: 'build the scope in its panel',
    weight: 3,
    go: async (walk) => {
      const { page, dice } = walk;
      const open = page.locator('fl-scope-line .anchor > .act');
      if (!(await open.isVisible())) return;
      await open.click();
      const panel = page.locator('fl-scope-panel');
      await expect(panel).toBeVisible();
      const kept = await walk.any('fl-scope-panel .kept .act');
      if (kept && dice.onceIn(3)) await kept.click();
      else if (dice.onceIn(3)) await (await walk.any('fl-scope-panel button[aria-label^="Take away"]'))?.click();
      else {
        await panel.locator('.add').click();
        const offers = page.locator('.mat-mdc-menu-panel [mat-menu-item]');
        const offer = offers.nth(dice.below(await walk.settled(offers)));
        walk.note((await offer.textContent())!.trim());
        await offer.click();
        await (await walk.any('fl-scope-panel fl-chosen-of > .anchor > .part'))?.click();
        const box = await walk.any('fl-scope-panel fl-choose-several li input');
        if (box) await box.check();
      }
      await page.keyboard.press('Escape');
      await page.keyboard.press('Escape');
      // the second Escape may be closing it
      await page.waitForTimeout(250);
      const keep = panel.getByRole('button', { name: 'keep this scope…' });
      if ((await keep.isVisible()) && dice.onceIn(2)) {
        await keep.click();
        await page.getByRole('dialog').getByLabel('Name').fill(dice.words(2));
        await page.getByRole('button', { name: 'Keep it' }).click();
      }
      if (await panel.isVisible()) await page.keyboard.press('Escape');
    },
  },
  {
    name: 'make, change and take away a proposition',
    weight: 3,
    go: async (walk) => {
      const { page, dice, filum } = walk;
      await walk.goToPart('Queries', 'Propositions');
      await page.waitForTimeout(250);
      const away = page.locator('fl-propositions .sentence').getByRole('button', { name: 'Delete', exact: true });
      if (dice.onceIn(5) && (await away.isVisible())) return away.click();
      if (dice.onceIn(2) || !(await away.isVisible())) {
        await page.getByRole('button', { name: 'New proposition…' }).first().click();
        await page.getByRole('dialog').getByLabel('Name').fill(dice.words(3));
        await page.getByRole('button', { name: 'Make it' }).click();
      }
      await page.locator('fl-claim-list > .add').nth(dice.below(2)).click();
      const find = page.locator('fl-choose-codes input').first();
      await find.fill(dice.one(['wor', 'wait', 'time']));
      await page.keyboard.press('Enter');
      await page.keyboard.press('Escape');
      const note = await walk.any('fl-propositions textarea');
      if (!note) return;
      await note.fill(dice.words());
      // left in mid-sentence, by whatever way
      if (dice.onceIn(2)) await filum.goTo(dice.one(['Memos', 'Overview']));
    },
  },
  {
    name: 'fill a live set with what a query finds, fill it by hand, or delete it',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      if (dice.onceIn(3)) {
        await walk.goToPart('Material', /^Sets/);
        await (await walk.any('fl-set-list .pick'))?.click();
        const act = page.locator('fl-set-list .sheet').getByRole('button', { name: dice.one(['Fill it by hand from now on', 'Delete']) });
        if (!(await act.isVisible()) || !(await act.isEnabled())) return;
        await act.click();
        const yes = page.locator('mat-dialog-container button.danger');
        await page.waitForTimeout(200);
        if (await yes.isVisible()) await yes.click();
        return;
      }
      await walk.goToPart('Queries', 'Passages');
      await page.getByRole('button', { name: 'More', exact: true }).first().click();
      const make = page.getByRole('menuitem', { name: /^Make a live set of its/ }).nth(dice.below(2));
      await make.waitFor();
      if (!(await make.isEnabled())) return page.keyboard.press('Escape');
      await make.click();
      const dialog = page.locator('mat-dialog-container');
      await page.waitForTimeout(200);
      // a query that is not kept is kept first
      const keep = dialog.getByRole('button', { name: 'Keep', exact: true });
      if (await keep.isVisible()) await keep.click();
      await page.waitForTimeout(300);
      const yes = dialog.getByRole('button', { name: 'Make the set' });
      if (await yes.isVisible()) await yes.click();
    },
  },
  {
    name: 'keep a search, and make a word list',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      await walk.goToPart('Queries', 'Words');
      if (dice.onceIn(2)) {
        await page.getByRole('button', { name: 'Word lists' }).click();
        await page
          .getByRole('dialog')
          .getByLabel('Name')
          .fill(dice.one(['ferry', 'night', dice.words(2)]));
        await page
          .getByRole('dialog')
          .getByLabel(/^Its words/)
          .fill(`boat\n${dice.words()}`);
        await page
          .getByRole('dialog')
          .getByRole('button', { name: /^(Keep|Make the list)$/ })
          .click();
        await page.waitForTimeout(150);
        return page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
      }
      await page.getByLabel('Words to look for').fill(dice.one(['boat', '[ferry]', '[night] or pier', dice.words(2)]));
      await page.waitForTimeout(400);
      const keep = page.locator('fl-words').getByRole('button', { name: 'Keep', exact: true });
      if (!(await keep.isVisible())) return;
      await keep.click();
      await page.getByRole('dialog').getByLabel('Name').fill(dice.words(2));
      await page.getByRole('dialog').getByRole('button', { name: 'Keep', exact: true }).click();
      await page.waitForTimeout(200);
      if (await page.locator('mat-dialog-container').isVisible()) return page.keyboard.press('Escape');
      const seen = page.getByRole('button', { name: 'All seen' });
      if (await seen.isVisible()) await seen.click();
    },
  },
  {
    name: 'look at a pattern, change what it asks, open a number, keep it',
    weight: 4,
    go: async (walk) => {
      const { page, dice } = walk;
      await walk.goToPart(
        'Patterns',
        dice.one(['Frequencies', 'Cross-table', 'Together', 'Weave', 'Taking up', 'Similarity', 'Saturation', 'Words', 'Attributes']),
      );
      await page.waitForTimeout(200);
      const parts = page.locator('.sentence fl-part .part');
      await parts.nth(dice.below(await walk.settled(parts))).click();
      const offers = page.locator('.mat-mdc-menu-panel [mat-menu-item]');
      if (await offers.first().isVisible()) {
        const offer = offers.nth(dice.below(await walk.settled(offers)));
        walk.note((await offer.textContent())!.trim());
        await offer.click();
      }
      await page.keyboard.press('Escape');
      await page.waitForTimeout(300);
      await (
        await walk.any('[role=gridcell], .list button.number, .pairs button, .point, button.line, g.link, .word[role=button]')
      )?.click();
      const expected = page.getByRole('button', { name: 'Mark as expected…' });
      if (await expected.isVisible()) {
        await expected.click();
        await page.getByRole('dialog').getByRole('textbox').fill(dice.words(4));
        await page.getByRole('dialog').getByRole('button', { name: 'Mark it' }).click();
        await page.waitForTimeout(200);
        if (await page.locator('mat-dialog-container').isVisible()) await page.keyboard.press('Escape');
      }
      const kept = page.getByRole('button', { name: 'Kept patterns' });
      const then = dice.below(3);
      if (then === 0) {
        await page.getByRole('button', { name: 'Keep', exact: true }).click();
        await page.getByRole('dialog').getByLabel('Name').fill(dice.words(3));
        await page.getByRole('dialog').getByRole('button', { name: 'Keep', exact: true }).click();
        if (await page.getByRole('dialog').isVisible()) await page.keyboard.press('Escape');
      } else if (then === 1 && (await kept.isVisible())) {
        await kept.click();
        await offers.first().click();
      }
    },
  },
];
