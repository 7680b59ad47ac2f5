import { expect, test } from '@playwright/test';
import { Document, HeadingLevel, Packer, Paragraph, TextRun } from 'docx';
import { Filum } from './support/filum';

const FIRST = `Interviewer: What will you lose?

Moira: I still put the potatoes on at four. There's no reason to it, that was just when the boat came in.

Interviewer: And who asked you?

Moira: Nobody asked us. We were told of it at the pier, like the weather.`;

const second = (): Promise<Buffer> =>
  Packer.toBuffer(
    new Document({
      sections: [
        {
          children: [
            new Paragraph({ text: 'Interview with Iain', heading: HeadingLevel.HEADING_1 }),
            new Paragraph('Interviewer: What is a skipper without a boat?'),
            new Paragraph({
              children: [
                new TextRun('Iain: Nobody asked us '),
                new TextRun({ text: 'anything', bold: true }),
                new TextRun('. Thirty-two years.'),
              ],
            }),
            new Paragraph('Interviewer: And now?'),
            new Paragraph('Iain: A man with a radio.'),
          ],
        },
      ],
    }),
  );

test('from two interview files to a quoted answer, and all of it there the next day', async ({ page, context }) => {
  const filum = new Filum(page);
  await filum.newStudy('What the bridge takes', 'Ada');

  await test.step('two interviews come in, seen before they are stored', async () => {
    await page.getByRole('link', { name: 'Bring in' }).first().click();
    await page.getByLabel('Files to bring in').setInputFiles([
      { name: '2025-01-14 Moira.txt', mimeType: 'text/plain', buffer: Buffer.from(FIRST) },
      { name: 'iain.docx', mimeType: 'application/octet-stream', buffer: await second() },
    ]);
    await expect(page.getByRole('list', { name: 'Files' }).getByRole('listitem')).toHaveCount(2);
    await expect(page.getByLabel('Date')).toHaveValue('2025-01-14');
    await expect(page.getByRole('row', { name: /^Moira 2/ }).getByRole('checkbox', { name: 'Moira', exact: true })).toBeChecked();
    await page
      .getByRole('list', { name: 'Files' })
      .getByRole('button', { name: /Interview with Iain/ })
      .first()
      .click();
    await expect(page.getByRole('region', { name: 'Text of the preview' }).locator('.bold')).toHaveText('anything');
    await filum.accessible();
    await page.getByRole('button', { name: 'Bring in 2 files' }).click();
    await expect(page.getByRole('link', { name: 'Interview with Iain' })).toBeVisible();
  });

  await test.step('codes are made while reading', async () => {
    await filum.read('2025-01-14 Moira');
    await filum.code('I still put the potatoes on at four', 'Boat-minded');
    await filum.code('Nobody asked us.', 'Being asked', 'Anger');
    await filum.code('like the weather', 'Being asked');
    await filum.passages(3);
    await expect(filum.slips('Anger')).toHaveCount(1);
    await filum.read('Interview with Iain');
    await expect(page.locator('.style-heading1')).toHaveText('Interview with Iain');
    await expect(page.locator('.cm-line .bold')).toHaveText('anything');
    await filum.code('Nobody asked us', 'Being', 'Anger');
    await expect(filum.slips('Being asked')).toHaveCount(1);
  });

  await test.step('a memo is written at one of them', async () => {
    await page.keyboard.press('m');
    await page.getByLabel('Title', { exact: true }).fill('Not asked, twice');
    await page.getByLabel('Memo', { exact: true }).fill('The same words, a week apart.');
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(filum.slips('Not asked, twice')).toHaveCount(1);
  });

  await test.step('she asks for everything coded with two of her codes', async () => {
    await filum.goTo('Queries');
    await page.getByRole('button', { name: 'Choose codes' }).click();
    await page.getByLabel('Being asked').check();
    await page.getByLabel('Anger').check();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'any of' }).click();
    await page.getByRole('menuitem', { name: 'all of' }).click();
    await expect(page.locator('[data-summary]')).toHaveText('2 passages in 2 documents');
  });

  await test.step('and copies a quote with its source', async () => {
    await page.getByRole('button', { name: 'Copy with citation' }).first().click();
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('“Nobody asked us.” (2025-01-14 Moira, Moira, turn 4)');
  });

  let file = '';
  await test.step('exports', async () => {
    await filum.goTo('Write-up');
    const study = await filum.download(() => page.getByRole('button', { name: 'Export the study file' }).click());
    expect(study.name).toMatch(/^What the bridge takes \d{4}-\d\d-\d\d\.filum$/);
    file = study.path;
    await expect(page.locator('[data-backup]')).toContainText(/Last exported .*; nothing has changed since/);
    const codings = await filum.download(() => page.getByRole('button', { name: 'Export the codings' }).click());
    const rows = codings.bytes.toString('utf8').trim().split('\r\n');
    expect(rows.length).toBe(1 + 6);
    expect(rows[1]).toContain('2025-01-14 Moira,,Moira,turn 2');
  });
  await filum.saved();

  await test.step('the next day all of it is there', async () => {
    await page.close();
    const tomorrow = new Filum(await context.newPage());
    await tomorrow.page.goto('/');
    await tomorrow.page.getByRole('link', { name: 'What the bridge takes' }).click();
    await tomorrow.read('Interview with Iain');
    await expect(tomorrow.slips('Being asked')).toHaveCount(1);
    await expect(tomorrow.slips('Not asked, twice')).toHaveCount(1);
    await tomorrow.page.getByRole('button', { name: 'Undo' }).click();
    await expect(tomorrow.slips('Not asked, twice')).toHaveCount(0);
    await tomorrow.page.getByRole('button', { name: 'Redo' }).click();
    await expect(tomorrow.slips('Not asked, twice')).toHaveCount(1);
  });

  await test.step('and on another machine, from the study file', async () => {
    const elsewhere = new Filum(await (await context.browser()!.newContext({ baseURL: 'http://localhost:4873' })).newPage());
    await elsewhere.page.goto('/');
    await elsewhere.page.getByLabel('Study file').setInputFiles(file);
    await expect(elsewhere.page.getByRole('heading', { name: 'What the bridge takes' })).toBeVisible();
    await elsewhere.read('2025-01-14 Moira');
    await expect(elsewhere.slips('Being asked')).toHaveCount(2);
    await elsewhere.page.context().close();
  });
});
