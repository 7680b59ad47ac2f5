import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { readMarked } from '../core/sample/marked-text';
import { Filum } from './support/filum';
import { expect, test } from './support/one-sitting';

const LINES = [
  'Mara: What did you do before?',
  'Moira: I sold the boat. It was my father’s boat.',
  'We had no choice, none of us had.',
  'Mara: And now?',
  'Moira: Now I drive the bus. The haar stops the bus as well.',
].join('\n');

async function reading(page: Page): Promise<Filum> {
  const filum = new Filum(page);
  await filum.newStudy();
  await filum.paste('Moira', LINES);
  await filum.read('Moira');
  return filum;
}

const textMenu = async (page: Page, item: string): Promise<void> => {
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: item }).click();
};
const panelWords = (page: Page) => page.locator('fl-passage-panel blockquote');

test('codes a sentence, a paragraph and a turn with nothing selected, and grows and shrinks what is selected', async ({ page }) => {
  const filum = await reading(page);
  await filum.caretAt('father');
  await page.keyboard.press('s');
  await page.keyboard.press('c');
  await page.keyboard.type('family');
  await page.keyboard.press('Enter');
  await expect(panelWords(page)).toHaveText('It was my father’s boat.');
  await filum.caretAt('father');
  await page.keyboard.press('t');
  await page.keyboard.press('.');
  await expect(panelWords(page)).toContainText('I sold the boat. It was my father’s boat. We had no choice');
  const selected = () => page.evaluate(() => getSelection()!.toString().trim());
  await filum.caretAt('choice');
  await page.keyboard.press('e');
  expect(await selected()).toBe('choice');
  await page.keyboard.press('e');
  expect(await selected()).toBe('We had no choice, none of us had.');
  await page.keyboard.press('Shift+E');
  expect(await selected()).toBe('choice');
});

test('moves the ends of a passage by keys and by dragging, and undoes it', async ({ page }) => {
  const filum = await reading(page);
  await filum.code('sold the boat', 'selling');
  await expect(panelWords(page)).toHaveText('sold the boat');
  await page.keyboard.press('Alt+Shift+ArrowLeft');
  await expect(panelWords(page)).toHaveText('I sold the boat');
  await page.keyboard.press('Alt+ArrowDown');
  await expect(panelWords(page)).toHaveText('I sold the boat.');
  await page.keyboard.press('Alt+ArrowRight');
  await expect(panelWords(page)).toHaveText('I sold the boat. It');
  await filum.passages(1);
  const grip = (await page.locator('.grip-end').boundingBox())!;
  const target = await filum.rectOf('boat.');
  // its knob is under the letters
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height + 4);
  await page.mouse.down();
  await page.mouse.move(target.x + 2, target.y + target.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(panelWords(page)).toHaveText('I sold the');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(panelWords(page)).toHaveText('I sold the boat. It');
});

test('gives codes number keys, and one of those used last has one too', async ({ page }) => {
  const filum = await reading(page);
  await filum.code('sold the boat', 'selling');
  await filum.code('no choice', 'being forced');
  await page.getByRole('button', { name: 'Give selling a number key' }).click();
  await filum.caretAt('drive');
  await page.keyboard.press('s');
  await page.keyboard.press('1');
  await expect(page.getByLabel('Codes on this passage')).toContainText('selling');
  await page.keyboard.press('2');
  await expect(page.getByLabel('Codes on this passage')).toContainText('being forced');
  await filum.passages(3);
});

test('marks now and decides later, puts another code in place of one, and chooses among passages that overlap', async ({ page }) => {
  const filum = await reading(page);
  await filum.select('no choice');
  await page.keyboard.press('x');
  await expect(filum.slips('no code yet')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: '1 to decide' }).click();
  await page.getByRole('menuitem', { name: 'no choice' }).click();
  await page.locator('.cm-content').focus();
  await page.keyboard.press('c');
  await page.keyboard.type('being forced');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /to decide/ })).toBeHidden();
  await page.locator('.cm-content').focus();
  await page.keyboard.press('r');
  await page.keyboard.type('no way out');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Codes on this passage')).toContainText('no way out');
  await expect(page.getByLabel('Codes on this passage')).not.toContainText('being forced');
  await filum.code('We had no choice, none', 'we');
  await page.getByText('1 more passage shares these words').click();
  await page
    .locator('.also')
    .getByRole('button', { name: /no way out/ })
    .click();
  await expect(panelWords(page)).toHaveText('no choice');
  await filum.accessible();
});

