import type { Locator } from '@playwright/test';
import { Filum } from './support/filum';
import { expect, test } from './support/one-sitting';

const TEXT = `Interviewer: What did you do with the thumb?

Shona: Rang the boat. They held her. Eleven minutes, forty people on board.

Interviewer: And the other version?

Shona: The other version's at night. Either of them can say no.`;

let filum: Filum;

test.beforeEach(async ({ page }) => {
  filum = new Filum(page);
  await filum.newStudy();
  await filum.paste('Interview 03', TEXT);
  await filum.read('Interview 03');
});

test('codes what is selected, shows thread and slip, and undoes and redoes it', async ({ page }) => {
  await filum.code('They held her.', 'Getting help');
  await expect(page.locator('.thread')).toHaveText('They held her.');
  await expect(filum.slips('Getting help')).toBeVisible();
  await filum.passages(1);
  await page.keyboard.press('Control+z');
  await filum.passages(0);
  await expect(page.locator('.thread')).toHaveCount(0);
  await page.keyboard.press('Control+Shift+z');
  await expect(filum.slips('Getting help')).toBeVisible();
  await filum.saved();
});

test('draws threads of overlapping passages in lanes of their own', async ({ page }) => {
  await filum.code('Rang the boat. They held her.', 'Help');
  await filum.code('They held her. Eleven minutes', 'Queue');
  const overlap = page.locator('.thread', { hasText: /^They held her\.$/ });
  await expect(overlap).toHaveClass(/t0-c\d+ .*t1-c\d+|t1-c\d+ .*t0-c\d+/);
  const lines = await overlap.evaluate((element) => new Set(getComputedStyle(element).backgroundImage.match(/oklch\([^)]*\)/g)).size);
  expect(lines).toBe(2);
});

test('gives several codes in one go, and codes the turn where nothing is selected', async ({ page }) => {
  await filum.caretAt('Rang the boat');
  await page.keyboard.press('c');
  await page.keyboard.type('Help');
  await page.keyboard.press('Shift+Enter');
  await page.keyboard.type('Waiting together');
  await page.keyboard.press('Enter');
  await filum.passages(1);
  await expect(page.getByLabel('Codes on this passage').getByRole('listitem')).toHaveCount(2);
  await expect(page.locator('blockquote')).toContainText('Rang the boat. They held her. Eleven minutes, forty people on board.');
});

test('makes a code under a category when it is typed so, and in their words by Tab', async ({ page }) => {
  await filum.code('Rang the boat', 'Reaching help');
  await filum.code('Either of them can say no', 'Reaching help / Refusal');
  await filum.select('forty people on board');
  await page.keyboard.press('c');
  await expect(filum.picker).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(filum.slips('forty people on board')).toBeVisible();
  await filum.goTo('Codebook');
  await expect(page.getByRole('treeitem', { name: 'Refusal' })).toHaveAttribute('aria-level', '2');
  await expect(page.getByRole('treeitem', { name: 'forty people on board' })).toHaveAttribute('aria-level', '1');
});

test('codes again with the last code by one key, and Escape leaves without coding', async ({ page }) => {
  await filum.code('They held her', 'Help');
  await filum.select('can say no');
  await page.keyboard.press('.');
  await expect(filum.slips('Help')).toHaveCount(2);
  await filum.select('Eleven minutes');
  await page.keyboard.press('c');
  await page.keyboard.press('Escape');
  await expect(filum.picker).toBeHidden();
  await expect(filum.text).toBeFocused();
  await filum.passages(2);
});

test('finds a code by its category and definition', async ({ page }) => {
  await filum.openDemo();
  await filum.read('Interview 01 – Moira Tennant');
  await page.locator('.cm-line').nth(2).click();
  await page.keyboard.press('c');
  await page.keyboard.type('helicopter');
  await expect(page.getByRole('option', { name: /Getting help in time/ })).toBeVisible();
});

test('shows code, coder and time on hover', async ({ page }) => {
  await filum.code('They held her', 'Help');
  const place = await filum.rectOf('They held her');
  await page.mouse.move(place.x + 20, place.y + 5);
  await expect(page.locator('.coding-hover')).toContainText(/Help.*Ada, .*\d{4}/);
  await page.keyboard.press('Escape');
  await expect(page.locator('.coding-hover')).toBeHidden();
});

