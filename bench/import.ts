import type { Page } from '@playwright/test';
import mammoth from 'mammoth';
import Papa from 'papaparse';
import { strToU8, zipSync } from 'fflate';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildLargeStudy, seededRandom } from '../core/sample/large-study';
import { report } from './report';

const WORD_FILES = 500;
const WORDS = 8_000;
const SURVEY = { rows: 10_000, columns: 20, questions: 4 };

/** A Word document as small as one can be, with these paragraphs. */
function wordFile(paragraphs: readonly string[]): Uint8Array {
  const body = paragraphs.map((text) => `<w:p><w:r><w:t xml:space="preserve">${text}</w:t></w:r></w:p>`).join('');
  return zipSync({
    '[Content_Types].xml': strToU8(
      '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
    ),
    '_rels/.rels': strToU8(
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
    ),
    'word/document.xml': strToU8(
      `<?xml version="1.0"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`,
    ),
  });
}

function surveyFile(words: readonly string[]): string {
  const random = seededRandom(5);
  const pick = (count: number): number => Math.floor(random() * count);
  const some = (count: number): string => Array.from({ length: count }, () => words[pick(words.length)]!).join(' ');
  const header = ['id', ...Array.from({ length: SURVEY.columns - SURVEY.questions - 1 }, (_, at) => `fact ${at + 1}`)];
  const questions = Array.from({ length: SURVEY.questions }, (_, at) => `What about ${at + 1}?`);
  const rows = Array.from({ length: SURVEY.rows }, (_, row) => [
    `R${row}`,
    ...header.slice(1).map((_, at) => (at % 2 ? String(pick(90)) : ['low', 'middle', 'high'][pick(3)]!)),
    ...questions.map(() => some(5 + pick(50))),
  ]);
  return Papa.unparse([[...header, ...questions], ...rows]);
}

/** Longest task on the main thread while something is done, and how long the whole took; milliseconds. */
async function watched(page: Page, action: () => Promise<void>): Promise<{ took: number; longest: number }> {
  await page.evaluate(() => {
    const tasks: number[] = [];
    (window as unknown as { tasks: number[] }).tasks = tasks;
    // handing files over is the browser driver's own task, in which the page's handler runs: of that only the handler counts
    let handedOver = -1;
    let begun = 0;
    document.addEventListener('change', () => (begun = performance.now()), { capture: true, once: true });
    window.addEventListener('change', () => tasks.push((handedOver = performance.now()) - begun), { once: true });
    new PerformanceObserver((list) => {
      for (const { startTime, duration } of list.getEntries())
        if (handedOver < startTime || handedOver > startTime + duration) tasks.push(duration);
    }).observe({ type: 'longtask' });
  });
  const begun = performance.now();
  await action();
  // looking for texts in the page would be a task of the driver's as well
  const took = performance.now() - begun;
  await page.waitForTimeout(300);
  return { took, longest: await page.evaluate(() => Math.max(0, ...(window as unknown as { tasks: number[] }).tasks)) };
}

const free = (longest: number) => ({ words: 'no task over 100 ms on the main thread', kept: longest <= 100 });

/** Bringing in many files and a large survey, beside the bare parsing libraries over the same files. */
export async function importing(page: Page, base: string, folder: string): Promise<void> {
  const [text] = [
    ...buildLargeStudy({ documents: 1, words: WORDS, passages: 0, codings: 0, codes: 1, cases: 0, attributes: 0 }).texts.values(),
  ];
  const paragraphs = text!.text.split('\n');
  mkdirSync(join(folder, 'words'), { recursive: true });
  const files = Array.from({ length: WORD_FILES }, (_, at) => {
    const path = join(folder, 'words', `interview ${at + 1}.docx`);
    const bytes = wordFile([`Interview ${at + 1}`, ...paragraphs]);
    writeFileSync(path, bytes);
    return { path, bytes };
  });
  const survey = surveyFile([...new Set(text!.text.split(/\s+/))].slice(0, 2_000));
  writeFileSync(join(folder, 'survey.csv'), survey);

  const bareBegun = performance.now();
  for (const { bytes } of files) await mammoth.convertToHtml({ buffer: Buffer.from(bytes) });
  const bareWords = performance.now() - bareBegun;
  const csvBegun = performance.now();
  Papa.parse(survey);
  const bareCsv = performance.now() - csvBegun;

  await page.goto(base);
  await page.getByRole('button', { name: /New study/ }).click();
  await page.getByLabel('Title of the study').fill('Bench');
  await page.getByLabel('Your name').fill('Ada');
  await page.getByRole('button', { name: 'Make the study' }).click();
  await page.getByRole('link', { name: 'Bring in' }).first().click();
  const reading = await watched(page, async () => {
    await page.getByLabel('Files to bring in').setInputFiles(files.map((file) => file.path));
    await page.getByRole('button', { name: `Bring in ${WORD_FILES} files` }).waitFor({ timeout: 600_000 });
    await page.locator('footer .do:enabled').waitFor({ timeout: 600_000 });
  });
  report({
    what: `reading ${WORD_FILES} Word files of ${WORDS.toLocaleString('en')} words for the preview`,
    value: reading.took / 1000,
    unit: 's',
    beside: { what: 'the Word library alone, in Node', value: bareWords / 1000 },
  });
  report({ what: 'longest task meanwhile', value: reading.longest, unit: 'ms', promise: free(reading.longest) });
  const storing = await watched(page, async () => {
    await page.getByRole('button', { name: `Bring in ${WORD_FILES} files` }).click();
    await page.waitForFunction(() => !location.pathname.endsWith('/import'), null, { timeout: 600_000 });
  });
  await page.getByText(`${WORD_FILES} documents are in`).waitFor();
  report({ what: 'storing them as one step', value: storing.took / 1000, unit: 's' });
  report({ what: 'longest task meanwhile', value: storing.longest, unit: 'ms', promise: free(storing.longest) });

  await page.getByRole('link', { name: 'Bring in' }).first().click();
  const planning = await watched(page, async () => {
    await page.getByLabel('Files to bring in').setInputFiles(join(folder, 'survey.csv'));
    await page.locator('.plan').waitFor({ timeout: 600_000 });
  });
  report({
    what: `reading and planning a survey of ${SURVEY.rows.toLocaleString('en')} rows × ${SURVEY.columns} columns`,
    value: planning.took / 1000,
    unit: 's',
    beside: { what: 'the CSV library alone, in Node', value: bareCsv / 1000 },
  });
  report({ what: 'longest task meanwhile', value: planning.longest, unit: 'ms', promise: free(planning.longest) });
  const [both, bareBoth] = [reading.took + planning.took, bareWords + bareCsv];
  report({
    what: 'all of these files, read and shown',
    value: both / 1000,
    unit: 's',
    beside: { what: 'the parsing libraries over the same files, in Node', value: bareBoth / 1000 },
    promise: { words: 'at most 1.5 ×', kept: both <= 1.5 * bareBoth },
  });
  const survived = await watched(page, async () => {
    await page.getByRole('button', { name: 'Bring in this table' }).click();
    await page.waitForFunction(() => !location.pathname.endsWith('/import'), null, { timeout: 600_000 });
  });
  await page.getByText(/10,000 documents/).waitFor();
  report({ what: 'storing its documents and cases as one step', value: survived.took / 1000, unit: 's' });
  report({ what: 'longest task meanwhile', value: survived.longest, unit: 'ms', promise: free(survived.longest) });
}
