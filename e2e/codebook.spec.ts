import { Filum } from './support/filum';
import { expect, test } from './support/one-sitting';

let filum: Filum;
const row = (name: string) => filum.page.getByRole('treeitem', { name, exact: true });
/** Brings the row of a code into view, which far down is not drawn yet, and chooses it. */
async function choose(name: string): Promise<void> {
  await filum.page.getByLabel('Find a code').fill(name);
  await row(name).click();
  await filum.page.getByLabel('Find a code').fill('');
  // a row further down is drawn once the list has grown again and been scrolled there
  await expect(async () => {
    if (!(await row(name).isVisible())) await filum.page.getByRole('tree').evaluate((tree) => tree.scrollTo(0, 450));
    await expect(row(name)).toBeVisible({ timeout: 1_000 });
    // while the list still moves, another can be hit
    await row(name).click({ timeout: 2_000 });
    await expect(row(name)).toHaveAttribute('aria-selected', 'true', { timeout: 1_000 });
  }).toPass();
}
/** Clicks a code; its page is drawn together with its row, and until then the page is that of another. */
async function pick(name: string): Promise<void> {
  await row(name).click();
  await expect(row(name)).toHaveAttribute('aria-selected', 'true');
}
const part = (name: string) => filum.page.getByRole('navigation', { name: 'Parts of the codebook' }).getByRole('link', { name });
const undo = () => filum.page.getByRole('button', { name: 'Undo' }).click();

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

test('refuses a name that is taken, and lets it stand with the reason beside it', async ({ page }) => {
  await choose('Grief');
  await page.getByLabel('Name', { exact: true }).fill('Worry');
  await page.getByLabel('Name', { exact: true }).blur();
  await expect(page.getByRole('status').filter({ hasText: 'already a code “Worry”' })).toBeVisible();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Worry');
  await expect(row('Grief')).toBeVisible();
  await page.getByRole('button', { name: 'Drop what was typed' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Grief');
});

test('nests and orders codes by keyboard', async ({ page }) => {
  await choose('Grief');
  await page.keyboard.press('Alt+ArrowRight');
  await expect(row('Grief')).toHaveAttribute('aria-level', '3');
  await expect(row('Grief')).toBeFocused();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(row('Grief')).toHaveAttribute('aria-level', '2');
  const order = () => page.getByRole('treeitem').evaluateAll((rows) => rows.map((one) => one.getAttribute('aria-label')));
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(async () => (await order()).indexOf('Grief') - (await order()).indexOf('Pride')).toBe(-1);
  await page.keyboard.press('ArrowDown');
  await expect(row('Pride')).toBeFocused();
});

test('nests codes by dragging', async ({ page }) => {
  await row('Counting the fare').dragTo(row('Reaching help'), { targetPosition: { x: 200, y: 18 } });
  const order = () => page.getByRole('treeitem').evaluateAll((rows) => rows.map((one) => one.getAttribute('aria-label')));
  await expect.poll(async () => (await order()).indexOf('Counting the fare') - (await order()).indexOf('Making a living')).toBe(-1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'moved the code Counting the fare under Reaching help' })).toBeVisible();
});

test('names what deleting takes away, deletes, and brings all of it back', async ({ page }) => {
  const count = () => row('Feelings').locator('.number.passages').textContent();
  await choose('Feelings');
  const before = await count();
  await page.keyboard.press('Delete');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('With it go the 5 codes under it.');
  await expect(dialog).toContainText(/This takes away \d+ codings in \d+ documents; \d+ passages carrying nothing else go too/);
  await expect(dialog).toContainText('linked to');
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
  const number = async () => Number(await row('Getting help in time').locator('.number.passages').textContent());
  const all = await number();
  await page.getByRole('button', { name: 'all coders' }).click();
  await page.getByRole('menuitem', { name: 'Jon' }).click();
  await expect.poll(number).toBeLessThan(all);
  await page.getByRole('button', { name: 'look at all' }).click();
  await expect.poll(number).toBe(all);
});

