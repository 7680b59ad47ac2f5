import { expect } from '@playwright/test';
import type { Stride } from './strides';
import type { Walk } from './wanderer';

const view = async (walk: Walk, name: RegExp): Promise<void> => {
  await walk.goToPart('Material', name);
  await walk.page.waitForTimeout(150);
};

async function answer(walk: Walk, text?: string): Promise<void> {
  const dialog = walk.page.locator('mat-dialog-container');
  await walk.page.waitForTimeout(150);
  if (!(await dialog.isVisible())) return;
  if (text !== undefined && (await dialog.locator('input, textarea').first().isVisible()))
    await dialog.locator('input, textarea').first().fill(text);
  const yes = dialog.locator('mat-dialog-actions .do:not(.quiet)').last();
  if (walk.dice.onceIn(5) || !(await yes.isVisible())) await walk.page.keyboard.press('Escape');
  else await yes.click();
  await walk.page.waitForTimeout(150);
}

export const MATERIAL: readonly Stride[] = [
  {
    name: 'fill the register',
    weight: 7,
    go: async (walk) => {
      const { page, dice } = walk;
      await view(walk, /^Participants/);
      if (dice.onceIn(3)) await (await walk.any('fl-case-grid [role=columnheader] button'))?.click();
      if (dice.onceIn(4)) await page.getByLabel('Find in the register').fill(dice.one(['a', 'zzz', '']));
      const cell = await walk.any('fl-case-grid [data-cell]');
      if (!cell) return page.getByLabel('Find in the register').fill('');
      await cell.click();
      const text = dice.one(['44', 'x', '2025-02-30', '2025-03-01', dice.words(2), '', 'yes']);
      walk.note(JSON.stringify(text));
      await page.keyboard.press('Enter');
      const box = page.locator('input.editor');
      if (await box.isVisible()) await box.fill(text);
      const end = dice.below(4);
      if (end === 0) await page.keyboard.press('Enter');
      if (end === 1) await page.keyboard.press('Tab');
      if (end === 2) await page.keyboard.press('Escape');
      if (end === 3) await (await walk.any('fl-case-grid [data-cell]'))?.click();
      if (dice.onceIn(4)) await page.keyboard.press(dice.one(['Delete', 'ControlOrMeta+d', 'Shift+ArrowDown']));
    },
  },
  {
    name: 'paste into the register',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      await view(walk, /^Participants/);
      const cell = await walk.any('fl-case-grid [data-cell$=",0"]');
      if (!cell) return;
      await cell.click();
      const rows = Array.from({ length: 1 + dice.below(4) }, () => dice.words(2));
      await page.evaluate((text) => navigator.clipboard.writeText(text), rows.join('\n'));
      await page.keyboard.press('ControlOrMeta+v');
      await answer(walk);
    },
  },
  {
    name: 'add or delete participants',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      await view(walk, /^Participants/);
      if (dice.onceIn(2)) {
        await page.getByRole('button', { name: /^New participant/ }).click();
        return answer(walk, dice.words(2));
      }
      const cell = await walk.any('fl-case-grid [data-cell]');
      if (!cell) return;
      await cell.click();
      await page.keyboard.press('Shift+ArrowDown');
      await page.locator('fl-case-grid footer .danger').click();
      await answer(walk);
    },
  },
  {
    name: 'work on documents',
    weight: 5,
    go: async (walk) => {
      const { page, dice } = walk;
      await view(walk, /^Documents/);
      const find = page.getByLabel('Find in the table');
      if (!(await find.isVisible())) return;
      if (dice.onceIn(3)) await find.fill(dice.one(['inter', 'R1', 'zzz', '']));
      const boxes = page.locator('fl-document-table [role=cell] input[type=checkbox]:visible');
      if ((await walk.settled(boxes)) === 0) return find.fill('');
      for (let left = 1 + dice.below(2); left > 0; left--) await boxes.nth(dice.below(await walk.settled(boxes))).click();
      const acts = page.locator('fl-document-table footer > button.act');
      await walk.settled(acts);
      const names = (await acts.allTextContents()).filter((name) => !/Export/.test(name));
      if (names.length === 0) return;
      const act = dice.one(names);
      walk.note(act);
      await page.locator('fl-document-table footer').getByRole('button', { name: act, exact: true }).click();
      await page.waitForTimeout(150);
      const entries = page.locator('.mat-mdc-menu-panel [mat-menu-item]:visible');
      if ((await walk.settled(entries)) > 0) await entries.nth(dice.below(Math.min(6, await entries.count()))).click();
      await answer(walk, dice.onceIn(3) ? '2025-03-01' : dice.words(2));
      await find.fill('').catch(() => undefined);
    },
  },
  {
    name: 'attributes',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      await view(walk, /^Attributes/);
      if (dice.onceIn(2)) {
        const field = page.getByPlaceholder('New attribute').first();
        await field.fill(dice.words(2));
        await page.keyboard.press('Enter');
        return;
      }
      const act = await walk.any('fl-attribute-list .sheet header button.act');
      if (!act) return;
      await act.click();
      await answer(walk, dice.words(1));
    },
  },
  {
    name: 'find and replace words',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      await page.goto(`${walk.studyUrl}/material/replace`);
      await page.getByLabel('Words', { exact: true }).fill(dice.one(['ferry', 'the boat', 'pier', 'C++', '-']));
      await page.getByLabel('Replaced by').fill(dice.words(1));
      await page.waitForTimeout(600);
      const go = page.getByRole('button', { name: /^Replace/ });
      if ((await go.isVisible()) && (await go.isEnabled())) await go.click();
      await expect(page.locator('mat-dialog-container')).toHaveCount(0);
    },
  },
  {
    name: 'paste a document',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      await page.goto(`${walk.studyUrl}/material/import`);
      await page.getByRole('button', { name: 'Paste a text' }).click();
      await page.locator('fl-import').getByLabel('Title', { exact: true }).fill(dice.words(2));
      await page
        .locator('fl-import')
        .getByLabel('Text', { exact: true })
        .fill(`A: ${dice.words()}.\n\nB: ${dice.words()}.\n\nA: ${dice.words()}.\n\nB: ${dice.words()}.`);
      await page.getByRole('button', { name: 'Show the preview' }).click();
      const go = page.getByRole('button', { name: /^Bring in th/ });
      await expect(go).toBeVisible();
      if (dice.onceIn(4)) return walk.filum.goTo('Overview');
      await go.click();
      await expect(go).toBeHidden();
    },
  },
];
