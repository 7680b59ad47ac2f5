import { strToU8, zipSync } from 'fflate';
import { bringIn, file, files, preview } from './support/bringing-in';
import { Filum } from './support/filum';
import { expect, test } from './support/one-sitting';

test('says which file cannot be read and why, and the others go on', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  const encrypted = new Uint8Array([
    0xd0,
    0xcf,
    0x11,
    0xe0,
    ...new Uint8Array(new Uint16Array([...'EncryptedPackage'].map((letter) => letter.charCodeAt(0))).buffer),
  ]);
  await page
    .getByLabel('Files to bring in')
    .setInputFiles([
      file('good.txt', 'A: Yes.\nB: No.\nA: Well.\nB: So.'),
      file('pdf.docx', '%PDF-1.7 hello'),
      file('locked.docx', encrypted),
      file('empty.txt', ''),
      file('broken.docx', zipSync({ 'word/document.xml': strToU8('x'.repeat(9000)) }).slice(0, 60)),
      file('latin.txt', new Uint8Array([...strToU8('The Caf'), 0xe9, ...strToU8(' on the pier')])),
    ]);
  const row = (name: string) => files(page).filter({ hasText: name });
  await expect(row('good')).not.toContainText('cannot');
  await expect(row('pdf.docx')).toContainText('but a PDF');
  await expect(row('locked.docx')).toContainText('password');
  await expect(row('empty.txt')).toContainText('empty');
  await expect(row('broken.docx')).toContainText('cannot be unpacked');
  await row('latin.txt').getByRole('button').first().click();
  await expect(preview(page)).toContainText('The Café on the pier');
  await page.getByRole('group', { name: 'What the text may be written in' }).getByRole('button', { name: 'macintosh' }).click();
  await expect(preview(page)).toContainText('The CafÈ on the pier');
  await page.getByLabel('Encoding').selectOption('windows-1252');
  await expect(preview(page)).toContainText('The Café on the pier');
  await filum.accessible();
  await page.getByRole('button', { name: 'Bring in 2 files' }).click();
  await expect(page.getByRole('status').filter({ hasText: /2 documents are in\. Left out: .* and 1 more/ })).toBeVisible();
  await expect(page.getByRole('link', { name: 'latin', exact: true })).toBeVisible();
});

test('follows every change of a setting in the preview before anything is stored', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  await page.getByLabel('Files to bring in').setInputFiles(file('talk.txt', 'Note: cold.\n\nAnn: One.\n\nNote: windy.\n\nAnn: Two.'));
  await expect(preview(page).locator('p').first()).toContainText('cold.');
  await expect(preview(page).locator('.who').first()).toHaveText(/Note/);
  await page.getByRole('checkbox', { name: 'Note', exact: true }).uncheck();
  await expect(preview(page).locator('p').first()).toContainText('Note: cold.');
  await page.getByLabel('Title', { exact: true }).fill('Talk at the pier');
  await page.getByLabel('Kind').selectOption('field note');
  await filum.goTo('Material');
  await expect(page.getByText('No material yet')).toBeVisible();
});

test('notices the same file again, and replaces its text where the words are the same', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  await page.getByLabel('Files to bring in').setInputFiles(file('one.txt', 'Nobody asked us.\nWe waited.'));
  await page.getByRole('button', { name: 'Bring in this document' }).click();
  await bringIn(page);
  const transfer = await page.evaluateHandle(() => {
    const data = new DataTransfer();
    data.items.add(new File(['Nobody asked us.\nWe waited.'], 'again.txt'));
    data.items.add(new File(['# Minutes\n\nWords.'], 'minutes.md'));
    return data;
  });
  await page.dispatchEvent('fl-import', 'drop', { dataTransfer: transfer });
  await expect(files(page).first()).toContainText('same content as “one”');
  await expect(files(page).first().getByRole('checkbox')).not.toBeChecked();
  await expect(files(page).last()).toContainText('Minutes');
  await page.getByLabel(/has the same content/).selectOption('replace');
  await expect(files(page).first().getByRole('checkbox')).toBeChecked();
  await page.getByRole('button', { name: 'Bring in 2 files' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'the words are the same' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'Documents' }).getByRole('row')).toHaveCount(3);
});

test('brings in files of other programs, joins two spellings of a speaker and ties them to a new case', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  await page
    .getByLabel('Files to bring in')
    .setInputFiles(['interview.pdf', 'interview.odt', 'interview.rtf', 'interview.epub'].map((name) => `core/formats/fixtures/${name}`));
  await expect(preview(page)).toContainText('Put it by the sharps bin');
  await expect(page.getByText(/lines of headers, footers and page numbers left out/)).toBeVisible();
  await page.getByLabel('Name of Shona').fill('Shona Adair');
  await page.getByLabel('Name of Shona').press('Tab');
  await expect(preview(page).locator('.who', { hasText: 'Shona Adair' }).first()).toBeVisible();
  await page.getByLabel('Whose words are those of Shona Adair').selectOption({ label: 'a new participant, Shona Adair' });
  await page.getByRole('button', { name: 'Bring in 4 files' }).click();
  await expect(page.getByRole('status').filter({ hasText: '4 documents are in.' })).toBeVisible();
  await page.getByRole('link', { name: /^Participants 1/ }).click();
  await page.getByRole('button', { name: 'All that belongs to Shona Adair' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'as Shona Adair' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('No participants yet')).toBeVisible();
});

