import type { Page } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { studyFileOf } from './study-file';
import { buildLargeStudy, LONG_DOCUMENT } from '../core/sample/large-study';
import { unpackPassages } from '../core/passages/columns';
import type { Code } from '../core/model/code';
import type { Table } from '../core/model/study-state';
import { cutSegments, layThreads, type Segment } from '../core/passages/threads';
import { LANES } from '../app/styles/palette-sheet';
import type { BareMark } from './browser/bare';
import { Gauge } from './gauge';
import { median, percentile, report } from './report';
import type { Watched } from './seen';
import { openFile, timed } from './timing';

/** Opening and coding a document of 137,000 words with 4,000 passages, beside CodeMirror alone. */
export async function longDocument(page: Page, base: string, folder: string): Promise<void> {
  // two alike, so that each opening is of another document than the one before
  const { documents, words, passages, codings } = LONG_DOCUMENT;
  const study = buildLargeStudy({
    ...LONG_DOCUMENT,
    documents: 2 * documents,
    words: 2 * words,
    passages: 2 * passages,
    codings: 2 * codings,
  });
  const path = join(folder, 'long.filum');
  writeFileSync(path, await studyFileOf(study));
  const [text] = [...study.texts.values()];
  const [columns] = Object.values(study.state.passages);
  const marks = cutSegments(layThreads(unpackPassages(columns!))).map((segment): BareMark => ({
    start: segment.start,
    end: segment.end,
    look: lookOf(segment, study.state.tables.code),
  }));

  await openFile(page, base, path, study.state.study.title);
  const bare = await page.context().newPage();
  await bare.goto(`${base}/bench/bare.html`);
  // a page in the background is painted once a second
  await page.bringToFront();
  await openAnother(page, 0);
  await page.waitForTimeout(1_000);
  const gauge = await Gauge.of(page);
  const ours = await gauge.samples('opening', 24, async (run) => {
    await page.waitForTimeout(300);
    return openAnother(page, run + 1);
  });
  await bare.bringToFront();
  const bareGauge = await Gauge.of(bare);
  const theirs = await bareGauge.samples('opening in bare CodeMirror', 24, () =>
    bare.evaluate(
      ([doc, all]) => (window as unknown as { bare: { open: (text: string, marks: unknown) => Promise<number> } }).bare.open(doc, all),
      [text!.text, marks] as const,
    ),
  );
  // the first opening loads the place itself; the promise is about documents
  const [open, besides] = [median(ours), median(theirs)];
  report({
    what: 'opening a document of 137,000 words with 4,000 passages',
    value: open,
    unit: 'ms',
    beside: { what: 'bare CodeMirror, same marks', value: besides },
    promise: { words: 'at most 2 ×', kept: open <= 2 * besides },
  });
  const openingP95 = percentile(ours, 0.95);
  report({
    what: '…95th percentile',
    value: openingP95,
    unit: 'ms',
    beside: { what: 'bare CodeMirror, same marks', value: percentile(theirs, 0.95) },
    promise: { words: 'under 50 ms', kept: openingP95 < 50 },
  });

  const extra = { start: 40, end: 60, look: 'thread t0' };
  const bareMark = await bareGauge.samples('a mark in bare CodeMirror', 40, (run) =>
    bare.evaluate((one) => (window as unknown as { bare: { addMark: (one: unknown) => Promise<number> } }).bare.addMark(one), {
      ...extra,
      end: 60 + run,
    }),
  );
  // a page in the background is not painted
  await page.bringToFront();
  const times = await applyCodes(page, gauge);
  const p95 = percentile(times, 0.95);
  report({
    what: 'applying a code there, key to painted, median',
    value: median(times),
    unit: 'ms',
    beside: { what: 'one more mark in bare CodeMirror', value: median(bareMark) },
  });
  report({
    what: 'applying a code there, key to painted, 95th percentile',
    value: p95,
    unit: 'ms',
    beside: { what: 'one more mark in bare CodeMirror', value: percentile(bareMark, 0.95) },
    promise: { words: 'under 50 ms', kept: p95 < 50 },
  });
  const size = await page.evaluate(async () => {
    const name = `filum-study-${location.pathname.split('/')[2]}`;
    const db = await new Promise<IDBDatabase>(
      (resolve) => (indexedDB.open(name).onsuccess = (event) => resolve((event.target as IDBOpenDBRequest).result)),
    );
    const entry = await new Promise<unknown>(
      (resolve) =>
        (db.transaction('journal').objectStore('journal').openCursor(null, 'prev').onsuccess = (event) =>
          resolve((event.target as IDBRequest<IDBCursorWithValue>).result?.value)),
    );
    db.close();
    return JSON.stringify(entry).length;
  });
  report({ what: 'what one coding adds to the journal', value: size, unit: 'characters' });
  await handling(page, gauge, percentile(bareMark, 0.95));
  await bare.close();
  await page.close();
}

