import { expect, test, type Page } from '@playwright/test';
import { Filum } from './support/filum';
import { writeEverywhere } from './support/fields';

/**
 * Every place, dialog and state in which something can be written. The fields are found by the test itself: a new field
 * in a state that is listed here needs nothing more.
 */
let filum: Filum;
let page: Page;
test.beforeEach(async ({ page: own }) => {
  page = own;
  filum = new Filum(own);
  test.setTimeout(300_000);
});

const DIALOG = 'mat-dialog-container';
const press = (name: string | RegExp) =>
  page
    .getByRole('button', { name, exact: typeof name === 'string' })
    .first()
    .click();
const entry = (name: string | RegExp) => page.getByRole('menuitem', { name }).first().click();
/** An entry of a menu within the menu. One that opens under a resting pointer may lie otherwise when it has: then it is pointed at again. */
const entryWithin = (menu: RegExp, name: RegExp) =>
  expect(async () => {
    await page.getByRole('menuitem', { name: menu }).first().click({ timeout: 5_000 });
    await page.getByRole('menuitem', { name }).first().click({ timeout: 5_000 });
  }).toPass();
const part = (places: string, name: string | RegExp) => page.getByRole('navigation', { name: places }).getByRole('link', { name }).click();

/** Writes in the fields of the open dialog, and leaves it. */
async function inDialog(): Promise<string[]> {
  await expect(page.locator(DIALOG)).toBeVisible();
  // a dialog takes the focus when it has opened
  await page.waitForFunction((dialog) => document.activeElement?.closest(dialog), DIALOG);
  const names = await writeEverywhere(page, DIALOG);
  await page.keyboard.press('Escape');
  await expect(page.locator(DIALOG)).toHaveCount(0);
  return names;
}

test('at the start and in Overview', async () => {
  await page.goto('/');
  await press(/New study/);
  expect(await writeEverywhere(page)).toEqual(['Title of the study', 'Your name, for codings and the log']);
  await filum.openDemo();
  await press('Rename');
  await inDialog();
  await page.locator('fl-overview .part').first().click();
  await inDialog();
});

test('in Material: documents, the register, attributes, sets, questions, finding and bringing in', async () => {
  await filum.openDemo();
  await filum.goTo('Material');
  await writeEverywhere(page);
  await press('New folder');
  await inDialog();
  await page.getByLabel(/^Select Interview 03/).check();
  for (const act of ['Rename', 'Describe', 'Date']) {
    await page.locator('fl-document-table footer').getByRole('button', { name: act, exact: true }).click();
    await inDialog();
  }
  await page.locator('fl-document-table footer').getByRole('button', { name: 'Set', exact: true }).click();
  await entry(/new set/);
  await inDialog();

  await part('Parts of the material', /^Participants/);
  await press(/New participant/);
  await inDialog();
  await page.locator('[data-cell="0,0"]').click();
  await press('Open');
  await expect(page.locator('fl-case-sheet')).toBeVisible();
  await writeEverywhere(page);
  for (const cell of ['0,0', '1,1', '2,2']) {
    await page.locator(`[data-cell="${cell}"]`).click();
    await page.keyboard.press('Enter');
    await writeEverywhere(page, '.grid');
    await page.keyboard.press('Escape');
  }

  await part('Parts of the material', /^Attributes/);
  await writeEverywhere(page);
  await press('Rename');
  await inDialog();
  await part('Parts of the material', /^Sets/);
  await press(/Live set of documents/);
  await writeEverywhere(page);
  await part('Parts of the material', /^Questions/);
  await press('Reword');
  await inDialog();

  await page.goto(`${page.url().replace(/material.*/, 'material/replace')}`);
  await writeEverywhere(page);
  await page.goto(`${page.url().replace(/material.*/, 'material/import')}`);
  await press('Paste a text');
  await writeEverywhere(page);
  await page.getByLabel('Title', { exact: true }).fill('Pasted');
  await page.getByLabel('Text', { exact: true }).fill('A: Nobody asked us.\n\nB: They held the boat.\n\nA: So?\n\nB: Well.');
  await press('Show the preview');
  await expect(page.getByRole('button', { name: 'Bring in this document' })).toBeVisible();
  await writeEverywhere(page);
});

