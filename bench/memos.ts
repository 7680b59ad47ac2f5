import type { Page } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { studyFileOf } from './study-file';
import { sequentialIds, type Id } from '../core/model/ids';
import { DIGEST_SPAN } from '../core/log/digest';
import type { Memo } from '../core/model/memo';
import { buildLargeStudy, LARGE, seededRandom } from '../core/sample/large-study';
import { Gauge } from './gauge';
import { report, reportSpread } from './report';
import { openFile, timed } from './timing';

const MEMOS = 20_000;
const ENTRIES = 1_000_000;
const WORDS = ['ferry', 'bridge', 'queue', 'help', 'night', 'fare', 'grief', 'council', 'doors', 'school', 'island', 'boat'];

/** 20,000 memos and a log of 1,000,000 entries: listed, filtered and searched. */
export async function memosAndLog(page: Page, base: string, folder: string): Promise<void> {
  const study = buildLargeStudy({ ...LARGE, documents: 20, words: 40_000, passages: 400, codings: 600, codes: 100, cases: 20 });
  const random = seededRandom(4);
  const newId = sequentialIds(77);
  const coders = Object.keys(study.state.tables.coder);
  const words = (count: number): string => Array.from({ length: count }, () => WORDS[Math.floor(random() * WORDS.length)]!).join(' ');
  const memos: Record<Id, Memo> = {};
  for (let at = 0; at < MEMOS; at++) {
    const id = newId();
    const writtenAt = Date.UTC(2024, 0, 1) + at * 60_000;
    const entries = [{ id: newId(), writtenAt, coderId: coders[at % coders.length]!, text: words(80) }];
    memos[id] = {
      id,
      title: `Memo ${at} ${words(3)}`,
      kind: ['analytic', 'method', 'theory'][at % 3]!,
      about: null,
      entries,
      createdAt: writtenAt,
    };
  }
  const path = join(folder, 'memos.filum');
  const state = { ...study.state, tables: { ...study.state.tables, memo: memos } };
  writeFileSync(path, await studyFileOf({ ...study, state }));
  await openFile(page, base, path, study.state.study.title);
  const codes = Object.keys(study.state.tables.code);

  await fillJournal(page, coders, codes);
  await page.reload();
  await page.getByRole('link', { name: 'Memos', exact: true }).waitFor();
  const gauge = await Gauge.of(page);
  const plain = await gauge.samples('the plain query', 20, () => plainQuery(page));
  const tell = (what: string, times: readonly number[]): void =>
    reportSpread(what, times, { what: 'a plain indexed query of 150 entries', times: plain }, 100);

  await page.getByRole('link', { name: 'Memos', exact: true }).click();
  await page.locator('[data-memos-left]').waitFor();
  const find = page.getByLabel('Find in memos');
  await find.click();
  await page.keyboard.type('x');
  await page.keyboard.press('Backspace');
  tell(
    'a letter in the search of 20,000 memos',
    await gauge.samples('typing', 28, async (run) => {
      await page.waitForTimeout(80);
      return timed(page, 'keydown', () => page.keyboard.press(run % 7 === 6 ? 'Control+a' : 'bridge'[run % 7]!));
    }),
  );
  await find.fill('');
  tell(
    'another kind of memos',
    await gauge.samples('kinds', 14, async (run) => {
      await page.waitForTimeout(150);
      await page.locator('.sentence .part').first().click();
      return timed(page, 'click', () => page.getByRole('menuitem', { name: run % 2 ? 'every kind' : 'theory', exact: true }).click());
    }),
  );

  await page.getByRole('link', { name: /^Log/ }).click();
  const opened = Date.now();
  await page.locator('li time').first().waitFor();
  while ((await digests(page)) < Math.floor(ENTRIES / DIGEST_SPAN)) await page.waitForTimeout(1_000);
  report({ what: 'a log that was never opened made ready for finding, in the background', value: (Date.now() - opened) / 1000, unit: 's' });
  // they are read from disk once, with the first look for something
  await page.reload();
  await page.locator('li time').first().waitFor();
  report({
    what: 'the first look for something in it',
    value: await untilListed(page, () => page.getByLabel('Find in the log').fill('rare 0')),
    unit: 'ms',
  });
  await page.getByLabel('Find in the log').fill('');
  await page.waitForTimeout(500);
  const byCoder = await gauge.samples('by coder', 14, async (run) => {
    await page.locator('.bar .part').first().click();
    return untilListed(page, () =>
      page
        .getByRole('menuitem')
        .nth(1 + (run % 2))
        .click(),
    );
  });
  tell('another coder in a log of 1,000,000 entries', byCoder);
  await page.locator('.bar .part').first().click();
  await page.getByRole('menuitem').first().click();
  const box = page.getByLabel('Find in the log');
  const search = (words: (run: number) => string): Promise<number[]> =>
    gauge.samples('finding', 14, async (run) => {
      await box.fill('');
      await page.waitForTimeout(400);
      return untilListed(page, () => box.fill(words(run)));
    });
  tell('a word in the log that one entry in twelve has', await search((run) => WORDS[run % WORDS.length]!));
  tell('words that one entry in a hundred thousand has', await search((run) => `rare ${run % 3}`));
  await page.close();
}