test('goes to what is not coded, marks how far it is read, and makes a code with its definition', async ({ page }) => {
  const filum = await reading(page);
  await filum.caretAt('sold');
  await page.keyboard.press('t');
  await page.keyboard.press('c');
  await page.keyboard.type('leaving');
  await page.keyboard.press('Control+Enter');
  await page.keyboard.type('Giving up what one had.');
  await page.keyboard.press('Enter');
  await page.keyboard.press('u');
  expect(await page.evaluate(() => getSelection()!.toString().trim())).toBe('And now?');
  await page.keyboard.press('h');
  await expect(page.locator('fl-document-foot')).toContainText('% read');
  await filum.goTo('Codebook');
  await page.getByText('leaving').first().click();
  await expect(page.getByLabel('Definition')).toHaveValue('Giving up what one had.');
});

test('finds words, goes from hit to hit, and codes their sentences in one step', async ({ page }) => {
  const filum = await reading(page);
  await filum.caretAt('Now I drive');
  await page.keyboard.press('f');
  await page.keyboard.type('the b');
  await expect(page.locator('fl-find-bar')).toContainText('1 of 3');
  await page.keyboard.press('Enter');
  await expect(page.locator('fl-find-bar')).toContainText('2 of 3');
  await expect(page.locator('.hit-ticks i')).toHaveCount(3);
  await page.getByRole('button', { name: 'Code these 3' }).click();
  await page.keyboard.type('vehicles');
  await page.keyboard.press('Enter');
  await filum.passages(3);
  await filum.accessible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await filum.passages(0);
});

test('shows the coding otherwise, says so in the scope sentence, and ends it from there', async ({ page }) => {
  const filum = await reading(page);
  await filum.code('sold the boat', 'selling');
  await page.getByRole('button', { name: 'View', exact: true }).click();
  await page.getByRole('radio', { name: 'folded away' }).check();
  await page.getByRole('checkbox', { name: 'number the paragraphs' }).check();
  await filum.accessible();
  await page.keyboard.press('Escape');
  await expect(page.locator('.cm-line', { hasText: 'It was my' })).not.toContainText('sold the boat');
  await expect(page.locator('.cm-lineNumbers')).toContainText('3');
  await page.reload();
  await page.getByRole('button', { name: 'coded words folded away: end this' }).click();
  await expect(page.locator('.cm-line', { hasText: 'It was my' })).toContainText('sold the boat');
  await page.getByRole('button', { name: 'View', exact: true }).click();
  await page.getByLabel('Size').fill('22');
  await page.keyboard.press('Escape');
  expect(
    await page
      .locator('.cm-line')
      .first()
      .evaluate((line) => getComputedStyle(line).fontSize),
  ).toBe('22px');
});

test('defines a word once: it is marked in every document, with its meaning on hover, and exported', async ({ page }) => {
  const filum = await reading(page);
  await filum.caretAt('haar');
  await page.keyboard.press('g');
  const dialog = page.getByRole('dialog', { name: 'Glossary' });
  await expect(dialog.getByLabel('Word', { exact: true })).toHaveValue('haar');
  await dialog.getByLabel('What it means').fill('fog that comes in from the sea');
  await dialog.getByRole('button', { name: 'Define the word' }).click();
  await expect(page.locator('.glossed')).toHaveText('haar');
  await page.locator('.glossed').hover();
  await expect(page.locator('.gloss-hover')).toContainText('fog that comes in from the sea');
  await textMenu(page, 'Glossary');
  await filum.accessible();
  const { bytes } = await filum.download(() => page.getByRole('button', { name: 'Export as CSV' }).click());
  expect(bytes.toString()).toContain('haar,,fog that comes in from the sea,Ada');
});

