import { Filum } from './support/filum';
import { expect, test } from './support/one-sitting';

let filum: Filum;

test.beforeEach(async ({ page }) => {
  filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Queries');
});

const chooser = () => filum.page.getByRole('dialog', { name: 'Choose codes' });
const press = (name: string) => filum.page.getByRole('button', { name, exact: true }).last().click();
const entry = (name: string) => filum.page.getByRole('menuitem', { name, exact: true }).click();

async function tick(...codes: string[]): Promise<void> {
  for (const code of codes) await chooser().getByLabel(code).check();
  await filum.page.keyboard.press('Escape');
}

/** Begins a question that asks for one of some codes. */
async function choose(...codes: string[]): Promise<void> {
  await press('Choose codes');
  await tick(...codes);
}

/** Turns a part of the sentence into something else. */
async function turn(from: string, to: string): Promise<void> {
  await press(from);
  await entry(to);
}

async function add(what: string): Promise<void> {
  await press('and');
  await entry(what);
}

/** Waits until the answer is to the question as it stands: the last of its parts leaves what is found. */
const answered = () =>
  expect(async () => {
    const counts = await filum.page.locator('fl-condition-list .count').allTextContents();
    expect(Number(counts.at(-1)!.replaceAll(',', ''))).toBe(await count());
  }).toPass({ timeout: 20_000 });

const summary = () => filum.page.locator('[data-summary]');
const count = async () => Number((await summary().textContent())!.replaceAll(',', '').match(/\d+/)![0]);

test('any finds more than all, and none takes away; each part says what it leaves', async ({ page }) => {
  await choose('Worry', 'Getting help in time');
  // more than either code alone: the answer to both is there
  await expect.poll(count).toBeGreaterThan(100);
  const any = await count();
  await add('carry codes');
  await tick('Relief');
  await turn('any of', 'none of');
  // of the first part, alone and left, and of the second, which is of all passages without the code
  const counts = page.locator('fl-condition-list .count');
  await expect(counts.nth(2)).toHaveText(/^1,\d{3}$/);
  await expect.poll(count).toBeLessThan(any);
  const left = await count();
  await expect(counts).toHaveText([String(any), String(any), /^[\d,]+$/, String(left)]);
  await filum.accessible();
  await page.getByRole('button', { name: 'Take away part 2' }).click();
  await turn('in one list', 'side by side by home');
  const groups = page.locator('.columns h2');
  await expect(groups).toHaveCount(4);
  // whose words they are is not known of every passage
  const sum = (await groups.allTextContents()).reduce((all, words) => all + Number(/(\d+) passage/.exec(words)![1]), 0);
  expect(sum).toBeGreaterThan(100);
  expect(sum).toBeLessThanOrEqual(any);
  await turn('side by side by home', 'in one list');
  await turn('any of', 'all of');
  await expect.poll(count).toBeLessThan(10);
});

test('goes to the place in the text and back to the same answer', async ({ page }) => {
  await choose('Worry');
  await expect(page.locator('article')).not.toHaveCount(0);
  const words = (await page.locator('article mark').nth(10).textContent())!;
  await page.getByRole('button', { name: 'Read in place' }).nth(10).click();
  await expect(page.locator('blockquote')).toContainText(words.slice(0, 60));
  await expect(page.locator('.chosen').first()).toBeVisible();
  await page.getByRole('button', { name: 'Back to the query' }).click();
  await expect(page.locator('article mark').nth(10)).toHaveText(words);
  await expect(page.locator('article').nth(10)).toBeInViewport();
});

test('says what emptied an answer, and one step brings something back', async ({ page }) => {
  await choose('Relief', 'Seals');
  await turn('any of', 'all of');
  await expect(page.getByText('No passage answers this')).toBeVisible();
  const step = page.getByRole('button', { name: /without asking for “Relief”|without asking for “.*Seals/ }).first();
  await expect(step).toBeVisible();
  await step.click();
  await expect(page.locator('article')).not.toHaveCount(0);
});