test('writes a memo about a code', async ({ page }) => {
  await choose('Pride');
  await page.locator('fl-code-page').getByRole('button', { name: 'Memo' }).click();
  await page.getByLabel('Title', { exact: true }).fill('Pride and the boat');
  await page.getByLabel('Memo', { exact: true }).click();
  await page.keyboard.type('Who is proud of **what**?');
  await page.getByRole('button', { name: 'Keep' }).click();
  await filum.goTo('Memos');
  await page.getByRole('button', { name: /^Pride and the boat/ }).click();
  await expect(page.locator('article strong')).toHaveText('what');
  await page.getByRole('button', { name: 'Pride', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Codebook' })).toBeVisible();
});

test('joins codes with what they say side by side, remembers their names, and takes it back', async ({ page }) => {
  const count = async (name: string) => Number(await row(name).locator('.number.passages').textContent());
  await choose('Grief');
  await row('Worry').click({ modifiers: ['ControlOrMeta'] });
  const [grief, worry] = [await count('Grief'), await count('Worry')];
  await page.getByRole('toolbar', { name: 'Chosen codes' }).getByRole('button', { name: 'Join…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('radio', { name: /Worry/ }).check();
  await expect(dialog.getByLabel('Use when', { exact: true })).toHaveValue(/\(Grief\) Loss is felt/);
  await dialog.getByLabel('Definition').fill('Sorrow and fear.');
  await dialog.getByRole('button', { name: 'Join the codes' }).click();
  await expect(row('Grief')).toHaveCount(0);
  await expect(row('Worry')).toContainText('Sorrow and fear.');
  // some passages carried both
  const together = await count('Worry');
  expect(together).toBeGreaterThanOrEqual(Math.max(grief, worry));
  expect(together).toBeLessThanOrEqual(grief + worry);
  await page.getByRole('tab', { name: 'History' }).click();
  await expect(page.getByRole('tabpanel')).toContainText('Grief joined into it');
  await undo();
  await expect(row('Grief')).toBeVisible();
  expect(await count('Worry')).toBe(worry);
});

test('splits a code by keys, passage by passage', async ({ page }) => {
  await choose('Pride');
  await page.getByRole('tab', { name: 'Passages' }).click();
  const passages = Number(/(\d+) passages/.exec((await page.locator('fl-code-passages .bar').textContent())!)![1]);
  await page.getByRole('button', { name: /Split/ }).click();
  const desk = page.getByRole('group', { name: 'Split Pride' });
  await expect(desk).toBeFocused();
  await page.keyboard.press('n');
  await page.getByRole('combobox', { name: 'Find a code' }).fill('Pride in the boat');
  await page.keyboard.press('Enter');
  await expect(desk).toContainText(`2 of ${passages}, ${passages - 1} still carry it`);
  await page.keyboard.press('1');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('0');
  await expect(desk).toContainText(`${passages - 3} still carry it`);
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByLabel('Find a code').fill('Pride in the boat');
  await expect(row('Pride in the boat').locator('.number.passages')).toHaveText('2');
});

test('moves chosen passages from the evidence, and takes one as an example', async ({ page }) => {
  await choose('Relief');
  await page.getByRole('tab', { name: 'Passages' }).click();
  await page.getByLabel('Choose passage 1', { exact: true }).check();
  await page.getByRole('button', { name: 'As example' }).click();
  await page.getByRole('tab', { name: 'Meaning' }).click();
  await expect(page.getByRole('region', { name: 'Example passages' })).toContainText('Read in place');
  await page.getByRole('tab', { name: 'Passages' }).click();
  await page.getByLabel('Choose passage 2', { exact: true }).check();
  await page.getByRole('button', { name: 'Move to…' }).click();
  await page.getByRole('combobox', { name: 'Find a code' }).fill('worry');
  await page.keyboard.press('Enter');
  await expect(page.locator('fl-code-passages .bar')).toContainText('37 passages');
  await undo();
  await expect(page.locator('fl-code-passages .bar')).toContainText('38 passages');
});

test('works on several codes: moves, renames and retires them, and a retired code is not offered', async ({ page }) => {
  await row('Counting the fare').click();
  await row('The queue as a meeting place').click({ modifiers: ['Shift'] });
  const bar = page.getByRole('toolbar', { name: 'Chosen codes' });
  await expect(bar).toContainText('4 codes chosen');
  await bar.getByRole('button', { name: 'Names…' }).click();
  await page.getByLabel('What to do').selectOption('put in front');
  await page.getByLabel('Words', { exact: true }).fill('EC ');
  await page.getByRole('button', { name: 'Rename 4' }).click();
  await expect(row('EC Counting the fare')).toBeVisible();
  await bar.getByRole('button', { name: 'Move under…' }).click();
  await page.getByRole('combobox', { name: 'Find a code' }).fill('reaching');
  await page.keyboard.press('Enter');
  await expect(row('EC Counting the fare')).toHaveAttribute('aria-level', '2');
  const names = () => page.getByRole('treeitem').evaluateAll((rows) => rows.map((one) => one.getAttribute('aria-label')));
  await expect
    .poll(async () => (await names()).filter((name) => /^(Reaching help|EC Counting the fare)$/.test(name!)))
    .toEqual(['Reaching help', 'EC Counting the fare']);
  await pick('EC Counting the fare');
  await page.locator('fl-code-page').getByRole('button', { name: 'Retire' }).click();
  await expect(row('EC Counting the fare')).toContainText('retired');
  await filum.read('Interview 03 – Shona Adair');
  await page.locator('.cm-line').nth(3).click();
  await page.keyboard.press('c');
  await page.keyboard.type('counting the fare');
  await expect(filum.picker.getByRole('option', { name: 'EC Counting the fare' })).toHaveCount(0);
});

test('filters by conditions and their opposite, and keeps them as a live set', async ({ page }) => {
  await page.getByRole('button', { name: 'only those…' }).click();
  await page.getByRole('menuitem', { name: 'at the top of the codebook' }).click();
  await expect(page.getByRole('treeitem')).toHaveCount(8);
  await page.getByRole('button', { name: 'at the top of the codebook', exact: true }).click();
  await expect(page.locator('.headings')).toContainText('32 of 40 codes');
  await page.getByRole('button', { name: 'Without: under another code' }).click();
  await part('Sets').click();
  await page.getByRole('button', { name: 'Live set' }).click();
  await page.getByRole('button', { name: 'add a condition' }).click();
  await page.getByRole('menuitem', { name: 'used in fewer than … passages' }).click();
  await page.getByLabel('Number').fill('23');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await page.getByRole('button', { name: 'and', exact: true }).click();
  await page.getByRole('menuitem', { name: 'at the top of the codebook' }).click();
  await page.getByRole('button', { name: 'at the top of the codebook', exact: true }).click();
  await page.getByRole('button', { name: 'Make the set' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Rare');
  await page.getByRole('dialog').getByRole('button', { name: 'Make the set' }).click();
  await expect(page.getByRole('region', { name: 'Rare' })).toContainText('Custom going over the bridge');
  await filum.accessible();
  await page.getByRole('button', { name: 'Show in the tree' }).click();
  await expect(row('Custom going over the bridge')).toBeVisible();
  await expect(row('Grief')).toHaveCount(0);
});

test('sorts codes on a table by mouse and keyboard, loses none, and makes categories when told to', async ({ page }) => {
  await part('Sorting').click();
  await page.getByRole('button', { name: 'Sort all codes' }).click();
  await page.getByRole('button', { name: 'Lay them out' }).click();
  const left = page.locator('[data-unplaced]');
  await expect(left).toContainText('32 of 32 codes not yet placed');
  await page.getByRole('button', { name: 'New group' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Loss');
  await page.getByRole('button', { name: 'Make the group' }).click();
  const slip = (name: string) => page.locator('.slip', { hasText: name });
  const loss = page.getByRole('region', { name: 'Group Loss' });
  await slip('Grief').dragTo(loss);
  await slip('Worry').focus();
  await page.keyboard.press('1');
  await expect(loss).toContainText('Worry');
  await slip('Pride').dragTo(page.getByRole('group', { name: 'Sorting table' }), { targetPosition: { x: 400, y: 300 } });
  await expect(left).toContainText('29 of 32');
  await page.keyboard.press('Escape');
  await filum.accessible();
  await page.getByRole('button', { name: 'Make categories' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Make categories' }).click();
  await page.getByLabel('Find a code').fill('Loss');
  await expect(row('Grief')).toHaveAttribute('aria-level', '2');
  await expect(row('Worry')).toBeVisible();
  await undo();
  await expect(row('Loss')).toHaveCount(0);
});

test('checks the codebook, and remembers what was left as it is', async ({ page }) => {
  await page.getByRole('button', { name: 'New code', exact: true }).click();
  await page.getByLabel('Name', { exact: true }).last().fill('Worries');
  await page.getByRole('button', { name: 'Make the code' }).click();
  await expect(row('Worries')).toBeFocused();
  await part('Checks').click();
  await expect(page.getByRole('region', { name: 'Never used' })).toContainText('Worries');
  await page.getByRole('region', { name: 'Never used' }).getByRole('button', { name: 'Leave as it is' }).click();
  await expect(page.getByText('1 left as they are.')).toBeVisible();
  await page.getByLabel('Share of passages in percent').fill('5');
  await page.getByLabel('Share of passages in percent').blur();
  await expect(page.getByRole('region', { name: 'Very broad' })).toContainText('Split it');
  await filum.accessible();
});

test('holds the codebook of an earlier day beside the one of now', async ({ page }) => {
  await choose('Relief');
  await page.getByLabel('Definition').fill('A load off.');
  await page.getByLabel('Name', { exact: true }).fill('Relieved');
  await page.getByLabel('Name', { exact: true }).blur();
  await filum.saved();
  await part('Then and now').click();
  const changes = page.getByRole('region', { name: 'What changed' });
  await expect(changes).toContainText('from “Relief”');
  await expect(changes.locator('ins')).toHaveText('A load off.');
  await filum.accessible();
});

test('takes the codebook out in the exchange standard and in again elsewhere, shown before', async ({ page }) => {
  await part('In and out').click();
  await filum.accessible();
  const out = await filum.download(() => page.getByRole('button', { name: 'Exchange standard (.qdc)' }).click());
  expect(out.bytes.toString('utf8')).toContain('<CodeBook xmlns="urn:QDA-XML:codebook:1.0"');
  const word = await filum.download(() => page.getByRole('button', { name: 'Word (.docx)' }).click());
  expect(word.bytes.subarray(0, 2).toString()).toBe('PK');
  await page
    .getByLabel('Codebook file')
    .setInputFiles(out.path.endsWith('.qdc') ? out.path : { name: 'codes.qdc', mimeType: 'application/xml', buffer: out.bytes });
  await expect(page.getByText('0 new, 0 changed, 0 in conflict, 40 the same')).toBeVisible();
  await page.getByRole('button', { name: 'Leave it' }).click();
  await page.getByLabel('Codebook file').setInputFiles({
    name: 'broken.qdc',
    mimeType: 'application/xml',
    buffer: Buffer.from('<CodeBook><Codes><Code name="x"></Codes></CodeBook>'),
  });
  await expect(page.getByRole('alert')).toContainText('opened and not closed');
  await page
    .getByLabel('Codebook file')
    .setInputFiles({ name: 'codes.csv', mimeType: 'text/csv', buffer: Buffer.from('code,parent\nA,B\nB,A\n') });
  await expect(page.getByRole('alert')).toContainText('lies under itself');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await filum.newStudy('Elsewhere');
  await filum.goTo('Codebook');
  await part('In and out').click();
  await page.getByLabel('Codebook file').setInputFiles({ name: 'codes.qdc', mimeType: 'application/xml', buffer: out.bytes });
  await page.getByRole('button', { name: 'Take over 40 codes' }).click();
  await page.getByLabel('Find a code').fill('Grief');
  await expect(row('Grief')).toHaveAttribute('aria-level', '2');
  await undo();
  await expect(page.getByText('No codes yet')).toBeVisible();
});

test('a frozen codebook collects proposals while coding, and takes them on', async ({ page }) => {
  await page.getByRole('button', { name: 'Freeze' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Freeze' }).click();
  await expect(page.getByText(/frozen since/)).toBeVisible();
  await pick('Reaching help');
  await page.getByLabel('Name', { exact: true }).fill('Help');
  await page.getByLabel('Name', { exact: true }).blur();
  await expect(page.getByRole('status').filter({ hasText: 'The codebook is frozen' })).toBeVisible();
  await filum.read('Interview 03 – Shona Adair');
  await page.locator('.cm-line').nth(3).click();
  await page.keyboard.press('c');
  await page.keyboard.type('Waiting rooms');
  await expect(filum.picker.getByRole('option', { name: /Propose Waiting rooms/ }).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await filum.goTo('Codebook');
  await page.getByRole('button', { name: '1 proposed' }).click();
  await page.getByRole('menuitem', { name: /Waiting rooms/ }).click();
  await page.getByRole('button', { name: 'Take it on' }).click();
  await page.getByLabel('Find a code').fill('Waiting rooms');
  await expect(row('Waiting rooms').locator('.number.passages')).toHaveText('1');
});

test('relates codes by name and direction, and shows where a code is and what it meets', async ({ page }) => {
  await pick('Counting the fare');
  await page.getByLabel('Kind of relation').fill('leads to');
  await page.getByRole('button', { name: 'which code…' }).click();
  await page.getByRole('combobox', { name: 'Find a code' }).fill('worry');
  await page.keyboard.press('Enter');
  const relations = page.getByRole('region', { name: 'Relations' });
  await expect(relations).toContainText('leads to Worry');
  await relations.getByRole('button', { name: 'Worry', exact: true }).click();
  await expect(relations).toContainText('Counting the fare leads to it');
  await page.getByRole('tab', { name: 'Where it is' }).click();
  await expect(page.getByRole('tabpanel')).toContainText(/In \d+ documents/);
  await expect(page.getByRole('tabpanel')).toContainText('Codes it meets');
  await filum.accessible();
});