test('codes line by line as in a table, divides and joins idea-units, and the text has the same passages', async ({ page }) => {
  const filum = await reading(page);
  await textMenu(page, 'Read line by line');
  await page.getByLabel('Rows are').selectOption('idea-unit');
  const cell = (row: number) => page.getByRole('combobox', { name: `Codes of idea-unit ${row}`, exact: true });
  await cell(2).click();
  await page.keyboard.type('selling');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(cell(3)).toBeFocused();
  await page.keyboard.type('sell');
  await page.keyboard.press('Enter');
  await expect(page.getByText('7 rows, 2 coded')).toBeVisible();
  const unit = page.getByRole('textbox', { name: 'idea-unit 4', exact: true });
  await expect(unit).toHaveText('We had no choice, none of us had.');
  await unit.focus();
  await page.keyboard.press('Home');
  for (const _letter of 'We had no choice, ') await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'idea-unit 5', exact: true })).toHaveText('none of us had.');
  await page.keyboard.press('Home');
  await page.keyboard.press('Backspace');
  await expect(unit).toHaveText('We had no choice, none of us had.');
  await page.getByLabel('showing').selectOption('those not coded');
  await expect(page.getByText('5 of 7 rows')).toBeVisible();
  await filum.accessible();
  await textMenu(page, 'Read as running text');
  await filum.passages(2);
  await expect(filum.slips('selling')).toHaveCount(2);
});

test('reads all answers to a question down the page, codes each, and steps on by Enter', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.read('Interview 03 – Shona Adair');
  await textMenu(page, 'Read by question');
  await page.getByLabel('Question').selectOption('What should the council do first?');
  await expect(page.getByRole('status').filter({ hasText: 'answers' })).toContainText('unanswered');
  const cells = page.locator('article fl-code-cell input');
  await cells.first().click();
  await page.keyboard.type('relief');
  await page.keyboard.press('Enter');
  await expect(page.locator('article').first().locator('.code', { hasText: 'Relief' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(cells.nth(1)).toBeFocused();
  await page.getByRole('checkbox', { name: 'only those not coded' }).check();
  await filum.accessible();
});

test('shows two places of one document side by side, and codes in either', async ({ page }) => {
  const filum = await reading(page);
  await textMenu(page, 'Another document beside this one');
  await expect(page.locator('.cm-content')).toHaveCount(2);
  const right = page.locator('fl-reading.pane');
  await right.locator('.cm-line', { hasText: 'no choice' }).click();
  await page.keyboard.press('c');
  await page.keyboard.type('being forced');
  await page.keyboard.press('Enter');
  await expect(page.locator('.thread', { hasText: 'We had no choice' })).toHaveCount(2);
  await right.getByRole('button', { name: 'End side by side' }).click();
  await expect(page.locator('.cm-content')).toHaveCount(1);
  const { name, bytes } = await filum.download(() => textMenu(page, 'Export this document with its codings'));
  expect(name).toBe('Moira.html');
  expect(bytes.toString()).toContain('being forced');
  // what is printed is a page of its own that has its looks under the content policy, and the text stays on the screen
  await page.addInitScript(() => (window.print = () => document.body.setAttribute('data-printed', '')));
  await textMenu(page, 'Print this document with its codings');
  const printed = page.frameLocator('iframe[title="Page to be printed"]');
  await expect(printed.locator('body[data-printed]')).toContainText('being forced');
  await expect(printed.locator('u').first()).toHaveCSS('text-decoration-thickness', '2px');
  await expect(page.locator('.cm-content')).toBeVisible();
});

test('rates a coding where the study rates', async ({ page }) => {
  const filum = await reading(page);
  await filum.code('sold the boat', 'selling');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: /Rate codings/ }).click();
  await page.getByRole('menuitem', { name: 'from 1 to 5' }).click();
  await page.getByLabel('Rating of selling').selectOption('4');
  await filum.saved();
  await page.reload();
  await filum.slips('selling').click();
  await expect(page.getByLabel('Rating of selling')).toHaveValue('4');
});