/** The classes that Filum gives a segment. */
function lookOf(segment: Segment, codes: Table<Code>): string {
  const lanes = segment.threads.filter((thread) => thread.lane < LANES);
  return `thread d${Math.max(1, ...lanes.map((thread) => thread.lane + 1))} ${lanes.map((thread) => `t${thread.lane}-c${codes[thread.codeId]!.colour}`).join(' ')}`;
}

/** The other things that hands do all day in the long document; each beside the bare editor's one more mark. */
async function handling(page: Page, gauge: Gauge, bare: number): Promise<void> {
  const beside = { what: 'one more mark in bare CodeMirror, 95th percentile', value: bare };
  const tell = (what: string, times: readonly number[]): void => {
    const p95 = percentile(times, 0.95);
    report({ what: `${what}, 95th percentile`, value: p95, unit: 'ms', beside, promise: { words: 'under 50 ms', kept: p95 < 50 } });
  };
  const press = (key: string): Promise<number> => timed(page, 'keydown', () => page.keyboard.press(key));
  const many = (count: number, act: (run: number) => Promise<number>): Promise<number[]> =>
    gauge.samples('  this', count, async (run) => {
      await page.waitForTimeout(60);
      return act(run);
    });
  await page.locator('.cm-content').focus();
  await page.keyboard.press(']');
  tell('moving an end of a passage there', await many(30, (run) => press(run % 2 ? 'Alt+ArrowLeft' : 'Alt+ArrowRight')));
  tell(
    'removing a passage there',
    await many(30, async () => {
      await page.keyboard.press(']');
      await page.waitForTimeout(30);
      return press('Delete');
    }),
  );
  tell('jumping to the end and back', await many(20, (run) => press(run % 2 ? 'Control+Home' : 'Control+End')));
  await page.getByRole('button', { name: 'View', exact: true }).click();
  tell(
    'dimming what is coded, and back',
    await many(20, (run) => timed(page, 'click', () => page.getByRole('radio', { name: run % 2 ? 'as they are' : 'dimmed' }).click())),
  );
  await page.keyboard.press('Escape');
  await page.locator('.cm-content').focus();
  await page.keyboard.press('c');
  tell('a letter in the code picker, 500 codes', await many(24, (run) => press(run % 8 === 7 ? 'Control+a' : 'synthet'[run % 8]!)));
  await page.keyboard.press('Escape');

  const dropped = await page.evaluate(async () => {
    const scroller = document.querySelector('.cm-scroller')!;
    let late = 0;
    let frames = 0;
    let last = await new Promise<number>((resolve) => requestAnimationFrame(resolve));
    for (let run = 0; run < 240; run++) {
      scroller.scrollTop += 60;
      const now = await new Promise<number>((resolve) => requestAnimationFrame(resolve));
      frames++;
      // a frame that came after the next one was due
      if (now - last > 25) late += Math.round((now - last) / 16.7) - 1;
      last = now;
    }
    return late / (frames + late);
  });
  report({
    what: 'frames dropped while scrolling',
    value: 100 * dropped,
    unit: '%',
    promise: { words: 'at most 2 %', kept: dropped <= 0.02 },
  });
}

/** Codes one stretch after another by key; times from the key event to the frame that shows the thread. */
async function applyCodes(page: Page, gauge: Gauge): Promise<number[]> {
  await page
    .locator('.cm-line')
    .nth(1)
    .click({ position: { x: 200, y: 15 } });
  await page.keyboard.press('c');
  await page.keyboard.type('Synthetic code 7');
  await page.keyboard.press('Enter');
  return gauge.samples('applying', 60, async () => {
    // where the words carry the code already nothing is coded: the next ones are taken
    for (let tries = 0; tries < 5; tries++) {
      await page.keyboard.press('ArrowRight');
      for (let at = 0; at < 3; at++) await page.keyboard.press('Shift+ArrowRight');
      const before = await page.locator('[data-passages]').textContent();
      const took = await timed(page, 'keydown', () => page.keyboard.press('.'));
      if ((await page.locator('[data-passages]').textContent()) !== before) return took;
    }
    throw new Error('Five keys coded nothing: the measurement is void.');
  });
}

/** Opens one of the two documents from the overview. @returns milliseconds from the click to its painted words */
async function openAnother(page: Page, run: number): Promise<number> {
  await page.getByRole('link', { name: 'Overview' }).click();
  await page.locator('.lines a').first().waitFor();
  await page.waitForTimeout(200);
  return page.evaluate(async (nth) => {
    const link = document.querySelectorAll<HTMLAnchorElement>('.lines a')[nth]!;
    const title = link.textContent!.trim();
    return (window as unknown as Watched).painted(
      () => link.click(),
      () =>
        document.querySelector('.cm-line .thread, .cm-line.turn') !== null &&
        title.startsWith(document.querySelector('.cm-content')!.getAttribute('aria-label')!.slice('Text of '.length)),
    );
  }, run % 2);
}