test('by keys alone: what lies near what women say, who speaks, and the scope, which is one click from off', async ({ page }) => {
  const field = chooser().locator('input').first();
  await page.getByRole('button', { name: 'Choose codes' }).press('Enter');
  await expect(field).toBeFocused();
  await page.keyboard.type('worry');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.locator('.sentence .code')).toContainText('Worry');
  await answered();
  const worry = await count();
  await page.getByRole('button', { name: 'and', exact: true }).press('Enter');
  await expect(page.getByRole('menuitem').first()).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(field).toBeFocused();
  await page.keyboard.type('getting help');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect.poll(count).toBeLessThan(worry);
  const near = await count();
  await page.getByLabel('How many').fill('30');
  await page.getByLabel('How many').press('Enter');
  await expect.poll(count).toBeGreaterThan(near);
  await turn('come within', 'come after');
  await expect(
    page.getByRole('button', { name: 'at most so far' }).or(page.getByRole('button', { name: 'at any distance' })),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Ask anew' }).click();
  await choose('Worry');
  await add('are of a participant with an attribute');
  await turn('choose an attribute', 'gender');
  await expect.poll(count).toBeLessThanOrEqual(worry);
  await turn('is known', 'is');
  await page.getByRole('button', { name: /^Find a value/ }).click();
  await page.getByRole('dialog', { name: 'Find a value' }).getByRole('checkbox').first().check();
  await page.keyboard.press('Escape');
  await expect.poll(count).toBeLessThan(worry);
  const narrow = await count();
  await page.getByRole('button', { name: 'all documents', exact: true }).click();
  await page.getByRole('menuitemcheckbox', { name: 'field notes' }).click();
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-scope-left]')).toContainText('4 of 82 documents');
  await expect.poll(count).toBeLessThan(narrow);
  await page.getByRole('button', { name: 'look at all' }).click();
  await expect.poll(count).toBe(narrow);
});