test('codes an interview from an empty codebook by keyboard alone: 40 passages, 15 codes, at most 2.5 keys a coding', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  const { paragraphs } = readMarked(readFileSync('demo/marked/03-shona-adair.txt', 'utf8'));
  await filum.paste('Shona', paragraphs.join('\n'));
  await filum.read('Shona');
  await page.locator('.cm-line').first().click();
  const names = [
    'waiting',
    'helping',
    'counting',
    'joking',
    'grieving',
    'caring',
    'planning',
    'missing',
    'deciding',
    'hoping',
    'blaming',
    'leaving',
    'staying',
    'trusting',
    'naming',
  ];
  let keys = 0;
  const press = async (key: string): Promise<void> => {
    keys++;
    await page.keyboard.press(key);
  };
  for (let passage = 0; passage < 40; passage++) {
    // to the next words that are not coded, and of them one sentence: selecting is not counted
    await page.keyboard.press('u');
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('s');
    if (passage > names.length && passage % 5 === 4) {
      await press('.');
    } else {
      await press('c');
      const name = names[passage % names.length]!;
      await page.keyboard.type(passage < names.length ? name : name.slice(0, 5));
      await press('Enter');
    }
  }
  await filum.passages(40);
  expect(keys / 40).toBeLessThanOrEqual(2.5);
  await expect(page.locator('fl-code-list [role=listitem]')).toHaveCount(names.length);
  await expect(page.locator('[aria-live=polite]', { hasText: /^Passage with / })).toBeAttached();
  await filum.saved();
});

test('goes back and forward through jumps, within a document and between two, and to unread documents either way', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.read('Interview 03 – Shona Adair');
  const where = page.locator('fl-document-foot span').first();
  await expect(where).toHaveText('turn 1 of 51');
  const line = (await page.locator('fl-document-foot canvas').boundingBox())!;
  await page.mouse.click(line.x + 0.7 * line.width, line.y + line.height / 2);
  await expect(where).not.toHaveText('turn 1 of 51');
  const there = (await where.textContent())!;
  await filum.text.focus();
  await page.keyboard.press('b');
  await expect(where).toHaveText('turn 1 of 51');
  await page.keyboard.press('b');
  await expect(page.getByText('There is nothing further back.')).toBeVisible();
  await page.keyboard.press('Shift+B');
  await expect(where).toHaveText(there);

  const title = page.locator('fl-document-menu h1');
  await page.keyboard.press('n');
  await expect(title).not.toContainText('Shona Adair');
  await filum.text.focus();
  await page.keyboard.press('b');
  await expect(title).toContainText('Shona Adair');
  await expect(where).toHaveText(there);
  await filum.text.focus();
  await page.keyboard.press('n');
  await expect(title).not.toContainText('Shona Adair');
  await filum.text.focus();
  await page.keyboard.press('Shift+N');
  await expect(title).toContainText('Shona Adair');
});

test('takes away what is shown of a passage, and leaves and tells what is not', async ({ page }) => {
  const filum = await reading(page);
  await filum.code('sold the boat', 'selling', 'loss');
  await filum.passages(1);
  await page.getByRole('button', { name: 'View', exact: true }).click();
  await page.getByRole('combobox', { name: 'Passages of' }).selectOption({ label: 'loss' });
  await page.keyboard.press('Escape');
  await filum.text.focus();
  await page.keyboard.press('[');
  await page.keyboard.press('Delete');
  await expect(page.getByText('One more coding of it is not shown here and stayed.')).toBeVisible();
  await filum.passages(0);
  await page.getByRole('button', { name: 'only passages of loss: end this' }).click();
  await filum.passages(1);
  await expect(filum.slips('selling')).toHaveCount(1);
  await expect(filum.slips('loss')).toHaveCount(0);
});

test('codes by touch: what a finger selected takes its code from a button', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, hasTouch: true, isMobile: true, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const filum = new Filum(page);
  await filum.newStudy();
  await filum.paste('Moira', LINES);
  await filum.goTo('Material');
  await page.getByRole('link', { name: 'Moira', exact: true }).tap();
  await expect(filum.text).toHaveAttribute('inputmode', 'none');
  await page.getByText('We had no choice').tap();
  // the handles of a touch screen set the browser's own selection
  await page
    .locator('.cm-line', { hasText: 'We had no choice' })
    .evaluate((element) => getSelection()!.setBaseAndExtent(element.firstChild!, 7, element.firstChild!, 16));
  await page.getByRole('button', { name: 'Code', exact: true }).tap();
  await page.getByRole('combobox').fill('no way out');
  await page.getByRole('option', { name: /no way out/ }).tap();
  await expect(filum.slips('no way out')).toHaveCount(1);
  await expect(panelWords(page)).toHaveText('no choice');
  await context.close();
});