test('lines up the questions of structured interviews, and the researcher decides what is the same', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  const reworded = 'Q: Why do you cross today?\n\nA: The brace.\n\nQ: What should the council do first?\n\nA: A bus.';
  await page.getByLabel('Files to bring in').setInputFiles(['demo/structured/pier-01.txt', 'demo/structured/pier-02.txt']);
  await page.getByLabel('Files to bring in').setInputFiles(file('reworded.txt', reworded));
  const table = page.locator('fl-question-table');
  await expect(table.getByRole('row')).toHaveCount(5);
  await expect(table.getByRole('row').nth(1)).toContainText('“Why do you cross today?”');
  await table.getByRole('button', { name: 'not the same' }).click();
  await expect(table.getByRole('row')).toHaveCount(6);
  await page.getByLabel('An answer begins with').selectOption({ label: 'whatever follows' });
  await page.getByRole('button', { name: 'Use these for all 3 files' }).click();
  await filum.accessible();
  await page.getByRole('button', { name: 'Bring in 3 files' }).click();
  await page.getByRole('link', { name: /^Questions 5/ }).click();
  const row = (text: string) => page.getByRole('row').filter({ hasText: text });
  await expect(row('What should the council do first?').getByRole('cell').nth(1)).toHaveText('3');
  await page.getByRole('checkbox', { name: 'Choose Why are you crossing today?' }).check();
  await page.getByRole('checkbox', { name: 'Choose Why do you cross today?' }).check();
  await page.getByRole('button', { name: 'Join these 2 questions' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Join' }).click();
  await expect(row('Why are you crossing today?').getByRole('cell').nth(1)).toHaveText('3');
  await row('What will you gain').getByRole('button', { name: 'Reword' }).click();
  await page.getByRole('dialog').getByLabel('Question').fill('What is there to gain?');
  await page.getByRole('dialog').getByRole('button', { name: 'Reword everywhere' }).click();
  await filum.read('pier-01');
  await expect(filum.text).toContainText('What is there to gain?');
});

test('fills the register by keyboard: typing, filling down, pasting, refusing, undoing', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Material');
  await page.getByRole('link', { name: /^Participants/ }).click();
  const cell = (row: number, column: number) => page.locator(`[data-cell="${row},${column}"]`);
  await cell(0, 1).click();
  await page.keyboard.type('72');
  await page.keyboard.press('Enter');
  await expect(cell(0, 1)).toHaveText('72');
  await expect(cell(1, 1)).toBeFocused();
  await page.keyboard.type('many');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('not a number');
  await page.keyboard.press('Escape');
  await cell(0, 3).click();
  await page.keyboard.type('Outer Skerry');
  await page.keyboard.press('Tab');
  await cell(0, 3).click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+d');
  for (const row of [0, 1, 2]) await expect(cell(row, 3)).toHaveText('Outer Skerry');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cell(1, 3)).not.toHaveText('Outer Skerry');
  await cell(0, 1).click();
  await cell(0, 1).evaluate((element) => {
    const data = new DataTransfer();
    data.setData('text/plain', '50\tM\n51\tF\n');
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(cell(1, 1)).toHaveText('51');
  await expect(cell(1, 2)).toHaveText('F');
  await page.getByLabel('Due').selectOption({ index: 1 });
  await expect(page.locator('.overdue').first()).toBeVisible();
  await filum.accessible();
});

test('changes attributes: what does not convert is shown, values join, bands and live sets follow', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Material');
  await page.getByRole('link', { name: /^Attributes/ }).click();
  await page.getByRole('button', { name: /^role text/ }).click();
  await page.getByRole('region', { name: 'role' }).getByLabel('Type').selectOption('number');
  await expect(page.getByRole('dialog')).toContainText('shopkeeper');
  await page.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: /^home choice/ }).click();
  await page.getByRole('checkbox', { name: 'Corrick Haven' }).check();
  await page.getByRole('checkbox', { name: 'Elsewhere on the mainland' }).check();
  await page.getByRole('button', { name: 'Join 2 values' }).click();
  await page.getByRole('dialog').getByLabel('Into').fill('the mainland');
  await page.getByRole('dialog').getByRole('button', { name: 'Join' }).click();
  await expect(
    page
      .getByRole('row', { name: /the mainland/ })
      .getByRole('cell')
      .first(),
  ).toHaveText('8');
  await page.getByRole('button', { name: /^age number/ }).click();
  await page.getByRole('button', { name: 'Group in bands' }).click();
  await page
    .getByRole('dialog')
    .getByLabel(/Where bands begin/)
    .fill('30, 60');
  await page.getByRole('dialog').getByRole('button', { name: 'Make the attribute' }).click();
  await expect(page.getByRole('row', { name: /30 to under 60/ })).toBeVisible();
  await filum.accessible();
  await page.getByRole('link', { name: /^Sets/ }).click();
  await page.getByRole('button', { name: 'Live set of participants' }).click();
  await page.getByLabel('Name').fill('Mainlanders');
  await page.getByLabel('What the condition is about').selectOption('home');
  await page.getByLabel('Value').fill('the mainland');
  await page.getByRole('button', { name: 'Make the set' }).click();
  await expect(page.getByText('Fills itself: home is the mainland.')).toBeVisible();
  await expect(page.getByRole('button', { name: /Mainlanders live, 8/ })).toBeVisible();
  await filum.accessible();
  // a set of cases narrows everything to the documents in which they speak or own something
  await page.getByRole('button', { name: 'narrow', exact: true }).click();
  const panel = page.getByRole('dialog', { name: 'What is looked at' });
  await panel.getByRole('button', { name: 'narrow to' }).click();
  await page.getByRole('menuitem', { name: 'lie in documents, folders or sets' }).click();
  await panel.getByRole('button', { name: 'Find a set: a set' }).click();
  await page.getByRole('dialog', { name: 'Find a set' }).getByRole('checkbox', { name: 'Mainlanders' }).check();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'in the set Mainlanders', exact: true })).toBeVisible();
  await expect(page.locator('[data-scope-left]')).toContainText('8 of 82 documents');
  await page.getByRole('button', { name: 'look at all' }).click();
  await expect(page.locator('[data-scope-left]')).toHaveText('82 of 82 documents');
});