test('in Reading: beside the text, over it, in it, line by line and by question', async () => {
  await filum.openDemo();
  await filum.read('Interview 03 – Shona Adair');
  await page.locator('.slip').first().click();
  await expect(page.getByLabel('Comment')).toBeVisible();
  await filum.text.focus();
  await page.keyboard.press('f');
  const names = await writeEverywhere(page);
  expect(names).toContain('Comment');
  await page.keyboard.press('Escape');

  await filum.caretAt('night. Last boat');
  await page.keyboard.press('c');
  await expect(filum.picker).toBeVisible();
  await writeEverywhere(page, 'fl-code-picker');
  await filum.picker.getByRole('combobox').fill('A wholly new code');
  await page.keyboard.press('ControlOrMeta+Enter');
  await writeEverywhere(page, 'fl-code-picker .definition');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(filum.picker).toHaveCount(0);

  await filum.text.focus();
  await page.keyboard.press('g');
  await inDialog();
  for (const [group, name] of [
    [null, 'Divide the document'],
    ['Who speaks', 'Find the speakers anew'],
  ] as const) {
    await press('Text');
    if (group) await entryWithin(new RegExp(group), new RegExp(name));
    else await entry(new RegExp(name));
    await inDialog();
  }
  await page.locator('.slip').first().click();
  await press(/^Change /);
  await entry(/The same for all/);
  await inDialog();

  // correcting: the whole text is one field
  await press('Text');
  await entry('Correct the text');
  const paper = page.getByRole('textbox', { name: /Correcting the text/ });
  await expect(paper).toBeVisible();
  const steps = await page.locator('[data-through]').getAttribute('data-through');
  const sentence = 'm and M, C c . 1 2 3 s p t e x u ? / and what else there is';
  await page.keyboard.press('ControlOrMeta+Home');
  await page.keyboard.type(sentence);
  await expect(page.locator('.cm-line').first()).toContainText(sentence);
  await page.keyboard.press('ControlOrMeta+z');
  await expect(page.locator('.cm-line').first()).not.toContainText('and what else there is');
  await expect(page.locator('[data-through]')).toHaveAttribute('data-through', steps!);
  await expect(page.locator('fl-desk, mat-dialog-container')).toHaveCount(0);
  await page.keyboard.press('Escape');
  if (await page.locator(DIALOG).count()) await press('Drop them');

  // while it is listened to the recording's own keys are the recording's; all else is written
  const reading = page.url().split('?')[0]!;
  await filum.read('At the pier – Ellen');
  await page.goto(`${page.url().split('?')[0]}?as=transcribing`);
  const heard = page.getByRole('textbox', { name: /Transcribing the text of/ });
  await expect(heard).toBeVisible();
  await writeEverywhere(page, 'fl-correct-surface label');
  await heard.focus();
  await page.keyboard.press('ControlOrMeta+End');
  await page.keyboard.type(' ' + sentence);
  await expect(heard).toContainText(sentence);
  await page.keyboard.press('Escape');
  if (await page.locator(DIALOG).count()) await press('Drop them');

  await page.goto(`${reading}?as=lines`);
  await expect(page.getByRole('combobox', { name: /Codes of/ }).first()).toBeVisible();
  await writeEverywhere(page, 'tbody tr:nth-child(3)');
  await page.goto(page.url().replace(/reading\/.*/, 'reading/question'));
  await expect(page.getByRole('combobox', { name: /Codes of/ }).first()).toBeVisible();
  await writeEverywhere(page, 'article:nth-of-type(1)');
});

test('in Codebook: the tree, a code, many at once, sorting, sets, checks, in and out', async () => {
  await filum.openDemo();
  await filum.goTo('Codebook');
  await page.locator('[data-code]').nth(3).click();
  await expect(page.getByLabel('Definition')).toBeVisible();
  const names = await writeEverywhere(page);
  for (const name of ['Name', 'Definition', 'Use when', 'Notes']) expect(names).toContain(name);
  await page.locator('[data-code]').nth(3).focus();
  await page.keyboard.press('n');
  await inDialog();
  await page.locator('[data-code]').nth(3).click();
  await page
    .locator('[data-code]')
    .nth(4)
    .click({ modifiers: ['Control'] });
  await press('Names…');
  await inDialog();
  await press('Join…');
  await inDialog();
  await press('Move under…');
  await inDialog();
  await press('Choose none');

  await part('Parts of the codebook', 'Sorting');
  await press('Sort all codes');
  await expect(page.locator(DIALOG)).toBeVisible();
  await writeEverywhere(page, DIALOG);
  await press('Lay them out');
  await press('New group');
  await expect(page.locator(DIALOG)).toBeVisible();
  await writeEverywhere(page, DIALOG);
  await page.locator(DIALOG).getByLabel('Name').fill('A group');
  await press('Make the group');
  await expect(page.locator(DIALOG)).toHaveCount(0);
  await writeEverywhere(page, '.surface');
  await part('Parts of the codebook', 'Sets');
  await press(/New set|by hand/);
  await inDialog();
  await part('Parts of the codebook', 'In and out');
  await writeEverywhere(page);
});

