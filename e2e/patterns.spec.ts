import { article, behind, cell, change, patterns } from './support/patterns';
import { expect, test } from './support/one-sitting';

test('a cell opens to as many passages as it counts, in the scope that is looked at, and follows what is coded', async ({ page }) => {
  const filum = await patterns(page);
  const help = cell(page, 'Getting help in time', 'Interview 03 – Shona Adair');
  await change(page, 'coders together', 'each marked passage');
  const count = Number(await help.textContent());
  expect(count).toBeGreaterThan(3);
  await help.click();
  await expect(article(page)).toHaveCount(count);
  await expect(behind(page).locator('[data-behind]')).toContainText(`${count} passages`);

  // by keys: to the next cell, and open
  await help.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(behind(page).getByRole('heading', { level: 2 })).toHaveText('Keeping appointments over');

  // one coder alone: another count, and the same evidence
  await page.getByRole('button', { name: 'all coders' }).click();
  await page.getByRole('menuitem').first().click();
  await expect(help).not.toHaveText(String(count));
  const fewer = Number(await help.textContent());
  await help.click();
  await expect(article(page)).toHaveCount(fewer);
  await page.getByRole('button', { name: 'look at all' }).click();
  await expect(help).toHaveText(String(count));

  // a passage coded elsewhere is in the table that stays open
  await filum.read('Interview 03 – Shona Adair');
  await filum.code('I answered an advert', 'Getting help in time');
  await filum.goTo('Patterns');
  await expect(help).toHaveText(String(count + 1));
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(help).toHaveText(String(count));
});

test('a cell becomes a question, a set, a table and a kept pattern that says when something else is looked at', async ({ page }) => {
  const filum = await patterns(page);
  await change(page, 'each document', 'each home');
  await change(page, 'coders together', 'each marked passage');
  const saltpans = cell(page, 'Getting help in time', 'Saltpans');
  await saltpans.click();
  // once both are counted as it was asked last
  await expect(async () => expect(await article(page).count()).toBe(Number(await saltpans.textContent()))).toPass({ timeout: 20_000 });
  const count = Number(await saltpans.textContent());
  await behind(page).getByRole('button', { name: 'Make a set' }).click();
  await page.getByRole('menuitem', { name: /participant/ }).click();
  await page.getByRole('dialog').getByLabel('Name of the set').fill('Helped in Saltpans');
  await page.getByRole('button', { name: 'Make the set' }).click();

  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Who gets help where');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Who gets help where');
  await page.getByRole('button', { name: 'all documents' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'interviews', exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByText('kept while something else was looked at')).toBeVisible();
  await page.getByRole('button', { name: 'look at that' }).click();
  await expect(page.getByText('kept while something else was looked at')).toBeHidden();

  const table = await filum.download(async () => {
    await page.getByRole('button', { name: 'Take out' }).click();
    await page.getByRole('menuitem', { name: 'As a table (CSV)' }).click();
  });
  const lines = table.bytes
    .toString('utf8')
    .replace(/^\uFEFF/, '')
    .split('\r\n');
  const at = lines[0]!.split(',').indexOf('Saltpans');
  expect(lines.find((line) => line.startsWith('Getting help in time,'))!.split(',')[at]).toBe(String(count));

  await saltpans.click();
  await behind(page).getByRole('button', { name: 'Ask this in Queries' }).click();
  await expect(page.locator('[data-summary]')).toContainText(`${count} passages`);
  await filum.saved();
  await page.reload();
  await filum.goTo('Patterns');
  await page.getByRole('button', { name: 'Kept patterns' }).click();
  await page.getByRole('menuitem', { name: 'Who gets help where' }).first().click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Who gets help where');
  await expect(saltpans).toHaveText(String(count));
});