test('sorts, finds, moves and deletes documents, naming what goes', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Material');
  const titles = () => page.locator('.row:not(.head) .title').allTextContents();
  await page.getByRole('columnheader', { name: 'Words' }).getByRole('button').click();
  await page.getByRole('columnheader', { name: 'Words' }).getByRole('button').click();
  await expect.poll(async () => (await titles())[0]?.trim()).toBe('Focus group – The pier waiting room');
  await page.getByRole('button', { name: 'Columns' }).click();
  await page.getByRole('checkbox', { name: 'home' }).check();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Folder Interviews' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Long interviews');
  await page.getByRole('dialog').getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByRole('button', { name: /^Long interviews/ })).toBeVisible();
  await page.getByLabel('Find in the table').fill('gull bay');
  await expect.poll(async () => (await titles()).length).toBeGreaterThan(3);
  await page.getByLabel('Find in the table').fill('shona');
  await expect.poll(async () => (await titles()).length).toBe(1);
  await page.getByRole('checkbox', { name: 'Select Interview 03 – Shona Adair' }).check();
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Field notes' }).click();
  await expect(page.getByRole('button', { name: /^Field notes 4/ })).toBeVisible();
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(page.getByRole('dialog')).toContainText('104 passages with');
  await page.getByRole('dialog').getByRole('button', { name: 'Delete' }).click();
  await expect(page.locator('[data-scope-left]')).toHaveText('81 of 81 documents');
  await page.getByRole('button', { name: 'Undo' }).click();
  await filum.read('Interview 03 – Shona Adair');
  await filum.passages(104);
});

test('goes on storing when the place is left, and leaves the study free to be worked on', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await filum.goTo('Material');
  await bringIn(page);
  const words = 'The boat waits at the pier, and so do we. '.repeat(200);
  await page
    .getByLabel('Files to bring in')
    .setInputFiles(Array.from({ length: 60 }, (_, at) => file(`Day ${at + 1}.txt`, `Ada: ${words}\nBo: ${at} ${words}`)));
  await page.getByRole('button', { name: 'Bring in 60 files' }).click();
  await filum.goTo('Codebook');
  await expect(page.getByRole('status').filter({ hasText: '60 documents are in.' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Codebook' })).toBeVisible();
  await page.getByRole('button', { name: 'New code' }).first().click();
  await page.getByLabel('Name', { exact: true }).fill('Waiting');
  await page.getByRole('button', { name: 'Make the code' }).click();
  await expect(page.getByRole('treeitem', { name: 'Waiting' })).toBeVisible();
  await filum.saved();
  await filum.goTo('Material');
  await expect(page.getByText('Day 9', { exact: true })).toBeVisible();
});

test('stops reading on demand and keeps what was read', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await filum.goTo('Material');
  await bringIn(page);
  const long = Array.from({ length: 4_000 }, (_, at) => `Speaker ${at % 7}: They held the boat, number ${at}.`).join('\n');
  await page
    .getByLabel('Files to bring in')
    .setInputFiles([file('short.txt', 'Words.'), ...Array.from({ length: 150 }, (_, at) => file(`long ${at}.txt`, `${at}\n${long}`))]);
  await expect(page.getByRole('checkbox', { name: 'Bring in short.txt' })).toBeEnabled();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByText(/Stopped\. [\d,]+ files? (was|were) not read; nothing is stored yet\./)).toBeVisible();
  const kept = await files(page).count();
  expect(kept).toBeGreaterThan(0);
  await expect(page.getByText('reading…')).toHaveCount(0);
  await page.locator('footer .do:enabled').click();
  await expect(page.getByRole('status').filter({ hasText: /is in\.|documents are in\./ })).toBeVisible();
});
