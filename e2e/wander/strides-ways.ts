import { expect } from '@playwright/test';
import type { Stride } from './strides';
import type { Walk } from './wanderer';

const setRefusing = (walk: Walk, refuse: boolean): Promise<void> => {
  walk.refusing = refuse;
  return walk.page.evaluate((on) => void ((window as { refuse?: boolean }).refuse = on), refuse);
};

/** Ways through the application, and what happens to it meanwhile. */
export const WAYS: readonly Stride[] = [
  {
    name: 'undo and redo',
    weight: 6,
    go: async (walk) => {
      const { page, dice } = walk;
      const way = dice.one(['Undo', 'Undo', 'Redo']);
      for (let left = 1 + dice.below(4); left > 0; left--) {
        const button = page.getByRole('button', { name: way, exact: true });
        // it may have been the last one
        await button.evaluate((one: HTMLButtonElement) => one.click());
        await page.waitForTimeout(60);
      }
    },
  },
  {
    name: 'undo by keys, whatever has the focus',
    weight: 2,
    go: async (walk) => {
      await walk.page.keyboard.press(walk.dice.one(['ControlOrMeta+z', 'ControlOrMeta+Shift+z', 'ControlOrMeta+y']));
      await walk.page.waitForTimeout(100);
    },
  },
  {
    name: 'go to a place',
    weight: 4,
    go: async (walk) => {
      const place = walk.dice.one(['Overview', 'Material', 'Reading', 'Codebook', 'Memos', 'Queries', 'Write-up']);
      walk.note(place);
      await walk.filum.goTo(place);
    },
  },
  {
    name: 'back and forward',
    weight: 3,
    go: async (walk) => {
      const { page, dice } = walk;
      const way = dice.one(['back', 'back', 'forward']);
      walk.note(way);
      await (way === 'back' ? page.goBack() : page.goForward()).catch(() => null);
      if (!page.url().startsWith(walk.studyUrl)) await page.goto(`${walk.studyUrl}/overview`);
      await expect(page.locator('[data-save]')).toBeVisible();
    },
  },
  {
    name: 'reload',
    weight: 3,
    go: async (walk) => {
      await walk.page.reload();
      await expect(walk.page.locator('[data-save]')).toBeVisible();
    },
  },
  {
    name: 'leave the study and return',
    weight: 2,
    go: async (walk) => {
      const { page } = walk;
      await page.getByRole('button', { name: 'Filum: all studies' }).click();
      await page.locator('.studies a').first().click();
      await expect(page.locator('[data-save]')).toBeVisible();
    },
  },
  {
    name: 'narrow the scope and widen it',
    weight: 3,
    go: async (walk) => {
      const { page, dice } = walk;
      const all = page.getByRole('button', { name: 'look at all' });
      if ((await all.isVisible()) && dice.onceIn(2)) return all.click();
      const part = await walk.any('fl-scope-line > button.part:not(.here)');
      if (!part) return;
      await part.click();
      const entries = page.locator('.mat-mdc-menu-panel [mat-menu-item]:visible');
      await expect(entries.first()).toBeVisible();
      await entries.nth(dice.below(await entries.count())).click();
      await page.keyboard.press('Escape');
    },
  },
  {
    name: 'keys anywhere',
    weight: 2,
    go: async (walk) => {
      const { page, dice } = walk;
      for (let left = 1 + dice.below(3); left > 0; left--)
        await page.keyboard.press(dice.one(['?', 'Escape', 'Tab', 'Shift+Tab', '/', 'ArrowDown', 'Enter', 'f', 'PageDown']));
      await page.waitForTimeout(150);
    },
  },
  {
    name: 'saves are refused for a while',
    weight: 3,
    go: async (walk) => {
      const { page, dice } = walk;
      await walk.goToPart('Codebook', 'Codes');
      await setRefusing(walk, true);
      for (let left = 1 + dice.below(2); left > 0; left--) {
        await page
          .getByRole('button', { name: /New code/ })
          .first()
          .click();
        await page.locator('mat-dialog-container input').fill(dice.words(2));
        await page.keyboard.press('Enter');
        await page.waitForTimeout(150);
        await page.keyboard.press('Escape');
      }
      const trouble = page.getByRole('alert').filter({ hasText: 'not saved' });
      await page.waitForTimeout(200);
      if (await trouble.isVisible()) {
        if (dice.onceIn(2)) {
          await page.getByRole('button', { name: 'Filum: all studies' }).click();
          await expect(page.locator('mat-dialog-container')).toContainText('not on disk');
          await page.keyboard.press('Escape');
          walk.note('wanted to leave');
        }
        await setRefusing(walk, false);
        await page.getByRole('button', { name: 'Try again', exact: true }).click();
      }
      await setRefusing(walk, false);
    },
  },
  {
    name: 'work in a second tab',
    weight: 3,
    go: async (walk) => {
      const { context, page, dice, complaints } = walk;
      const other = await context.newPage();
      other.setDefaultTimeout(15_000);
      complaints.listenTo(other);
      await other.goto(`${walk.studyUrl}/codebook`);
      await expect(other.getByText('open for work in another tab')).toBeVisible();
      await other.getByRole('button', { name: 'Work here instead' }).click();
      await expect(page.getByText('open for work in another tab')).toBeVisible();
      const row = other.locator('[data-code]').first();
      if (await row.isVisible()) {
        await row.click();
        await other.locator('fl-code-page').getByLabel('Notes').fill(dice.words());
        await row.click();
        await expect(other.locator('[data-save]')).toHaveAttribute('data-save', 'saved');
      }
      // the first one follows, and takes the work back
      await page.getByRole('button', { name: 'Work here instead' }).click();
      await expect(page.getByText('open for work in another tab')).toHaveCount(0);
      await other.close();
    },
  },
];