test('frequencies, pairs and saturation open to what they count', async ({ page }) => {
  await patterns(page, 'Frequencies');
  await change(page, 'coders together', 'each marked passage');
  const worry = page.getByRole('button', { name: /^Worry, passages: / });
  await worry.click();
  await expect(async () => {
    const shown = (await worry.textContent())!.trim();
    await expect(behind(page).locator('[data-behind]')).toContainText(`${shown} passages`, { timeout: 1_000 });
  }).toPass({ timeout: 20_000 });
  const often = Number((await worry.textContent())!.trim());
  // read in its place, and back to the same line of the evidence
  await article(page).nth(6).getByRole('button', { name: 'Read in place' }).click();
  await expect(page.locator('.cm-content')).toBeVisible();
  await page.getByRole('button', { name: 'Back to the pattern' }).click();
  await expect(behind(page).getByRole('heading', { level: 2 })).toHaveText('Worry');
  await expect(article(page).nth(6)).toBeInViewport();
  await page.getByLabel('At least this many').fill(String(often + 1));
  await page.getByLabel('At least this many').press('Enter');
  await expect(worry).toBeHidden();

  await page.getByRole('link', { name: 'Together', exact: true }).click();
  await change(page, 'coders together', 'each marked passage');
  const pair = cell(page, 'Getting help in time', '“No boat today”');
  const pairs = Number(await pair.textContent());
  await pair.click();
  await expect(behind(page).locator('[data-behind]')).toContainText(`${pairs} pairs`);
  await change(page, 'overlap', 'are in one document');
  const documents = Number(await pair.textContent());
  await expect(behind(page).locator('[data-behind]')).toContainText(`together in ${documents} documents`);
  await change(page, 'are in one document', 'overlap');
  await change(page, 'as a table', 'the pairs that never meet');
  await expect(page.locator('.pairs li').first()).toContainText('never with');

  await page.getByRole('link', { name: 'Saturation', exact: true }).click();
  await expect(page.locator('[data-met]')).toContainText('met with');
  await page.getByLabel('Threshold in percent').fill('0');
  await page.getByLabel('Documents in a run').fill('200');
  await page.getByLabel('Documents in a run').press('Enter');
  await expect(page.locator('[data-met]')).toContainText('Too few coded documents to say');
});

test('a weave shows every passage of a document on its thread, and leads to it and back', async ({ page }) => {
  await patterns(page, 'Weave');
  await page.getByRole('button', { name: /^Find a document/ }).click();
  await page.locator('fl-choose-several input').first().fill('Parents');
  await page.getByRole('dialog').getByRole('checkbox').first().check();
  await page.keyboard.press('Escape');
  const group = page.getByRole('region', { name: 'Focus group – Parents at the school' });
  await expect(group).toBeVisible();
  const thread = group.locator('.ground .line').first();
  const count = Number(await group.locator('.counts .line').first().textContent());
  // passages of one code that touch nothing are a piece each
  if (count > 0) await expect(thread.locator('.piece')).toHaveCount(count);
  await group.locator('.picture').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('.reading')).not.toHaveText(/^\s*Point at/);
  const words = (await page.locator('.reading').textContent())!.trim().slice(0, 20);
  await page.keyboard.press('Enter');
  await expect(page.locator('.slip').first()).toBeVisible();
  await expect(page.locator('.cm-content')).toContainText(words);
  await page.getByRole('button', { name: 'Back to the pattern' }).click();
  await expect(group).toBeVisible();
});

test('words are counted, left out by a click, held against a group, and lead to where they stand', async ({ page }) => {
  await patterns(page, 'Words');
  const row = page.locator('cdk-virtual-scroll-viewport .line', { has: page.getByRole('button', { name: 'boat', exact: true }) });
  const count = Number(await row.locator('.number').first().textContent());
  expect(count).toBeGreaterThan(50);
  await row.getByRole('button', { name: 'boat', exact: true }).click();
  await expect(page.getByLabel('Words to look for')).toHaveValue('boat');
  await expect(page.locator('[data-summary]')).toContainText(`${count} hits`);
  await page.goBack();
  await expect(row).toHaveCount(1);
  // it is counted once more, and a click between two drawings of the list is lost
  await expect(page.locator('.body[aria-busy=true]')).toHaveCount(0);
  await row.getByRole('button', { name: 'Leave out boat' }).click();
  await expect(row).toHaveCount(0);
  await expect(page.getByRole('button', { name: '1 others left out, 0 kept' })).toBeVisible();
  await change(page, 'in all of it', 'typical of one group');
  await change(page, 'choose one', 'focus groups');
  await expect(page.locator('.heads')).toContainText('log ratio');
  await change(page, 'as a list', 'as a cloud');
  await expect(page.locator('fl-word-cloud .word').first()).toBeVisible();
});