test('in Memos and the log, at the desk, and in Queries', async () => {
  await filum.openDemo();
  await filum.goTo('Memos');
  await page.locator('.row .pick').first().click();
  const names = await writeEverywhere(page);
  for (const name of ['Find in memos', 'Title', 'Kind']) expect(names).toContain(name);
  await page.getByRole('button', { name: 'Write on' }).click();
  await expect(page.getByRole('textbox', { name: 'Memo' })).toBeVisible();
  const desk = await writeEverywhere(page, 'fl-desk');
  expect(desk).toContain('Memo');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Log', exact: true }).click();
  await press('Own entry');
  await writeEverywhere(page);

  await filum.goTo('Queries');
  await press('Choose codes');
  await writeEverywhere(page, 'fl-choose-codes');
  await page.locator('fl-choose-codes input').first().fill('Worry');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.locator('fl-choose-codes')).toHaveCount(0);
  const add = async (name: string) => {
    await page.getByRole('button', { name: 'and', exact: true }).last().click();
    await page.getByRole('menuitem', { name, exact: true }).click();
  };
  await add('lie in documents, folders or sets');
  await press(/^Find a document/);
  await writeEverywhere(page, 'fl-choose-several');
  await page.keyboard.press('Escape');
  await add('have a comment');
  await press('have a comment');
  await entry('have a comment with the words');
  await add('are of a participant with an attribute');
  await press('choose an attribute');
  await entry('age');
  await press('is known');
  await entry('is over');
  await writeEverywhere(page, 'fl-condition-list');
  await press('More');
  await entry('Paste a query');
  await inDialog();
  await press('Keep');
  await inDialog();
  await part('Parts of the queries', 'Words');
  await writeEverywhere(page, '.asked');
  await press('Word lists');
  await inDialog();
  await part('Parts of the queries', 'Propositions');
  await press(/^New proposition/);
  await page.getByRole('dialog').getByLabel('Name').fill('Who worries is relieved');
  await press('Make it');
  await page.getByRole('button', { name: 'choose what they have' }).last().click();
  await page.getByRole('dialog', { name: 'Choose codes' }).getByRole('checkbox').first().check();
  await page.keyboard.press('Escape');
  await expect(page.getByLabel(/^Note on /).first()).toBeVisible();
  await writeEverywhere(page, '[data-verdict] tr:nth-child(2)');
  await press('narrow');
  await page.getByRole('button', { name: 'narrow to' }).click();
  await entry('are of a participant with an attribute');
  await page.locator('fl-scope-panel').getByRole('button', { name: 'choose an attribute' }).click();
  await entry('age');
  await page.locator('fl-scope-panel').getByRole('button', { name: 'is known' }).click();
  await entry('is over');
  await writeEverywhere(page, 'fl-scope-panel');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await filum.goTo('Patterns');
  // the place before has such a button as well
  await expect(page.getByRole('heading', { name: 'Codes by document' })).toBeVisible();
  await press('Keep');
  await inDialog();
  await press('each document');
  await entry('each age');
  await press(/^cut at/);
  await inDialog();
  // not what is in no group: that is no question
  await page.locator('.cell.none[aria-label*="under 20"], .cell.none[aria-label*="and over"]').first().click();
  await press('Mark as expected…');
  await inDialog();
  await page.getByRole('link', { name: 'Words', exact: true }).click();
  await press('as a list');
  await entry('in a table by groups');
  await press('the most frequent words');
  await inDialog();
  await page.getByRole('link', { name: 'Similarity', exact: true }).click();
  await expect(page.locator('.point').first()).toBeVisible();
  await press('Take out');
  await entry(/PNG/);
  await inDialog();
});