test('is kept, taken to JSON and back, and a code is made of its answer in one step that undo takes back', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await choose('Pride');
  const pride = await count();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  await press('More');
  await entry('Copy as JSON');
  const json = await page.evaluate(() => navigator.clipboard.readText());
  expect(JSON.parse(json)).toMatchObject({ format: 'filum-query', version: 1, name: 'Pride' });
  await page.getByRole('button', { name: 'Ask anew' }).click();
  await press('More');
  await entry('Paste a query');
  await page.getByLabel('JSON').fill('{}');
  await page.getByRole('button', { name: 'Ask it' }).click();
  await expect(page.getByText('lacks "format"')).toBeVisible();
  await page.getByLabel('JSON').fill(json);
  await page.getByRole('button', { name: 'Ask it' }).click();
  await expect.poll(count).toBe(pride);
  await page.getByRole('button', { name: 'All seen' }).click();
  await expect(page.getByText('nothing new since')).toBeVisible();
  await press('More');
  await entry('Make a code of the answer');
  await page.getByLabel('Name of the code').fill('Proud once more');
  await page.getByRole('button', { name: `Code ${pride} passages` }).click();
  await expect(page.locator('article .code', { hasText: 'Proud once more' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('article .code', { hasText: 'Proud once more' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Ask anew' }).click();
  await press('Kept queries');
  await entry('Pride');
  await expect.poll(count).toBe(pride);
  // new material
  await filum.paste('A letter', 'We were proud of that boat, all of us.');
  await filum.read('A letter');
  await filum.code('proud of that boat', 'Pride');
  await filum.goTo('Queries');
  await expect(page.getByText('1 new, 0 gone since')).toBeVisible();
  await page.getByRole('button', { name: 'Show the new' }).click();
  await expect(page.locator('article mark')).toHaveText(['proud of that boat']);
});

test('words are found, swept with a code, gone through one by one, and all of it taken back', async ({ page }) => {
  await page.getByRole('link', { name: 'Words' }).click();
  await page.getByLabel('Words to look for').fill('"hush week');
  await expect(page.getByText('A quotation mark is not closed.')).toBeVisible();
  await page.getByLabel('Words to look for').fill('"hush week" not queue');
  await expect(summary()).toHaveText(/^1\d hits in \d+ documents$/);
  await expect(page.locator('.hits [role=listitem]').first().locator('mark')).toHaveText('hush week');
  await filum.accessible();
  await turn('coded or not', 'not coded yet');
  await expect.poll(count).toBeLessThan(10);
  const found = await count();
  await page.getByRole('button', { name: 'Choose all' }).click();
  await turn('what was found', 'the sentence');
  await page.getByRole('button', { name: 'Sweep with a code…' }).click();
  await page.getByLabel('Find a code').fill('Last boats');
  await page.keyboard.press('Enter');
  const swept = page.getByRole('link', { name: /^Swept/ });
  await expect(swept).toHaveText(new RegExp(`Swept\\s*${found}`));
  await swept.click();
  await expect(summary()).toHaveText(new RegExp(`^${found} passages left to be looked at`));
  await expect(page.locator('article mark')).toContainText('hush week');
  await filum.accessible();
  await page.keyboard.press('k');
  await expect(summary()).toHaveText(new RegExp(`^${found - 1} passages? left`));
  await page.keyboard.press('d');
  await expect(summary()).toHaveText(new RegExp(`^${found - 2} passages? left`));
  const words = (await page.locator('article mark').textContent())!;
  await page.keyboard.press('l');
  await expect(page.locator('article mark')).not.toHaveText(words);
  // broken off, and taken up after a reload where it was left
  await filum.saved();
  await page.reload();
  await expect(summary()).toHaveText(new RegExp(`^${found - 2} passages? left`));
  for (let steps = 4; steps > 0; steps--) await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Nothing waits to be looked at')).toBeVisible();
  await page.getByRole('link', { name: 'Words' }).click();
  await page.getByLabel('Words to look for').fill('queue*');
  await page.locator('.hits [role=listitem]').first().getByRole('button').click();
  await expect(page.getByRole('button', { name: 'Back to the search' })).toBeVisible();
  await expect.poll(() => page.evaluate(() => getSelection()!.toString().toLowerCase())).toMatch(/^queue/);
});

test('looks at two conditions at once in every place, keeps them, and goes back to all with one click', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  const left = page.locator('[data-scope-left]');
  await page.getByRole('button', { name: 'narrow', exact: true }).click();
  const panel = page.getByRole('dialog', { name: 'What is looked at' });
  await panel.getByRole('button', { name: 'narrow to' }).click();
  await page.getByRole('menuitem', { name: 'are of a participant with an attribute' }).click();
  await panel.getByRole('button', { name: 'choose an attribute' }).click();
  await page.getByRole('menuitem', { name: 'home' }).click();
  await panel.getByRole('button', { name: 'is known' }).click();
  await page.getByRole('menuitem', { name: 'is', exact: true }).click();
  await panel.getByRole('button', { name: /^Find a value/ }).click();
  await page.getByRole('dialog', { name: 'Find a value' }).getByRole('checkbox', { name: 'Saltpans' }).check();
  await page.keyboard.press('Escape');
  await expect(left).toContainText('38 of 82 documents');
  await panel.getByRole('button', { name: 'and', exact: true }).click();
  await page.getByRole('menuitem', { name: 'are spoken by' }).click();
  await expect(panel.locator('.count')).toHaveCount(6);
  await filum.accessible();
  await panel.getByRole('button', { name: 'keep this scope…' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Saltpans speaking');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.keyboard.press('Escape');
  const narrow = Number((await left.textContent())!.match(/([\d,]+) of [\d,]+ passages/)![1]!.replace(',', ''));
  // the same number wherever it is asked
  await filum.goTo('Overview');
  await expect(page.locator('dl.figures')).toContainText(narrow.toLocaleString('en'));
  await filum.goTo('Queries');
  await page.getByRole('button', { name: 'choose what they do' }).click();
  await page.getByRole('menuitem', { name: 'have a comment' }).click();
  await expect(page.getByText(`leaves, of ${narrow.toLocaleString('en')}`)).toBeVisible();
  await page.getByRole('link', { name: 'Words', exact: true }).click();
  await page.getByLabel('Words to look for').fill('boat');
  // the number once all are found
  const hits = async () =>
    Number(/^([\d,]+) hits? in [\d,]+ documents?$/.exec((await page.locator('[data-summary]').textContent())!)?.[1]!.replace(',', ''));
  await expect.poll(hits).toBeGreaterThan(0);
  const few = await hits();
  await page.getByRole('button', { name: 'look at all' }).click();
  await expect.poll(hits).toBeGreaterThan(few);
  await page.getByRole('button', { name: 'narrow', exact: true }).click();
  await panel.getByRole('button', { name: 'Saltpans speaking', exact: true }).click();
  await expect.poll(hits).toBe(few);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Without: home/ }).click();
  await expect(left).toContainText('82 of 82 documents');
});

test('ends a regular expression that runs away and says so, and looks on', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Queries');
  await page.getByRole('link', { name: 'Words', exact: true }).click();
  await page.getByRole('button', { name: 'whole words' }).click();
  await page.getByRole('menuitem', { name: 'a regular expression' }).click();
  await page.getByLabel('Words to look for').fill('(\\w+\\s*)+\\d{9}!');
  await expect(page.getByRole('alert')).toContainText('takes longer than anybody waits', { timeout: 15_000 });
  await page.getByLabel('Words to look for').fill('\\bferr(y|ies)\\b');
  await expect(page.locator('[data-summary]')).toContainText('hits in');
});

test('holds a proposition against the participants, and notes what does not fit', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Queries');
  await page.getByRole('link', { name: 'Propositions' }).click();
  await page.getByRole('button', { name: 'New proposition…' }).first().click();
  await page.getByRole('dialog').getByLabel('Name').fill('Who worries is relieved');
  await page.getByRole('button', { name: 'Make it' }).click();
  for (const code of ['Worry', 'Relief']) {
    await page.getByRole('button', { name: 'choose what they have' }).first().click();
    await page.getByRole('dialog', { name: 'Choose codes' }).getByLabel(code, { exact: false }).first().check();
    await page.keyboard.press('Escape');
  }
  await expect(page.locator('[data-summary]')).toContainText('against it, of 73 participants');
  const against = page.locator('[data-verdict=against]');
  await expect(against.getByRole('rowheader').nth(1)).toBeVisible();
  await against.getByRole('textbox').first().fill('Says so without the word.');
  await filum.accessible();
  await against.getByRole('button').first().click();
  await expect(page.locator('fl-evidence')).toContainText('Worry');
  await filum.saved();
  await page.reload();
  await expect(page.locator('[data-verdict=against]').getByRole('textbox').first()).toHaveValue('Says so without the word.');
});

test('what a kept query finds fills a live set, which the scope can look at, and which stays when the query goes', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Queries');
  await page.getByRole('button', { name: 'Kept queries' }).click();
  await page.getByRole('menuitem', { name: 'Grief after forty years here', exact: true }).click();
  await expect(page.locator('[data-summary]')).toHaveText('25 passages in 11 documents');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Make a live set of its documents' }).click();
  await page.getByLabel('Name of the set').fill('Of grief');
  await page.getByRole('button', { name: 'Make the set' }).click();
  await page.getByRole('button', { name: 'narrow', exact: true }).click();
  const panel = page.getByRole('dialog', { name: 'What is looked at' });
  await panel.getByRole('button', { name: 'narrow to' }).click();
  await page.getByRole('menuitem', { name: 'lie in documents, folders or sets' }).click();
  await panel.getByRole('button', { name: /^Find a set/ }).click();
  await page.getByRole('dialog', { name: 'Find a set' }).getByRole('checkbox', { name: 'Of grief' }).check();
  await page.keyboard.press('Escape');
  const left = page.locator('[data-scope-left]');
  await expect(left).toContainText('11 of 82 documents');
  await page.keyboard.press('Escape');
  // the query asks for less now, and the set holds less
  await page.getByRole('textbox', { name: 'years on the island is over' }).fill('60');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByLabel('Name', { exact: true }).fill('Grief after forty years here');
  await page.getByRole('button', { name: 'Replace the one of this name' }).click();
  await expect(left).toContainText(/^(?!11 )\d+ of 82 documents/);
  const few = (await left.textContent())!.match(/^\d+/)![0];
  await page.getByRole('button', { name: 'Kept queries' }).click();
  await page.getByRole('menuitem', { name: 'Delete the query Grief after forty years here' }).click();
  await expect(page.getByRole('dialog')).toContainText('filled by hand from then on, with what is in it now');
  await page.getByRole('dialog').getByRole('button', { name: 'Delete' }).click();
  await filum.goTo('Material');
  await page.getByRole('link', { name: 'Sets' }).click();
  // by hand: it does not say that it is live
  await expect(page.getByRole('button', { name: `Of grief ${few} documents`, exact: true })).toBeVisible();
});
