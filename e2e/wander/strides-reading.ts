import { expect } from '@playwright/test';
import type { Stride } from './strides';
import type { Walk } from './wanderer';

/** Reads some document; the text is there when it is done. @returns false where there is none */
export async function readSome(walk: Walk): Promise<boolean> {
  const { page, filum } = walk;
  await filum.goTo('Reading');
  const menu = page.locator('fl-document-menu button').first();
  await expect(menu.or(page.locator('.empty')).first()).toBeVisible();
  if (!(await menu.isVisible())) return false;
  await menu.click();
  const find = page.getByRole('dialog', { name: 'Documents' }).getByLabel('Find a document');
  await expect(find).toBeVisible();
  const links = page.getByRole('dialog', { name: 'Documents' }).locator('[role=listitem] button');
  const count = await walk.settled(links);
  if (count === 0) return false;
  await links.nth(walk.dice.below(Math.min(count, 12))).click();
  await expect(page.locator('.cm-line, fl-recording-page, fl-picture-surface').first()).toBeVisible();
  // a recording or a picture has no words to be read
  await page.waitForTimeout(150);
  if (!(await page.locator('.cm-line').first().isVisible())) return false;
  await endCorrecting(walk);
  return true;
}

/** A correction that was left in mid-sentence is still open when its document is come back to: keys would be writing. */
async function endCorrecting({ page, dice }: Walk): Promise<void> {
  const drop = page.locator('#place').getByRole('button', { name: 'Drop', exact: true });
  // the one of another document closes a moment after this one is shown
  await page.waitForTimeout(400);
  if (!(await drop.isVisible())) return;
  const keep = page.getByRole('button', { name: 'Keep the corrections' });
  await (dice.onceIn(2) && (await keep.isEnabled()) ? keep : drop).click();
  const dialog = page.locator('mat-dialog-container');
  await page.waitForTimeout(150);
  if (await dialog.isVisible()) await dialog.locator('button.danger').click();
  await expect(drop).toBeHidden();
}

/** Puts the caret somewhere in the text on the screen. */
async function clickSomewhere(walk: Walk): Promise<boolean> {
  // another document may be coming in: its lines are there when they stay
  await walk.page.waitForTimeout(250);
  const boxes = await walk.page
    .locator('.cm-line')
    .evaluateAll((lines) =>
      lines
        .map((line) => line.getBoundingClientRect())
        .flatMap(({ x, y, width, height }) => (y > 120 && y + height < innerHeight - 60 ? [{ x, y, width }] : [])),
    );
  if (boxes.length === 0) return false;
  const box = walk.dice.one(boxes);
  await walk.page.mouse.click(box.x + 10 + walk.dice.throw() * Math.max(1, box.width - 40), box.y + 12);
  await walk.filum.text.first().focus();
  return true;
}

async function selectSome(walk: Walk): Promise<void> {
  const { page, dice } = walk;
  const unit = dice.one(['s', 'p', 't', 'e', '']);
  if (unit) await page.keyboard.press(unit);
  else for (let left = 3 + dice.below(20); left > 0; left--) await page.keyboard.press('Shift+ArrowRight');
}

const inText = (go: (walk: Walk) => Promise<void>) => async (walk: Walk) => {
  if ((await readSome(walk)) && (await clickSomewhere(walk))) await go(walk);
};