test('what is expected and not found is marked, and goes to the memos', async ({ page }) => {
  const filum = await patterns(page);
  const empty = cell(page, 'Counting the fare', 'Interview 03 – Shona Adair');
  await expect(empty).toHaveText('–');
  await empty.click();
  await behind(page).getByRole('button', { name: 'Mark as expected…' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('She crosses with the clinic, and never says what it costs.');
  await page.getByRole('button', { name: 'Mark it' }).click();
  await expect(empty).toHaveText('∅');
  await filum.saved();
  await page.reload();
  await expect(empty).toHaveText('∅');
  await empty.click();
  await behind(page).getByRole('button', { name: 'Open the memo' }).click();
  await expect(page.getByText('She crosses with the clinic, and never says what it costs.').first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await filum.goTo('Patterns');
  await expect(empty).toHaveText('–');
});

test('what is alike lies near, opens to its passages, and goes out as a picture', async ({ page }) => {
  const filum = await patterns(page, 'Similarity');
  const point = page.getByRole('button', { name: /^Getting help in time, part \d$/ });
  await point.click();
  await expect(behind(page).locator('[data-behind]')).toContainText(/places, marked as 101 passages/);
  await filum.accessible();
  await page.keyboard.press('ArrowRight');
  await expect(point).not.toBeFocused();
  const take = async (form: RegExp) =>
    filum.download(async () => {
      await page.getByRole('button', { name: 'Take out' }).click();
      await page.getByRole('menuitem', { name: form }).click();
      await page.getByLabel('Width in pixels').fill('1200');
      await page.getByRole('button', { name: 'Take it out' }).click();
    });
  const svg = (await take(/SVG/)).bytes.toString();
  expect(svg).toContain('width="1200"');
  expect(svg).toContain('The queue as a meeting place');
  expect(svg).not.toMatch(/var\(|class=/);
  const png = (await take(/PNG/)).bytes;
  expect([png.subarray(1, 4).toString(), png.readUInt32BE(16)]).toEqual(['PNG', 1200]);
  await change(page, 'on a plan', 'as a tree');
  await expect(page.locator('.leaf')).toHaveCount(32);
  await filum.accessible();
  await change(page, 'codes', 'participants');
  await change(page, 'as a tree', 'as a list of the nearest');
  await expect(page.getByRole('row', { name: /Moira Tennant/ }).first()).toContainText(/Kirsty Vane/);
});

test('attributes are counted alone and against each other, and each number opens to whom it counts', async ({ page }) => {
  const filum = await patterns(page, 'Attributes');
  await change(page, 'age', 'home of participants');
  const saltpans = page.getByRole('button', { name: /^Saltpans: \d+$/ });
  const count = Number(/\d+$/.exec((await saltpans.getAttribute('aria-label'))!)![0]);
  await saltpans.click();
  await expect(behind(page).getByRole('listitem')).toHaveCount(count);
  await filum.accessible();
  await change(page, 'nothing else', 'gender');
  const women = cell(page, 'Saltpans', 'F');
  const some = Number(await women.textContent());
  await women.click();
  await expect(behind(page).getByRole('listitem')).toHaveCount(some);
  await change(page, 'as they are', 'per row');
  await expect(women).toHaveText(((some / count) * 100).toFixed(1));
});

test('two kept patterns stand beside each other, each with its numbers and its evidence', async ({ page }) => {
  const filum = await patterns(page);
  await page.getByRole('button', { name: 'Side by side' }).click();
  await page.locator('.sentence').getByRole('button', { name: 'Safety, health and belonging' }).click();
  await page.getByRole('menuitem', { name: 'What each question brought' }).click();
  const half = (at: number) => page.locator('fl-kept-half').nth(at);
  await expect(half(0).getByRole('heading', { level: 2 })).toHaveText('What each question brought');
  await expect(half(1).getByRole('heading', { level: 2 })).toHaveText('Themes by home');
  const cell = half(0).locator('[role=gridcell]:not(.none, .apart)').first();
  const count = Number(await cell.textContent());
  await cell.click();
  await expect(half(0).getByRole('article')).toHaveCount(count);
  await expect(half(1).locator('[role=gridcell]').first()).toHaveText(/\d/);
  await filum.accessible();
});
