import type { Page } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildLargeStudy, LARGE } from '../core/sample/large-study';
import { scrolled } from './frames';
import { median, report } from './report';
import { studyFileOf } from './study-file';
import { openFile } from './timing';

/** Runs of what is timed more than once. */
const RUNS = 9;

/** What is compiled to be run in a page names its functions by this, and a page has none. */
const NAMES_OF_FUNCTIONS = 'globalThis.__name = (one) => one';

/** The table of all codes in all documents of the large study, on the screen: until it is painted, and scrolled both ways. */
export async function openTable(page: Page, base: string, folder: string): Promise<void> {
  const study = buildLargeStudy(LARGE);
  const path = join(folder, 'patterns.filum');
  writeFileSync(path, await studyFileOf(study));
  await openFile(page, base, path, study.state.study.title);
  await page.evaluate(NAMES_OF_FUNCTIONS);
  const begun = Date.now();
  await page.getByRole('link', { name: 'Patterns', exact: true }).click();
  await page.getByRole('gridcell').first().waitFor({ timeout: 120_000 });
  report({ what: 'the first table of 500 codes in 1,000 documents, worker start included', value: Date.now() - begun, unit: 'ms' });

  const painted: number[] = [];
  for (let run = 0; run < RUNS; run++) painted.push(await untilCounted(page, run % 2 === 0 ? 'codings' : 'passages'));
  report({ what: 'from another count asked for to its table painted', value: median(painted), unit: 'ms' });

  const bare = await page.context().newPage();
  await bare.setContent(bareTable());
  await bare.evaluate(NAMES_OF_FUNCTIONS);
  for (const way of ['down', 'across'] as const) {
    await bare.bringToFront();
    const theirs = await scrolled(bare, 'div', 'td', way);
    await page.bringToFront();
    const { shown, dropped, bare: empty } = await scrolled(page, 'fl-number-table .view', '.cell', way);
    report({
      what: `frames dropped while the table scrolls ${way} by the wheel, of ${shown + dropped}`,
      value: dropped,
      unit: 'frames',
      beside: {
        what: `a plain table of 230 × 230 numbers, drawn as a whole before, of ${theirs.shown + theirs.dropped}`,
        value: theirs.dropped,
      },
      promise: { words: 'none dropped', kept: dropped === 0 },
    });
    report({ what: 'and frames in which nothing stood yet where numbers come', value: empty, unit: 'frames' });
  }
  await bare.close();
}

/** Numbers with headings that stay in their place, by the browser alone: as far as a hundred frames come. */
function bareTable(): string {
  const numbers = Array.from({ length: 230 }, (_, at) => at);
  const heads = numbers.map((at) => `<th style="position: sticky; top: 0; background: white">${at}`).join('');
  const row = (at: number): string =>
    `<tr><th style="position: sticky; left: 0; background: white">${at}${numbers.map((column) => `<td>${at * column}`).join('')}`;
  return `<!doctype html><style>th, td { min-width: 36px; height: 22px; padding: 0 }</style>
    <div style="overflow: auto; width: 1200px; height: 660px; background: white"><table><tr><th>${heads}${numbers.map(row).join('')}</table></div>`;
}

/** Counts something else, and waits until the total of all is another and painted. @returns milliseconds from the choice */
async function untilCounted(page: Page, counting: 'codings' | 'passages'): Promise<number> {
  await page.getByRole('button', { name: /^(codings|passages)$/ }).click();
  await page.getByRole('menuitem', { name: counting, exact: true }).waitFor();
  return page.evaluate(
    (wanted) =>
      new Promise<number>((resolve) => {
        const shown = (): string => [...document.querySelectorAll('[role=gridcell]')].map((one) => one.textContent).join();
        const before = shown();
        const entry = [...document.querySelectorAll<HTMLElement>('[role=menuitem]')].find((one) => one.textContent.trim() === wanted)!;
        const begun = performance.now();
        entry.click();
        const look = (): void => {
          if (shown() !== before) requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - begun)));
          else requestAnimationFrame(look);
        };
        look();
      }),
    counting,
  );
}
