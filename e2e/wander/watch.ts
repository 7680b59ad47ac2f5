import { expect, type BrowserContext, type Page } from '@playwright/test';
import { readStudyFile } from '../../core/formats/study-file/read-study-file';
import type { StudyBundle } from '../../core/formats/study-file/bundle';
import { TABLE_TYPES } from '../../core/model/records';
import { unpackPassages } from '../../core/passages/columns';
import { openAsBlob } from 'node:fs';

/** What must never happen, seen in any tab of the browser. */
export class Complaints {
  private readonly heard: string[] = [];

  listenTo(page: Page): void {
    page.on('console', (message) => {
      // a refused save is the wanderer's own doing
      if (message.type() === 'error' && !/QuotaExceeded/.test(message.text())) this.heard.push(`console: ${message.text()}`);
    });
    page.on('pageerror', (error) => this.heard.push(`error: ${error.stack ?? error.message}`));
  }

  /** @throws Error with what was complained of since the last time */
  check(): void {
    if (this.heard.length > 0) throw new Error(this.heard.splice(0).join('\n').slice(0, 4_000));
  }
}

/** A second tab that only exports: what it takes out of the study must open, hold together and be what is on the disk. */
export class Onlooker {
  private constructor(private readonly page: Page) {}

  static async open(context: BrowserContext, complaints: Complaints, studyUrl: string): Promise<Onlooker> {
    const page = await context.newPage();
    complaints.listenTo(page);
    await page.goto(`${studyUrl}/write-up`);
    await expect(page.getByRole('button', { name: 'Export the study file' })).toBeEnabled();
    return new Onlooker(page);
  }

  /** The study as its file has it. @throws if it does not open, does not hold together, or is not what is stored */
  async study(): Promise<StudyBundle> {
    const { page } = this;
    const waiting = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Export the study file' }).click();
    const download = await waiting;
    const bundle = await readStudyFile(await openAsBlob(await download.path()));
    await download.delete();
    await expect(page.getByRole('button', { name: 'Export the study file' })).toBeEnabled();
    const stored = await page.evaluate(readTables, [...TABLE_TYPES]);
    for (const type of TABLE_TYPES)
      expect(stored[type], `the file holds the ${type} records on the disk`).toEqual(sorted(Object.values(bundle.state.tables[type])));
    return bundle;
  }

  close(): Promise<void> {
    return this.page.close();
  }
}

/** All small records of the one study there is, by type, in the order of their ids. Runs in the page. */
async function readTables(types: string[]): Promise<Record<string, unknown[]>> {
  const name = location.pathname.split('/')[2];
  const db = await new Promise<IDBDatabase>((resolve, reject) => {
    const opening = indexedDB.open(`filum-study-${name}`);
    opening.onsuccess = () => resolve(opening.result);
    opening.onerror = () => reject(opening.error);
  });
  const tables: Record<string, unknown[]> = {};
  for (const type of types) {
    tables[type] = await new Promise((resolve, reject) => {
      const asking = db.transaction(type).objectStore(type).getAll();
      asking.onsuccess = () => resolve(asking.result);
      asking.onerror = () => reject(asking.error);
    });
  }
  db.close();
  return tables;
}

const sorted = (records: readonly { readonly id: string }[]): unknown[] =>
  JSON.parse(JSON.stringify([...records].sort((a, b) => (a.id < b.id ? -1 : 1)))) as unknown[];

/** Everything of a study but its journal, as one text: the same study is the same text. */
export function wholeOf({ state, texts }: StudyBundle): string {
  const byId = (records: object): unknown => sorted(Object.values(records) as { id: string }[]);
  return JSON.stringify({
    study: state.study,
    tables: Object.fromEntries(TABLE_TYPES.map((type) => [type, byId(state.tables[type])])),
    passages: Object.values(state.passages)
      .sort((a, b) => (a.documentId < b.documentId ? -1 : 1))
      .map((columns) => unpackPassages(columns)),
    texts: byId(Object.fromEntries(texts)),
  });
}

/** Where two studies begin to differ, for the report. */
export function difference(before: string, after: string): string | null {
  if (before === after) return null;
  let at = 0;
  while (before[at] === after[at]) at++;
  return `before: …${before.slice(Math.max(0, at - 200), at + 200)}…\nafter: …${after.slice(Math.max(0, at - 200), at + 200)}…`;
}
