import { bringIn, file } from './support/bringing-in';
import { Filum } from './support/filum';
import { expect, test } from './support/one-sitting';

test('brings in a survey with its cases, and later rows update what they say otherwise', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  const survey = 'id,name,age,home,What will you lose?\nR1,Limpet,44,Saltpans,The half hour.\nR2,Bay,old,Northholm,\n';
  await page.getByLabel('Files to bring in').setInputFiles(file('survey.csv', survey));
  await page.getByLabel('Type of age').selectOption('number');
  await expect(page.getByText('1 cell does not fit')).toBeVisible();
  await filum.accessible();
  await page.getByRole('button', { name: 'Bring in this table' }).click();
  await expect(page.getByRole('status').filter({ hasText: '2 documents, 2 new and 0 changed participants' })).toBeVisible();
  await bringIn(page);
  await page.getByLabel('Files to bring in').setInputFiles(file('later.csv', survey.replace('Saltpans', 'Gull Bay').replace('old', '38')));
  await expect(page.getByText('2 known participants differ')).toBeVisible();
  await page.locator('.differences label', { hasText: 'Limpet' }).getByRole('checkbox').uncheck();
  await page.getByRole('button', { name: 'Bring in this table' }).click();
  await page.getByRole('link', { name: /^Participants 2/ }).click();
  const cell = (row: number, column: number) => page.locator(`[data-cell="${row},${column}"]`);
  await expect(cell(0, 0)).toContainText('Bay');
  await expect(cell(0, 2)).toHaveText('38');
  await expect(cell(1, 3)).toHaveText('Saltpans');
});

test('keeps a survey of many rows as it keeps anything else: read, coded, taken back, done again, after a reload each', async ({
  page,
}) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  const rows = Array.from({ length: 620 }, (_, at) => `R${at},${20 + (at % 60)},"The half hour on deck, number ${at}."`);
  await page.getByLabel('Files to bring in').setInputFiles(file('survey.csv', `id,age,What will you lose?\n${rows.join('\n')}\n`));
  await page.getByRole('button', { name: 'Bring in this table' }).click();
  await expect(page.getByRole('status').filter({ hasText: '620 documents, 620 new' })).toBeVisible();
  await page.reload();
  await expect(page.getByText('620 of 620 documents')).toBeVisible();
  await page.getByLabel('Find in the table').fill('R613');
  await filum.read('R613');
  await expect(filum.text).toContainText('number 613.');
  await filum.code('half hour', 'Time');
  await filum.saved();
  await page.reload();
  await expect(filum.text).toContainText('number 613.');
  await filum.passages(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await filum.passages(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('0 of 0 documents')).toBeVisible();
  await filum.saved();
  await page.reload();
  await expect(page.getByText('0 of 0 documents')).toBeVisible();
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(page.getByText('620 of 620 documents')).toBeVisible();
  await filum.saved();
  await page.reload();
  await filum.read('R1');
  await expect(filum.text).toContainText('number 1.');
});

test('takes facts and answers of later rows in as one step that one undo takes back', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  const survey = 'id,name,home,What will you lose?\nR1,Limpet,Saltpans,The half hour on deck.\n';
  const bring = async (name: string, text: string): Promise<void> => {
    await filum.goTo('Material');
    await bringIn(page);
    await page.getByLabel('Files to bring in').setInputFiles(file(name, text));
    await page.getByRole('button', { name: 'Bring in this table' }).click();
    await expect(page.getByRole('status').filter({ hasText: `${name}: ` })).toBeVisible();
  };
  await bring('survey.csv', survey);
  await filum.read('R1 Limpet');
  await filum.code('half hour', 'Time');
  await bring('later.csv', survey.replace('Saltpans', 'Gull Bay').replace('on deck', 'with the others'));
  await expect(page.getByRole('status').filter({ hasText: '1 answer updated' })).toBeVisible();
  // the reading place was left open behind the import: it has the new words, and the passage is still on its own
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await expect(filum.text).toContainText('The half hour with the others.');
  await filum.passages(1);
  await filum.slips('Time').click();
  await expect(page.locator('fl-passage-panel blockquote')).toHaveText('half hour');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(filum.text).toContainText('The half hour on deck.');
  await filum.passages(1);
  await filum.goTo('Material');
  await page.getByRole('link', { name: /^Participants 1/ }).click();
  await expect(page.getByText('Saltpans')).toBeVisible();
});
