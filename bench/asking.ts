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

/** Words over eight million of them, in the place where they are looked for: until the first are painted, a newer search, a long list. */
export async function asking(page: Page, base: string, folder: string): Promise<void> {
  const study = buildLargeStudy({ ...LARGE, passages: 4_000, codings: 6_000 });
  const path = join(folder, 'words.filum');
  writeFileSync(path, await studyFileOf(study));
  await openFile(page, base, path, study.state.study.title);
  await page.getByRole('link', { name: 'Queries', exact: true }).click();
  await page.getByRole('link', { name: 'Words', exact: true }).click();
  const [first, second] = commonWords(
    [...study.texts.values()].slice(0, 5).flatMap(({ text, paragraphs }) => paragraphs.map(({ body, end }) => text.slice(body, end))),
  );
  // what is compiled to be run in the page names its functions by this, and the page has none
  await page.evaluate('globalThis.__name = (one) => one');
  const search = page.getByLabel('Words to look for');
  await search.fill(first!);
  await found(page);

  const painted: number[] = [];
  for (let run = 0; run < RUNS; run++) painted.push(await untilFound(page, run % 2 === 0 ? second! : first!));
  const resting = median(painted);
  report({
    what: 'from the last key to the first hits painted, over 8 million words (40 ms of rest among it)',
    value: resting,
    unit: 'ms',
    promise: { words: 'within 100 ms', kept: resting <= 100 },
  });

  const newer: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    // asks of every word whether it holds another: the longest there is
    await page
      .getByRole('button', { name: 'whole words' })
      .or(page.getByRole('button', { name: 'parts of words' }))
      .first()
      .click();
    await page.getByRole('menuitem', { name: 'parts of words' }).click();
    await search.fill(`${first![0]} or ${second![1]}`);
    await page.waitForTimeout(90);
    newer.push(await untilFound(page, run % 2 === 0 ? second! : first!));
  }
  report({
    what: 'the same while another search runs, which ends for it',
    value: median(newer),
    unit: 'ms',
    beside: { what: 'while none runs', value: resting },
    promise: { words: 'at most 50 ms more', kept: median(newer) - resting <= 50 },
  });

  await search.fill(`${first} or ${second}`);
  await page.waitForTimeout(4_000);
  const { shown, dropped, bare } = await scrolled(page, '.hits cdk-virtual-scroll-viewport', '[role=listitem]', 'down');
  report({
    what: `frames dropped while ${await page.locator('[data-summary]').textContent()} scroll by the wheel, of ${shown + dropped}`,
    value: dropped,
    unit: 'frames',
    promise: { words: 'none dropped', kept: dropped === 0 },
  });
  report({ what: 'and frames in which no hit stood yet where hits come', value: bare, unit: 'frames' });
}

const found = (page: Page) => page.locator('[role=listitem] mark').first().waitFor({ timeout: 60_000 });

/** Types other words and waits until the first hits of them are painted. @returns milliseconds */
const untilFound = (page: Page, words: string): Promise<number> =>
  page.evaluate(
    (typed) =>
      new Promise<number>((resolve) => {
        const box = document.querySelector<HTMLInputElement>('.asked input')!;
        box.value = typed;
        const begun = performance.now();
        box.dispatchEvent(new Event('input', { bubbles: true }));
        const look = (): void => {
          const mark = document.querySelector('[role=listitem] mark');
          if (mark?.textContent.toLowerCase() === typed.toLowerCase())
            requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - begun)));
          else requestAnimationFrame(look);
        };
        look();
      }),
    words,
  );

/** Two words that come often; labels of speakers are not looked through. */
function commonWords(texts: readonly string[]): string[] {
  const counts = new Map<string, number>();
  for (const text of texts) for (const [word] of text.toLowerCase().matchAll(/[a-z]{4,}/g)) counts.set(word, (counts.get(word) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1]).map(([word]) => word);
}