export const READING: readonly Stride[] = [
  {
    name: 'code with the picker',
    weight: 8,
    go: inText(async (walk) => {
      const { page, dice } = walk;
      await selectSome(walk);
      await page.keyboard.press('c');
      await expect(walk.filum.picker).toBeVisible();
      await page.keyboard.type(dice.onceIn(3) ? dice.words(2) : dice.one(['wor', 'wait', 'fer', 'pier', 'help', 'a']));
      await page.keyboard.press(dice.one(['Enter', 'Enter', 'Shift+Enter', 'Escape', 'Tab']));
      await page.keyboard.press('Escape');
    }),
  },
  {
    name: 'code by a key',
    weight: 4,
    go: inText(async (walk) => {
      await selectSome(walk);
      const key = walk.dice.one(['.', '1', '2', '3', 'v', 'x', 'h', 'u', '[', ']', 'n', 'b']);
      walk.note(key);
      await walk.page.keyboard.press(key);
    }),
  },
  {
    name: 'move ends and remove',
    weight: 4,
    go: inText(async (walk) => {
      const slip = await walk.any('.slip');
      if (!slip) return;
      await slip.click();
      await walk.filum.text.first().focus();
      for (let left = walk.dice.below(4); left > 0; left--)
        await walk.page.keyboard.press(walk.dice.one(['Alt+ArrowRight', 'Alt+ArrowLeft', 'Alt+Shift+ArrowLeft', 'Alt+ArrowDown']));
      if (walk.dice.onceIn(2)) await walk.page.keyboard.press('Delete');
    }),
  },
  {
    name: 'comment and leave',
    weight: 4,
    go: inText(async (walk) => {
      const { page, dice } = walk;
      const slip = await walk.any('.slip');
      if (!slip) return;
      await slip.click();
      await walk.filum.text.first().focus();
      await page.keyboard.press('k');
      const box = page.getByLabel('Comment');
      await expect(box).toBeFocused();
      const said = dice.words();
      await page.keyboard.press('ControlOrMeta+a');
      await page.keyboard.type(said);
      await expect(box).toHaveValue(said);
      const leave = dice.below(3);
      if (leave === 0) await walk.filum.text.first().click({ position: { x: 300, y: 20 } });
      if (leave === 1) await walk.filum.goTo(dice.one(['Overview', 'Codebook', 'Memos']));
      if (leave === 2) {
        // in mid-sentence: what was typed is there again
        const { pathname } = new URL(page.url());
        await page.reload();
        await expect(page).toHaveURL(new RegExp(pathname));
        const drafts = await page.evaluate(() =>
          Object.keys(localStorage)
            .filter((key) => / comment /.test(key))
            .map((key) => localStorage.getItem(key)),
        );
        expect(drafts.some((draft) => draft?.includes(JSON.stringify(said).slice(1, -1)))).toBe(true);
        walk.note('reloaded');
      }
    }),
  },
  {
    name: 'correct the text',
    weight: 7,
    go: inText(async (walk) => {
      const { page, dice } = walk;
      await page.getByRole('button', { name: 'Text', exact: true }).first().click();
      await page.getByRole('menuitem', { name: 'Correct the text' }).click();
      const paper = page.getByRole('textbox', { name: /Correcting the text/ });
      await expect(paper).toBeFocused();
      for (let left = dice.below(6); left > 0; left--)
        await page.keyboard.press(dice.one(['ArrowDown', 'ControlOrMeta+ArrowRight', 'End', 'Home']));
      await page.keyboard.type(`${dice.words(3)} `);
      if (dice.onceIn(3)) for (let left = dice.below(12); left > 0; left--) await page.keyboard.press('Delete');
      if (dice.onceIn(4)) await page.keyboard.press('Enter');
      const end = dice.one(['keep', 'keep', 'keep', 'drop', 'undo meanwhile', 'go elsewhere', 'reload']);
      walk.note(end);
      if (end === 'undo meanwhile') {
        const undo = page.getByRole('button', { name: 'Undo' });
        if (await undo.isEnabled()) await undo.click();
        await walk.saved();
      }
      if (end === 'go elsewhere') return walk.filum.goTo('Memos');
      if (end === 'reload') {
        await page.reload();
        await expect(page.getByText('Corrections were begun here and not kept')).toBeVisible();
        if (dice.onceIn(2)) await page.getByRole('button', { name: 'Drop them' }).click();
        return;
      }
      if (!(await paper.isVisible())) return;
      if (end === 'drop') await page.locator('#place').getByRole('button', { name: 'Drop', exact: true }).click();
      else if (await page.getByRole('button', { name: 'Keep the corrections' }).isEnabled())
        await page.getByRole('button', { name: 'Keep the corrections' }).click();
      const dialog = page.locator('mat-dialog-container');
      await page.waitForTimeout(100);
      if (await dialog.isVisible()) await dialog.locator('button.danger').click();
    }),
  },
  {
    name: 'divide the document',
    weight: 2,
    go: inText(async (walk) => {
      const { page } = walk;
      await page.getByRole('button', { name: 'Text', exact: true }).first().click();
      await page.getByRole('menuitem', { name: /Divide the document/ }).click();
      await page.locator('mat-dialog-container').getByRole('button', { name: 'Divide', exact: true }).click();
    }),
  },
  {
    name: 'define a word',
    weight: 2,
    go: inText(async (walk) => {
      const { page, dice } = walk;
      await page.keyboard.press('g');
      await expect(page.getByLabel('What it means')).toBeVisible();
      await page.getByLabel('What it means').fill(dice.words());
      await page
        .locator('mat-dialog-container')
        .getByRole('button', { name: dice.onceIn(3) ? 'Close' : /Define the word|^Keep$/ })
        .first()
        .click();
    }),
  },
  {
    name: 'line by line',
    weight: 3,
    go: inText(async (walk) => {
      const { page, dice } = walk;
      await page.goto(`${page.url().split('?')[0]}?as=lines`);
      const cell = await firstOf(walk, 'fl-code-cell input');
      if (!cell) return;
      await cell.focus();
      await page.keyboard.type(dice.one(['wor', 'fer', dice.words(1)]));
      await page.keyboard.press(dice.one(['Enter', 'Enter', 'Escape', 'ArrowDown']));
      if (dice.onceIn(3)) await page.keyboard.press('Backspace');
    }),
  },
  {
    name: 'side by side',
    weight: 1,
    go: inText(async (walk) => {
      const { page } = walk;
      await page.getByRole('button', { name: 'Text', exact: true }).first().click();
      await page.getByRole('menuitem', { name: /Another document beside|End side by side/ }).click();
      await page.waitForTimeout(200);
      await clickSomewhere(walk);
      await selectSome(walk);
      await page.keyboard.press('.');
    }),
  },
];

async function firstOf(walk: Walk, selector: string) {
  await walk.page.waitForTimeout(200);
  return walk.any(selector);
}
