import { article, behind, cell, change, patterns } from './support/patterns';
import { expect, test } from './support/one-sitting';

test('who brings a theme up and who takes it on is counted in times, and opens to those passages', async ({ page }) => {
  const filum = await patterns(page, 'Taking up');
  await change(page, 'who brings it up', 'who takes it on');
  await page.getByLabel('Turns without it; with 0 it is brought up once in a document').fill('4');
  await page.getByLabel('Turns without it; with 0 it is brought up once in a document').press('Enter');
  await expect(page.locator('.body[aria-busy=true]')).toHaveCount(0);
  const some = page.locator('[role=gridcell]:not(.none):not(.apart)');
  const [, who, number] = /, (.+): (\d+)$/.exec((await some.first().getAttribute('aria-label'))!)!;
  await some.first().click();
  await expect(behind(page).locator('[data-behind]')).toContainText(`taken on by ${who} ${number} time`);
  await expect(article(page)).toHaveCount(Number(number));
  await filum.accessible();

  // from whom it was taken: each number opens to both passages of a time
  await change(page, 'who takes it on', 'from whom to whom');
  await expect(behind(page)).toBeHidden();
  const times = await some.first().textContent();
  await some.first().click();
  await expect(behind(page).locator('[data-behind]')).toContainText(`${times} time`);

  // where one speaks alone, nobody takes anything on
  await page.getByRole('button', { name: 'all documents' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'public documents', exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(some).toHaveCount(0);
});

test('words stand in a table by groups, each number opening to its places, from where they are looked for', async ({ page }) => {
  const filum = await patterns(page, 'Words');
  await change(page, 'as a list', 'as a cloud');
  await page.getByRole('button', { name: /^bridge: \d+ times$/ }).press('Enter');
  await expect(page.getByLabel('Words to look for')).toHaveValue('bridge');
  await filum.goTo('Patterns');
  await page.getByRole('link', { name: 'Words', exact: true }).click();
  await expect(page.locator('fl-word-cloud .word').first()).toBeVisible();
  await filum.accessible();
  await change(page, 'as a cloud', 'in a table by groups');
  await change(page, 'each document', 'each kind of document');
  await page.getByRole('button', { name: 'the most frequent words' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('boat*\n"last boat"\n(nobody');
  await page.getByRole('button', { name: 'Count these' }).click();
  await expect(page.getByRole('alert')).toContainText('A parenthesis is not closed');
  await page.getByRole('dialog').getByRole('textbox').fill('boat*\n"last boat"\nnobody');
  await page.getByRole('button', { name: 'Count these' }).click();
  const last = cell(page, '\\"last boat\\"', 'interviews');
  const count = Number(await last.textContent());
  expect(count).toBeGreaterThan(0);
  await last.click();
  await expect(behind(page).locator('mark')).toHaveCount(count);
  await expect(behind(page).locator('[data-behind]')).toContainText(`${count} place`);
  await filum.accessible();
  await behind(page).locator('.hit button').first().click();
  await expect(page.locator('.cm-content')).toContainText(/last boat/i);
  await page.getByRole('button', { name: 'Back to the pattern' }).click();
  await behind(page).getByRole('button', { name: 'Look for it in Queries' }).click();
  await expect(page.getByLabel('Words to look for')).toHaveValue('"last boat"');
});

test('a pattern is kept with how it is shown: a flow, and bars, whose lines and bars open as cells do', async ({ page }) => {
  const filum = await patterns(page, 'Together');
  await change(page, 'coders together', 'each marked passage');
  await change(page, 'as a table', 'as a flow from one group to another');
  const line = page.getByRole('button', { name: /^Getting help in time with Worry: \d+$/ });
  const pairs = /: (\d+)$/.exec((await line.getAttribute('aria-label'))!)![1]!;
  await line.press('Enter');
  await expect(behind(page).locator('[data-behind]')).toContainText(`${pairs} pairs`);
  await filum.accessible();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByLabel('Name').fill('What leads to what');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('What leads to what');
  await filum.saved();

  await page.getByRole('link', { name: 'Cross-table', exact: true }).click();
  await change(page, 'each document', 'each kind of document');
  await change(page, 'as a table', 'as bars in groups');
  const bars = page.getByRole('group', { name: /Arrow keys go from bar to bar/ });
  await bars.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('fl-group-bars [aria-live]')).toContainText('interviews: ');
  await page.keyboard.press('Enter');
  await expect(behind(page).locator('[data-behind]')).toContainText('in interviews');
  await filum.accessible();
  const png = await filum.download(async () => {
    await page.getByRole('button', { name: 'Take out' }).click();
    await page.getByRole('menuitem', { name: /PNG/ }).click();
    await page.getByRole('button', { name: 'Take it out' }).click();
  });
  expect(png.bytes.readUInt32BE(16)).toBe(1_600);

  await page.reload();
  await page.getByRole('button', { name: 'Kept patterns' }).click();
  await page.getByRole('menuitem', { name: 'What leads to what' }).first().click();
  await expect(line).toHaveAttribute('aria-label', new RegExp(`: ${pairs}$`));
});

test('a table goes out as a drawing, and what a month lacks can be asked for and marked as expected', async ({ page }) => {
  const filum = await patterns(page);
  const svg = await filum.download(async () => {
    await page.getByRole('button', { name: 'Take out' }).click();
    await page.getByRole('menuitem', { name: /SVG/ }).click();
    await page.getByRole('button', { name: 'Take it out' }).click();
  });
  expect(svg.bytes.toString()).toContain('Getting help in time');
  await change(page, 'each document', 'each month');
  const empty = page.locator('[role=gridcell].none:not(.apart)').first();
  const label = (await empty.getAttribute('aria-label'))!;
  await empty.click();
  await behind(page).getByRole('button', { name: 'Mark as expected…' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('It was the month of the storms.');
  await page.getByRole('button', { name: 'Mark it' }).click();
  await expect(empty.or(page.locator('.absent')).first()).toBeVisible();
  await expect(page.locator(`[role=gridcell][aria-label^="${label.replace(/: .*/, '').replaceAll('"', '\\"')}: expected"]`)).toHaveText(
    '∅',
  );
  await behind(page).getByRole('button', { name: 'Ask this in Queries' }).click();
  await expect(page.getByLabel('Dated from')).toHaveValue(/^\d{4}-\d\d-01$/);
});