test('takes codes off, comments, and removes a passage', async ({ page }) => {
  await filum.code('They held her', 'Help', 'Queue');
  await page.getByRole('button', { name: 'Take off Help' }).click();
  await expect(filum.slips('Help')).toHaveCount(0);
  await page.getByLabel('Comment').fill('No shouting?');
  await page.getByLabel('Comment').blur();
  await expect(page.locator('.slip.comment')).toHaveText('No shouting?');
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await filum.passages(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.slip.comment')).toHaveText('No shouting?');
});

test('comments and writes a memo at a passage by key', async ({ page }) => {
  await filum.select('Eleven minutes');
  await page.keyboard.press('k');
  await page.keyboard.type('counted by whom');
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('.slip.comment')).toHaveText('counted by whom');
  await filum.passages(1);
});

test('codes by dragging the selection onto a code, and a code onto the text', async ({ page }) => {
  await filum.code('Rang the boat', 'Help');
  const row = page.locator('fl-code-list .row', { hasText: 'Help' });
  await filum.select('forty people on board');
  const words = await filum.rectOf('forty people on board');
  await page.mouse.move(words.x + 30, words.y + words.height / 2);
  await page.mouse.down();
  const target = (await row.boundingBox())!;
  await page.mouse.move(words.x + 60, words.y, { steps: 4 });
  await page.mouse.move(target.x + 60, target.y + 12, { steps: 8 });
  await page.mouse.up();
  await expect(filum.slips('Help')).toHaveCount(2);
  await filum.caretAt('can say no');
  await row.dragTo(page.locator('.cm-line', { hasText: 'Either of them' }), { targetPosition: { x: 250, y: 15 } });
  await filum.passages(3);
});

test('steps through passages and keeps the place of each document', async ({ page }) => {
  await filum.openDemo();
  await filum.read('Interview 03 – Shona Adair');
  await filum.text.focus();
  for (let at = 0; at < 30; at++) await page.keyboard.press(']');
  await expect(page.locator('.slip-group.here').first()).toBeVisible();
  // where the reader is, is told when the text has come to rest
  const foot = page.locator('fl-document-foot span').first();
  await expect(foot).not.toHaveText('turn 1 of 51');
  let where = '';
  await expect(async () => {
    const before = where;
    where = (await foot.textContent())!;
    expect(where).toBe(before);
  }).toPass({ intervals: [300] });
  await filum.read('Interview 01 – Moira Tennant');
  await filum.read('Interview 03 – Shona Adair');
  await expect(page.locator('fl-document-foot span').first()).toHaveText(where);
});

test('codes right-to-left text and whole graphemes', async ({ page }) => {
  await filum.paste('Mixed', 'قال: لم يسألنا أحد\n\nA 👩‍👩‍👧 came over.');
  await filum.read('Mixed');
  await page
    .locator('.cm-line')
    .last()
    .click({ position: { x: 5, y: 20 } });
  await page.keyboard.press('Home');
  for (let at = 0; at < 3; at++) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('c');
  await page.keyboard.type('Family');
  await page.keyboard.press('Enter');
  await expect(page.locator('blockquote')).toHaveText('A 👩‍👩‍👧');
  const direction = (line: Locator) => line.evaluate((element) => getComputedStyle(element).direction);
  expect(await direction(page.locator('.cm-line').first())).toBe('rtl');
  expect(await direction(page.locator('.cm-line').last())).toBe('ltr');
  await page.locator('.cm-line').first().click();
  await page.keyboard.press('c');
  await page.keyboard.type('سؤال');
  await page.keyboard.press('Enter');
  await expect(filum.slips('سؤال')).toBeVisible();
});

test('shows every key on the help sheet', async ({ page }) => {
  await filum.text.focus();
  await page.keyboard.press('?');
  const sheet = page.getByRole('dialog', { name: 'Keys' });
  await expect(sheet).toContainText('code with the code used last');
  await expect(sheet).toContainText('undo, also what was done yesterday');
  await page.keyboard.press('Escape');
  await expect(sheet).toBeHidden();
});
