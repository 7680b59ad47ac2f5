import { expect, type Locator } from '@playwright/test';
import type { Stride } from './strides';
import type { Walk } from './wanderer';

/** A code in the tree, chosen; null where there is none. */
async function someCode(walk: Walk): Promise<Locator | null> {
  const { page } = walk;
  await walk.goToPart('Codebook', 'Codes');
  await page.waitForTimeout(150);
  const row = await walk.any('fl-code-tree [data-code]');
  if (!row) return null;
  // by its id: the rows on the screen change when one is chosen
  const code = await row.getAttribute('data-code');
  await row.click();
  return page.locator(`fl-code-tree [data-code="${code}"]`);
}

const withCode = (go: (walk: Walk, row: Locator) => Promise<void>) => async (walk: Walk) => {
  const row = await someCode(walk);
  if (row) await go(walk, row);
};

/** Answers the dialog that is open, or leaves it. */
async function answer(walk: Walk): Promise<void> {
  const dialog = walk.page.locator('mat-dialog-container');
  await walk.page.waitForTimeout(150);
  if (!(await dialog.isVisible())) return;
  const yes = dialog.locator('mat-dialog-actions .do:not(.quiet)').last();
  if (walk.dice.onceIn(4) || !(await yes.isVisible())) await walk.page.keyboard.press('Escape');
  else await yes.click();
  await walk.page.waitForTimeout(150);
}

export const CODEBOOK: readonly Stride[] = [
  {
    name: 'new code',
    weight: 3,
    go: withCode(async (walk, row) => {
      await row.focus();
      await walk.page.keyboard.press(walk.dice.one(['n', 'N']));
      const field = walk.page.locator('mat-dialog-container input');
      await expect(field).toBeFocused();
      await walk.page.keyboard.type(walk.dice.words(2));
      await walk.page.keyboard.press('Enter');
    }),
  },
  {
    name: 'rename and describe a code',
    weight: 5,
    go: withCode(async (walk) => {
      const { page, dice } = walk;
      const name = dice.one(['Name', 'Definition', 'Use when', 'Example', 'Notes']);
      const field = page.locator('fl-code-page').getByLabel(name, { exact: true });
      await field.click();
      if (dice.onceIn(2)) await page.keyboard.press('ControlOrMeta+a');
      await page.keyboard.type(dice.words());
      const typed = await field.inputValue();
      const leave = dice.below(3);
      if (leave === 0) await (await walk.any('fl-code-tree [data-code]'))?.click();
      if (leave === 1) await walk.filum.goTo(dice.one(['Overview', 'Queries', 'Reading']));
      if (leave === 2) {
        await page.reload();
        const kept = await page.evaluate(() => JSON.stringify(Object.values(localStorage)));
        // kept as a draft, unless what was typed is what was stored
        walk.note(kept.includes(JSON.stringify(JSON.stringify(typed).slice(1, -1)).slice(1, -1)) ? 'reloaded, draft there' : 'reloaded');
      }
    }),
  },
  {
    name: 'move a code',
    weight: 4,
    go: withCode(async (walk, row) => {
      await row.focus();
      const key = walk.dice.one(['Alt+ArrowUp', 'Alt+ArrowDown', 'Alt+ArrowRight', 'Alt+ArrowLeft', 'ArrowLeft', 'ArrowRight', 'u']);
      walk.note(key);
      await walk.page.keyboard.press(key);
      if (key === 'u') {
        await walk.page.keyboard.type(walk.dice.one(['wor', 'm', 'time']));
        await walk.page.keyboard.press('Enter');
      }
    }),
  },
  {
    name: 'drag a code',
    weight: 2,
    go: withCode(async (walk, row) => {
      const onto = await walk.any('fl-code-tree [data-code]');
      if (onto) await row.dragTo(onto, { timeout: 5_000 }).catch(() => undefined);
      // one that found no place to land must not go on with the next click
      await walk.page.mouse.up();
      await walk.page.keyboard.press('Escape');
    }),
  },
  {
    name: 'several codes: join, retire, delete',
    weight: 4,
    go: withCode(async (walk, row) => {
      const { page, dice } = walk;
      await row.focus();
      for (let left = 1 + dice.below(3); left > 0; left--) await page.keyboard.press(dice.one(['Shift+ArrowDown', 'Shift+ArrowUp']));
      const act = dice.one(['j', 'Delete', 'Retire', 'Use again', 'Escape']);
      walk.note(act);
      if (act.length === 1 || act === 'Delete' || act === 'Escape') await page.keyboard.press(act);
      else if (await page.getByRole('button', { name: act, exact: true }).first().isVisible())
        await page.getByRole('button', { name: act, exact: true }).first().click();
      await answer(walk);
    }),
  },
  {
    name: 'filter the tree and act',
    weight: 2,
    go: withCode(async (walk) => {
      const { page, dice } = walk;
      await page
        .locator('fl-code-tree input')
        .first()
        .fill(dice.one(['wor', 'e', 'zzz', '']));
      await page.waitForTimeout(150);
      const row = await walk.any('fl-code-tree [data-code]');
      if (!row) return page.locator('fl-code-tree input').first().fill('');
      await row.focus();
      await page.keyboard.press(dice.one(['Delete', 'ControlOrMeta+a', 'ArrowDown']));
      await answer(walk);
      await page.locator('fl-code-tree input').first().fill('');
    }),
  },
  {
    name: 'sort codes on a table',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      await walk.goToPart('Codebook', 'Sorting');
      const begin = page.getByRole('button', { name: 'Sort all codes' });
      await page.waitForTimeout(200);
      if (await begin.isVisible()) {
        await begin.click();
        return answer(walk);
      }
      const slip = await walk.any('.slip');
      if (!slip) return;
      await slip.focus();
      await page.keyboard.press(dice.one(['1', '2', '0', 'n']));
      await page.waitForTimeout(150);
      const field = page.locator('mat-dialog-container input');
      if (await field.isVisible()) {
        await page.keyboard.type(dice.words(1));
        await page.keyboard.press('Enter');
      }
    },
  },
];
