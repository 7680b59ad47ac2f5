import { Filum } from './support/filum';
import { expect, test } from './support/one-sitting';

let filum: Filum;
test.beforeEach(({ page }) => {
  filum = new Filum(page);
});

test('writes beside the text: quotes the passage, links by @, keeps dated entries, and says what was edited or deleted', async ({
  page,
}) => {
  await filum.openDemo();
  await filum.read('Interview 03 – Shona Adair');
  await page.locator('.slip').first().click();
  await filum.text.focus();
  await page.keyboard.press('m');
  const desk = page.getByRole('region', { name: 'Writing' });
  await expect(desk).toContainText('about a passage in Interview 03');
  // the text stays in view beside it
  const [paper, words] = [(await desk.boundingBox())!, (await filum.text.boundingBox())!];
  expect(words.x + 300).toBeLessThan(paper.x);
  await page.getByLabel('Title', { exact: true }).fill('Help and the boat');
  await desk.getByRole('button', { name: 'quote the passage' }).click();
  await page.keyboard.type('What **kind** of worry: @worr');
  await page.getByRole('option', { name: /Worry/ }).waitFor();
  await page.keyboard.press('Enter');
  await page.keyboard.type('or none');
  await filum.accessible();
  await page.getByLabel('a question to come back to').check();
  await page.keyboard.press('Control+Enter');
  await expect(desk).toHaveCount(0);
  await filum.goTo('Memos');
  const sheet = page.getByRole('article', { name: 'Help and the boat' });
  await expect(sheet.locator('strong')).toHaveText('kind');
  await expect(sheet.locator('blockquote')).toContainText('Put it by the sharps bin');
  await expect(sheet).toContainText('Worry or none');
  await sheet.getByRole('button', { name: 'Write on' }).click();
  await page.getByLabel('Memo', { exact: true }).click();
  await page.keyboard.type('A second thought.');
  await desk.getByRole('button', { name: 'Keep' }).click();
  await expect(sheet.locator('.entry')).toHaveCount(2);
  await sheet.getByRole('link', { name: 'Worry' }).click();
  await expect(page.getByRole('heading', { name: 'Worry' })).toBeVisible();
  // the code goes: the link says so
  await page.locator('fl-code-page').getByRole('button', { name: 'Delete' }).click();
  await page.getByRole('button', { name: 'Delete the code' }).click();
  await filum.goTo('Memos');
  await expect(sheet).toContainText('(no longer there)');
  await page.getByRole('link', { name: /To come back to/ }).click();
  await expect(page.getByRole('region', { name: 'To come back to' })).toContainText('Help and the boat');
  await page.getByRole('button', { name: 'Answered' }).click();
  await expect(page.getByText('Nothing to come back to')).toBeVisible();
});

