import { expect, test } from '@playwright/test';
import { Filum } from './support/filum';

let filum: Filum;
const row = (name: string) => filum.page.getByRole('treeitem', { name, exact: true });

test.beforeEach(async ({ page }) => {
  filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Codebook');
});

test('makes, renames, describes and colours a code', async ({ page }) => {
  await page.getByRole('button', { name: 'New code', exact: true }).click();
  await page.getByLabel('Name', { exact: true }).last().fill('Missing the boat');
  await page.getByRole('button', { name: 'Make the code' }).click();
  await expect(row('Missing the boat')).toBeFocused();
  await page.getByLabel('Name', { exact: true }).fill('Missing it');
  await page.getByLabel('Definition').fill('Being left on the pier.');
  await page.getByRole('button', { name: 'teal 3' }).click();
  await expect(row('Missing it')).toContainText('Being left on the pier.');
  await expect(page.getByRole('button', { name: 'teal 3' })).toHaveAttribute('aria-pressed', 'true');
  await filum.saved();
  await page.reload();
  await page.getByLabel('Find a code').fill('Missing');
  await expect(row('Missing it')).toContainText('Being left on the pier.');
});

test('refuses a name that is taken, and puts the old one back', async ({ page }) => {
  await row('Grief').click();
  await page.getByLabel('Name', { exact: true }).fill('Worry');
  await page.getByLabel('Name', { exact: true }).blur();
  await expect(page.getByRole('status').filter({ hasText: 'already a code “Worry”' })).toBeVisible();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Grief');
});

test('nests and orders codes by keyboard', async ({ page }) => {
  await row('Grief').click();
  await page.keyboard.press('Alt+ArrowRight');
  await expect(row('Grief')).toHaveAttribute('aria-level', '3');
  await expect(row('Grief')).toBeFocused();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(row('Grief')).toHaveAttribute('aria-level', '2');
  const order = () => page.getByRole('treeitem').evaluateAll((rows) => rows.map((one) => one.getAttribute('aria-label')));
  await page.keyboard.press('Alt+ArrowUp');
  const names = await order();
  expect(names.indexOf('Grief')).toBe(names.indexOf('Pride') - 1);
  await page.keyboard.press('ArrowDown');
  await expect(row('Pride')).toBeFocused();
});

test('nests codes by dragging', async ({ page }) => {
  await row('Counting the fare').dragTo(row('Reaching help'), { targetPosition: { x: 200, y: 18 } });
  const names = await page.getByRole('treeitem').evaluateAll((rows) => rows.map((one) => one.getAttribute('aria-label')));
  expect(names.indexOf('Counting the fare')).toBe(names.indexOf('Making a living') - 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'moved the code Counting the fare under Reaching help' })).toBeVisible();
});

test('names what deleting takes away, deletes, and brings all of it back', async ({ page }) => {
  const count = async () => (await row('Feelings').textContent())!.match(/\d+/)![0];
  const before = await count();
  await row('Feelings').click();
  await page.keyboard.press('Delete');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('With it go the 5 codes under it.');
  await expect(dialog).toContainText(/This takes away \d+ codings in \d+ documents; \d+ passages carrying nothing else go too/);
  await expect(dialog).toContainText('will stay, attached to nothing');
  await dialog.getByRole('button', { name: 'Delete the code' }).click();
  await expect(row('Feelings')).toHaveCount(0);
  await expect(row('Worry')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row('Worry')).toBeVisible();
  expect(await count()).toBe(before);
});

test('finds codes by definition, and counts within the scope', async ({ page }) => {
  await page.getByLabel('Find a code').fill('helicopter');
  await expect(page.getByRole('treeitem')).toHaveCount(1);
  const number = async () => Number((await row('Getting help in time').textContent())!.match(/(\d+)\s*$/)![1]);
  const all = await number();
  await page.getByRole('button', { name: 'all coders' }).click();
  await page.getByRole('menuitem', { name: 'Jon' }).click();
  await expect.poll(number).toBeLessThan(all);
  await page.getByRole('button', { name: 'look at all' }).click();
  await expect.poll(number).toBe(all);
});

test('writes a memo about a code', async ({ page }) => {
  await row('Pride').click();
  await page.locator('fl-code-sheet').getByRole('button', { name: 'Memo' }).click();
  await page.getByLabel('Title', { exact: true }).fill('Pride and the boat');
  await page.getByLabel('Memo', { exact: true }).fill('Who is proud of **what**?');
  await page.getByRole('button', { name: 'Keep' }).click();
  await filum.goTo('Memos');
  await page.getByRole('button', { name: /Pride and the boat/ }).click();
  await expect(page.locator('article strong')).toHaveText('what');
  await page.getByRole('button', { name: 'Pride', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Codebook' })).toBeVisible();
});