/** Writes entries straight into the journal of the open study, which would take days by hand. */
async function fillJournal(page: Page, coders: readonly Id[], codes: readonly Id[]): Promise<void> {
  await page.evaluate(
    async ({ total, coders, codes, words }) => {
      const name = `filum-study-${location.pathname.split('/')[2]}`;
      const db = await new Promise<IDBDatabase>(
        (resolve) => (indexedDB.open(name).onsuccess = (event) => resolve((event.target as IDBOpenDBRequest).result)),
      );
      for (let from = 1; from <= total; from += 20_000) {
        const transaction = db.transaction('journal', 'readwrite', { durability: 'relaxed' });
        const store = transaction.objectStore('journal');
        for (let seq = from; seq < Math.min(from + 20_000, total + 1); seq++)
          store.put({
            seq,
            at: 1.7e12 + seq * 20_000,
            coderId: coders[seq % coders.length],
            kind: 'note',
            of: null,
            sentence: `coded a passage about the ${words[seq % words.length]}${seq % 100_000 < 3 ? ` rare ${seq % 3}` : ''}`,
            change: [],
            touches: [`coding:${codes[seq % codes.length]}`],
          });
        await new Promise((resolve) => (transaction.oncomplete = resolve));
      }
      const transaction = db.transaction('meta', 'readwrite');
      transaction.objectStore('meta').put({ key: 'history', value: { seq: total, undo: [], redo: [] } });
      await new Promise((resolve) => (transaction.oncomplete = resolve));
      db.close();
    },
    { total: ENTRIES, coders: [...coders], codes: [...codes], words: WORDS },
  );
}

/** How many digests of the journal there are. */
const digests = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const name = `filum-study-${location.pathname.split('/')[2]}`;
    const db = await new Promise<IDBDatabase>(
      (resolve) => (indexedDB.open(name).onsuccess = (event) => resolve((event.target as IDBOpenDBRequest).result)),
    );
    const count = await new Promise<number>(
      (resolve) =>
        (db.transaction('logDigest').objectStore('logDigest').count().onsuccess = (event) =>
          resolve((event.target as IDBRequest<number>).result)),
    );
    db.close();
    return count;
  });

/** Milliseconds to read the newest 150 entries by the index of time, and nothing else. */
const plainQuery = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const name = `filum-study-${location.pathname.split('/')[2]}`;
    const db = await new Promise<IDBDatabase>(
      (resolve) => (indexedDB.open(name).onsuccess = (event) => resolve((event.target as IDBOpenDBRequest).result)),
    );
    const begun = performance.now();
    await new Promise<void>((resolve) => {
      let count = 0;
      db.transaction('journal').objectStore('journal').index('at').openCursor(null, 'prev').onsuccess = (event) => {
        const cursor = (event.target as IDBRequest<IDBCursorWithValue | null>).result;
        if (!cursor || ++count >= 150) resolve();
        else cursor.continue();
      };
    });
    const took = performance.now() - begun;
    db.close();
    return took;
  });

/** Milliseconds from an action to a log that was listed anew and painted. */
async function untilListed(page: Page, act: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const region = document.querySelector('[aria-label="Log entries"]')!;
    (window as unknown as { listed: Promise<number> }).listed = new Promise((resolve) => {
      let begun = 0;
      for (const event of ['click', 'input'])
        document.addEventListener(event, (one) => (begun ||= one.timeStamp), { capture: true, once: true });
      new MutationObserver((_, observer) => {
        if (!begun) return;
        observer.disconnect();
        requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - begun)));
      }).observe(region, { childList: true, subtree: true, characterData: true });
    });
  });
  await act();
  return page.evaluate(() => (window as unknown as { listed: Promise<number> }).listed);
}