test('keeps what is being written through a crash, and nothing that was pasted can run', async ({ page }) => {
  await filum.newStudy();
  await page.keyboard.press('m');
  await page.getByLabel('Title', { exact: true }).fill('Half a thought');
  const paper = page.getByLabel('Memo', { exact: true });
  await paper.click();
  await page.keyboard.type('It is only the beginning');
  await expect.poll(() => page.evaluate(() => Object.values(localStorage).join())).toContain('It is only the beginning');
  await page.reload();
  await expect(paper).toContainText('It is only the beginning');
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Half a thought');
  await paper.click();
  await paper.evaluate((element) => {
    const data = new DataTransfer();
    data.setData(
      'text/html',
      '<h2 onclick="window.ran=1">Head</h2><script>window.ran=1</script><img src=x onerror="window.ran=1"><a href="javascript:window.ran=1">go</a>',
    );
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await page.getByRole('region', { name: 'Writing' }).getByRole('button', { name: 'Keep' }).click();
  await filum.goTo('Memos');
  const sheet = page.getByRole('article', { name: 'Half a thought' });
  await expect(sheet).toContainText('Head');
  expect(await page.evaluate(() => (window as { ran?: number }).ran)).toBeUndefined();
  expect(await sheet.evaluate((element) => element.innerHTML)).not.toMatch(/javascript:|onerror|<script/i);
  await filum.saved();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Writing' })).toHaveCount(0);
});

test('finds, filters, tags, reads on end, and takes memos out and in again', async ({ page }) => {
  await filum.openDemo();
  await filum.goTo('Memos');
  const left = page.locator('[data-memos-left]');
  await expect(left).toHaveText('16 memos');
  await page.getByLabel('Find in memos').fill('council');
  await expect.poll(async () => Number((await left.textContent())!.split(' ')[0])).toBeLessThan(16);
  await page.getByLabel('Find in memos').fill('');
  await expect(left).toHaveText('16 memos');
  await page.getByRole('button', { name: 'every kind' }).click();
  await page.getByRole('menuitem', { name: 'theory', exact: true }).click();
  await expect(left).not.toHaveText('16 memos');
  const theory = Number((await left.textContent())!.split(' ')[0]);
  expect(theory).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Choose all' }).click();
  await page.getByRole('button', { name: 'Tag…' }).click();
  await page.getByLabel('Tag', { exact: true }).fill('chapter 4');
  await page.getByRole('dialog').getByRole('button', { name: 'Tag', exact: true }).click();
  await page.getByRole('button', { name: 'theory', exact: true }).click();
  await page.getByRole('menuitem', { name: 'every kind' }).click();
  await page.getByRole('button', { name: 'any tag or none' }).click();
  await page.getByRole('menuitem', { name: 'chapter 4' }).click();
  await expect(left).toHaveText(`${theory} memos`);
  await page.getByRole('button', { name: 'Read on end' }).click();
  await expect(page.getByRole('article', { name: 'Memos on end' }).getByRole('heading')).toHaveCount(theory);
  await filum.accessible();
  const file = async (form: string) => {
    await page.getByRole('button', { name: 'Export' }).click();
    return filum.download(() => page.getByRole('menuitem', { name: new RegExp(`as ${form}`) }).click());
  };
  const book = await file('workbook');
  expect((await file('Word')).bytes.subarray(0, 2).toString()).toBe('PK');
  expect((await file('Markdown')).bytes.toString('utf8')).toContain('# People who can');
  await filum.newStudy('Elsewhere');
  await filum.goTo('Memos');
  await page.getByRole('link', { name: 'Bring in' }).click();
  await page.getByLabel('Memo files').setInputFiles([
    { name: 'memos.xlsx', mimeType: 'application/octet-stream', buffer: book.bytes },
    { name: 'note.md', mimeType: 'text/markdown', buffer: Buffer.from('# A note\n\nFrom a file.') },
  ]);
  await page.getByRole('button', { name: /Take over/ }).click();
  await expect(left).toHaveText(`${theory + 1} memos`);
  await expect(page.getByRole('list').getByText('chapter 4').first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('No memos yet')).toBeVisible();
});

test('links a memo to more things, and each thing shows it; a memo becomes a document', async ({ page }) => {
  await filum.openDemo();
  await filum.goTo('Memos');
  await page.getByRole('button', { name: /^Twenty-six times/ }).click();
  const sheet = page.getByRole('article', { name: 'Twenty-six times' });
  await sheet.getByRole('button', { name: 'link', exact: true }).click();
  await page.getByRole('menuitem', { name: 'to a code…' }).click();
  await page.getByRole('combobox', { name: 'Find a code' }).fill('counting');
  await page.keyboard.press('Enter');
  await sheet.getByRole('button', { name: 'Counting the fare', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Memos' })).toContainText('Twenty-six times');
  await filum.goTo('Memos');
  await page.getByRole('button', { name: /^Twenty-six times/ }).click();
  await sheet.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: /make a document/ }).click();
  await sheet.getByRole('button', { name: 'Twenty-six times', exact: true }).click();
  await expect(filum.text).toContainText('In January she had me write down');
});

test('the log reads as sentences by day, filtered, with own entries, what was there then, and as an appendix', async ({ page }) => {
  await filum.openDemo();
  await filum.read('Interview 03 – Shona Adair');
  await filum.code('I answered an advert', 'Worry');
  await filum.code('Nine years in March', 'Grief');
  await filum.goTo('Memos');
  await page.getByRole('link', { name: 'Log', exact: true }).click();
  const log = page.getByRole('region', { name: 'Log entries' });
  await log.getByRole('button', { name: /worked on passages 2 times in 1 document/ }).click();
  await expect(log.getByText(/coded a passage in Interview 03 – Shona Adair with Grief/)).toBeVisible();
  await page.getByRole('button', { name: 'any code', exact: true }).click();
  await page.getByRole('combobox', { name: 'Find a code' }).fill('worry');
  await page.keyboard.press('Enter');
  await expect(log).toContainText('with Worry');
  await expect(log).not.toContainText('with Grief');
  await page.getByRole('button', { name: 'Worry', exact: true }).click();
  await page.getByRole('option', { name: 'any code' }).click();
  await page.getByRole('button', { name: 'Own entry' }).click();
  await page.getByLabel(/What was decided/).fill('We keep Worry for what is to come.');
  await page.getByLabel('Tags, with commas between').fill('decision');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(log).toContainText('We keep Worry for what is to come.');
  await filum.accessible();
  await page.getByLabel('The study at the end of a day').fill('2026-01-01');
  await expect(page.getByRole('region', { name: 'The study then' })).toContainText('1,173 passages with 1,551 codings');
  await page.getByRole('button', { name: 'Export' }).click();
  const csv = await filum.download(() => page.getByRole('menuitem', { name: 'what is shown as CSV' }).click());
  const lines = csv.bytes.toString('utf8').trim().split('\r\n');
  expect(lines.some((line) => line.includes('own entry') && line.includes('decision'))).toBe(true);
  expect(lines.filter((line) => line.includes('coded a passage'))).toHaveLength(2);
});
