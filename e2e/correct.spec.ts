import { readFileSync } from 'node:fs';
import { Filum } from './support/filum';
import { expect, test } from './support/one-sitting';

test('corrects a coded transcript by typing: passages stay on their words, what would go is named', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.read('Interview 03 – Shona Adair');
  await filum.passages(104);
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Correct the text' }).click();
  const editor = page.getByLabel('Correcting the text of Interview 03 – Shona Adair');
  await expect(editor).toBeFocused();
  await page.keyboard.press('Control+Home');
  await page.keyboard.type('Mara: Before we begin.\n');
  await expect(page.getByText('1 place changed')).toBeVisible();
  await filum.accessible();
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('.cm-line').first()).toHaveText('Mara: Before we begin.');
  await filum.passages(104);
  await expect(page.locator('.thread', { hasText: 'They held her' }).first()).toBeVisible();

  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Correct the text' }).click();
  await expect(editor).toBeFocused();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Nothing is left.');
  await expect(page.getByText('104 passages lose all words')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('dialog')).toContainText('104 passages lose all their words');
  await page.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(editor).toBeFocused();
  // what was typed and not kept is there again after the browser went
  await page.waitForFunction(() => Object.keys(localStorage).some((key) => key.includes(' correction ')));
  await page.reload();
  await expect(page.getByText('Corrections were begun here and not kept.')).toBeVisible();
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(editor).toContainText('Nothing is left.');
  await expect(editor).toBeFocused();
  await page.keyboard.press('Escape');
  await page.getByRole('dialog').getByRole('button', { name: 'Drop them' }).click();
  await expect(page.getByText('Corrections were begun here and not kept.')).toBeHidden();
  await filum.passages(104);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.cm-line').first()).toContainText('Right, that');
});

test('replaces a name everywhere after showing every place, and leads back by a key file only', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Reading');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Find and replace words' }).click();
  await page.getByLabel(/only in/).uncheck();
  await page.getByLabel('Words', { exact: true }).fill('Shona');
  await page.getByLabel('Replaced by').fill('Anna');
  await expect(page.getByRole('button', { name: /^Replace in 32 places of 4 documents/ })).toBeEnabled();
  await page
    .getByRole('checkbox', { name: /Replace “Shona” in Focus group – The pier/ })
    .first()
    .uncheck();
  await filum.accessible();
  await page.getByRole('button', { name: /^Replace in 31 places/ }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Replaced in 31 places.' })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the key file' }).click();
  expect(readFileSync(await (await download).path(), 'utf8')).toContain('Shona,Anna,Interview 03 – Shona Adair');
  await filum.read('Interview 03 – Anna Adair');
  await filum.passages(104);
  await expect(page.locator('.cm-line[data-speaker=Anna]').first()).toBeVisible();
});

test('divides a document in two and puts the parts together again', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.read('Interview 01 – Moira Tennant');
  await page.locator('.cm-line').nth(6).click();
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: /Divide the document/ }).click();
  await page.getByRole('dialog').getByLabel('Title of the second part').fill('Moira, later');
  await page.getByRole('dialog').getByRole('button', { name: 'Divide' }).click();
  await expect(page.locator('.cm-line')).toHaveCount(6);
  await filum.goTo('Material');
  await page.getByLabel('Find in the table').fill('moira');
  await page.getByRole('checkbox', { name: 'Select Interview 01 – Moira Tennant' }).check();
  await page.getByRole('checkbox', { name: 'Select Moira, later' }).check();
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Join them' }).click();
  await filum.read('Interview 01 – Moira Tennant');
  await filum.passages(43);
});
