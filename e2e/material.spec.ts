import { expect, test } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { Filum } from './support/filum';

const file = (name: string, content: string | Uint8Array) => ({ name, mimeType: '', buffer: Buffer.from(content as string) });

test('says which file cannot be read and why, and the others go on', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await page.getByRole('link', { name: 'Bring in' }).first().click();
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
  const row = (name: string) => page.getByRole('list', { name: 'Files' }).getByRole('listitem').filter({ hasText: name });
  await expect(row('good')).not.toContainText('cannot');
  await expect(row('pdf.docx')).toContainText('but a PDF');
  await expect(row('locked.docx')).toContainText('password');
  await expect(row('empty.txt')).toContainText('empty');
  await expect(row('broken.docx')).toContainText('cannot be unpacked');
  await expect(row('latin.txt')).toContainText('Choose the encoding');
  await row('latin.txt').getByRole('button').first().click();
  await expect(page.getByRole('alert')).toContainText('latin.txt');
  await page.getByLabel('Encoding').selectOption('windows-1252');
  await expect(page.getByRole('region', { name: 'Text of the preview' })).toContainText('The Café on the pier');
  await filum.accessible();
  await page.getByRole('button', { name: 'Bring in 2 documents' }).click();
  await expect(page.getByRole('status').filter({ hasText: '2 documents are in; 4 left out.' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'latin', exact: true })).toBeVisible();
});

test('follows every change of a setting in the preview before anything is stored', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await page.getByRole('link', { name: 'Bring in' }).first().click();
  await page.getByLabel('Files to bring in').setInputFiles(file('talk.txt', 'Note: cold.\n\nAnn: One.\n\nNote: windy.\n\nAnn: Two.'));
  const preview = page.getByRole('region', { name: 'Text of the preview' });
  await expect(preview.locator('p').first()).toContainText('cold.');
  await expect(preview.locator('.who').first()).toHaveText('Note');
  await page.getByRole('checkbox', { name: /Note/ }).uncheck();
  await expect(preview.locator('p').first()).toContainText('Note: cold.');
  await page.getByLabel('Title').fill('Talk at the pier');
  await page.getByLabel('Kind').selectOption('field note');
  await filum.goTo('Material');
  await expect(page.getByText('No material yet')).toBeVisible();
});

test('notices the same file again, and takes dropped files', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await page.getByRole('link', { name: 'Bring in' }).first().click();
  await page.getByLabel('Files to bring in').setInputFiles(file('one.txt', 'Nobody asked us.'));
  await page.getByRole('button', { name: 'Bring in this document' }).click();
  await page.getByRole('link', { name: 'Bring in' }).first().click();
  const transfer = await page.evaluateHandle(() => {
    const data = new DataTransfer();
    data.items.add(new File(['Nobody asked us.'], 'again.txt'));
    data.items.add(new File(['# Minutes\n\nWords.'], 'minutes.md'));
    return data;
  });
  await page.dispatchEvent('fl-import', 'drop', { dataTransfer: transfer });
  const rows = page.getByRole('list', { name: 'Files' }).getByRole('listitem');
  await expect(rows.first()).toContainText('same content as “one”');
  await expect(rows.first().getByRole('checkbox')).not.toBeChecked();
  await expect(rows.last()).toContainText('Minutes');
  await page.getByRole('button', { name: 'Bring in this document' }).click();
  await expect(page.getByRole('table').getByRole('row')).toHaveCount(3);
});

test('sorts, finds, moves and deletes documents, naming what goes', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Material');
  const titles = () => page.locator('.row:not(.head) .title').allTextContents();
  await page.getByRole('columnheader', { name: 'Words' }).getByRole('button').click();
  await page.getByRole('columnheader', { name: 'Words' }).getByRole('button').click();
  await expect.poll(async () => (await titles())[0]?.trim()).toBe('Focus group – The pier waiting room');
  await page.getByLabel('Find a title').fill('shona');
  await expect.poll(async () => (await titles()).length).toBe(1);
  await page.getByRole('checkbox', { name: 'Select Interview 03 – Shona Adair' }).check();
  await page.getByRole('button', { name: 'Move to a folder' }).click();
  await page.getByRole('menuitem', { name: 'Field notes' }).click();
  await expect(page.getByRole('button', { name: /^Field notes 4/ })).toBeVisible();
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(page.getByRole('dialog')).toContainText('104 passages with');
  await page.getByRole('dialog').getByRole('button', { name: 'Delete' }).click();
  await expect(page.locator('[data-scope-left]')).toHaveText('76 of 76 documents');
  await page.getByRole('button', { name: 'Undo' }).click();
  await filum.read('Interview 03 – Shona Adair');
  await filum.passages(104);
});
