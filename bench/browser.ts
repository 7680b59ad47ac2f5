import { chromium, type Page } from '@playwright/test';
import { build } from 'esbuild';
import express from 'express';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { studyFileOf } from './study-file';
import { buildLargeStudy, LARGE } from '../core/sample/large-study';
import { paletteCss } from '../app/styles/palette-sheet';
import { createApp } from '../server/app';
import { asking } from './asking';
import { importing } from './import';
import { codebookWork } from './codebook';
import { longDocument } from './long-document';
import { media } from './media';
import { memosAndLog } from './memos';
import { BUSY, Gauge } from './gauge';
import { median, report } from './report';
import { openTable } from './open-table';
import { watchable, type Watched } from './seen';
import { openFile } from './timing';
import { chromiumHere } from '../scripts/browser.cjs';

const FLAGS = ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'];

/** The promises made for the browser, measured on the production build. @param only one part: first, long, leak, import, codebook, memos, media, asking, patterns or large */
export async function benchBrowser(only?: string): Promise<void> {
  console.log('\nIn Chromium, production build');
  const bundle = await build({ entryPoints: ['bench/browser/bare.ts'], bundle: true, write: false, format: 'iife', minify: true });
  const list = await build({
    entryPoints: ['bench/browser/bare-list.ts'],
    bundle: true,
    write: false,
    format: 'iife',
    minify: true,
    tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } },
  });
  const sound = await build({ entryPoints: ['bench/browser/bare-sound.ts'], bundle: true, write: false, format: 'iife', minify: true });
  const app = express();
  app.get('/bench/bare.html', (_request, response) => void response.type('html').send(barePage()));
  app.get('/bench/bare.js', (_request, response) => void response.type('js').send(bundle.outputFiles[0]!.text));
  app.get('/bench/list.html', (_request, response) => void response.type('html').send(listPage()));
  app.get('/bench/list.js', (_request, response) => void response.type('js').send(list.outputFiles[0]!.text));
  app.get('/bench/sound.js', (_request, response) => void response.type('js').send(sound.outputFiles[0]!.text));
  app.use(createApp('dist/app/browser'));
  const server = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  console.log(BUSY);
  try {
    for (const [name, measure] of Object.entries({
      first: firstLoad,
      long: longDocument,
      leak: leaking,
      import: importing,
      codebook: codebookWork,
      memos: memosAndLog,
      media,
      asking,
      patterns: openTable,
      large: largeStudy,
    }))
      if (!only || only === name) await inNewBrowser((page, profile) => measure(page, base, profile));
  } finally {
    server.close();
  }
}

/** Every part has a browser of its own: it finds no study, no cache and no heap that another part has left. */
async function inNewBrowser(measure: (page: Page, profile: string) => Promise<void>): Promise<void> {
  const profile = mkdtempSync(join(tmpdir(), 'filum-bench-'));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: chromiumHere(),
    args: FLAGS,
    viewport: { width: 1280, height: 800 },
  });
  await watchable(context);
  try {
    await measure(await context.newPage(), profile);
  } finally {
    await context.close();
    rmSync(profile, { recursive: true, force: true });
  }
}

/** The bare page has Filum's type and draws the marks as Filum does: the comparison is about everything else. */
function barePage(): string {
  const styles = readdirSync('dist/app/browser').find((name) => /^styles-.*\.css$/.test(name))!;
  const depths = [1, 2, 3, 4, 5, 6, 7, 8].map((depth) => {
    const lanes = Array.from({ length: depth }, (_, lane) => lane);
    return `.thread.d${depth}{background-image:${lanes.map((lane) => `linear-gradient(var(--t${lane},transparent) 0 100%)`).join()};background-position:${lanes.map((lane) => `0 calc(100% - ${26 - 4 * lane}px)`).join()}}`;
  });
  return `<!doctype html><meta charset="utf-8"><link rel="stylesheet" href="/${styles}"><style>${paletteCss()}.thread{padding-bottom:27px;margin-bottom:-27px;background-repeat:no-repeat;background-size:100% 2px}${depths.join('')}</style><body></body><script src="/bench/bare.js"></script>`;
}

/** A list in Filum's type, in a frame as large as the codebook's. */
function listPage(): string {
  const styles = readdirSync('dist/app/browser').find((name) => /^styles-.*\.css$/.test(name))!;
  return `<!doctype html><meta charset="utf-8"><link rel="stylesheet" href="/${styles}"><body><bare-list></bare-list></body><script src="/bench/list.js"></script>`;
}

/** Notes when the start screen can be used. As text, as in {@link watchable}. */
const NOTE_USABLE = `
  new MutationObserver((_, observer) => {
    if (![...document.querySelectorAll('button')].some((one) => one.textContent.includes('Open the demo study'))) return;
    observer.disconnect();
    requestAnimationFrame(() => document.fonts.ready.then(() => (window.usableAt = performance.now())));
  }).observe(document, { subtree: true, childList: true });
`;

async function firstLoad(page: Page, base: string): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  /** When each request began, in seconds of the browser's own clock; the first is that of the page. */
  const began = new Map<string, number>();
  const sizes = new Map<string, number>();
  session.on('Network.requestWillBeSent', ({ requestId, timestamp }) => began.set(requestId, timestamp));
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => sizes.set(requestId, encodedDataLength));
  await page.addInitScript({ content: NOTE_USABLE });
  await page.goto(base);
  await page.waitForFunction(() => 'usableAt' in window);
  await page.waitForLoadState('networkidle');
  const usableAt = await page.evaluate(() => (window as unknown as { readonly usableAt: number }).usableAt);
  const opened = Math.min(...began.values());
  /** Bytes, until the start screen stood there with its type, and what was loaded ahead behind it. */
  const bytes = { usable: 0, ahead: 0 };
  for (const [id, size] of sizes) bytes[(began.get(id)! - opened) * 1_000 <= usableAt ? 'usable' : 'ahead'] += size;
  report({
    what: 'first load, transferred until the start screen is usable',
    value: bytes.usable / 1000,
    unit: 'kB',
    promise: { words: 'at most 350 kB', kept: bytes.usable <= 350_000 },
  });
  report({ what: 'loaded ahead behind it, while the studies are looked at', value: bytes.ahead / 1000, unit: 'kB' });
  const begun = Date.now();
  await page.getByRole('button', { name: /Open the demo study/ }).click();
  await page.getByRole('heading', { name: 'The Last Ferry' }).waitFor();
  const took = Date.now() - begun;
  report({ what: 'the demo study, built and open', value: took, unit: 'ms', promise: { words: 'under 2 s', kept: took < 2_000 } });
}

/** How much the heap grows while documents are opened and left, one after the other. */
async function leaking(page: Page, base: string): Promise<void> {
  await page.goto(base);
  await page.getByRole('button', { name: /Open the demo study/ }).click();
  await page.getByRole('heading', { name: 'The Last Ferry' }).waitFor();
  await page.getByRole('link', { name: 'Reading', exact: true }).click();
  await page.locator('.cm-content').waitFor();
  const session = await page.context().newCDPSession(page);
  const heap = async (): Promise<number> => {
    await session.send('HeapProfiler.collectGarbage');
    return (await session.send('Runtime.getHeapUsage')).usedSize;
  };
  const open = async (count: number): Promise<void> => {
    for (let run = 0; run < count; run++) {
      const next = page.getByRole('button', { name: 'Next document' });
      if (await next.isEnabled()) await next.click();
      else {
        await page.getByRole('link', { name: 'Overview', exact: true }).click();
        await page.locator('.lines a').first().click();
      }
      // a text, a recording or a picture
      await page.locator('.cm-line, fl-recording-page, fl-picture-page').first().waitFor();
    }
  };
  // every document once, so that texts kept on purpose are there before the count begins
  await open(80);
  const before = await heap();
  await open(200);
  const grown = (await heap()) / before - 1;
  report({
    what: 'heap grown by opening 200 documents',
    value: 100 * grown,
    unit: '%',
    promise: { words: 'under 10 %', kept: grown < 0.1 },
  });
}

/** Opening the large study, beside reading the same rows raw from IndexedDB. */
async function largeStudy(page: Page, base: string, folder: string): Promise<void> {
  const study = buildLargeStudy(LARGE);
  const path = join(folder, 'large.filum');
  writeFileSync(path, await studyFileOf(study));
  const begun = Date.now();
  await openFile(page, base, path, study.state.study.title);
  report({ what: 'bringing the large study in from its file', value: (Date.now() - begun) / 1000, unit: 's' });
  const address = page.url();
  const name = `filum-study-${study.state.study.id}`;
  await page.goto(base);
  const gauge = await Gauge.of(page);
  const start = async (): Promise<void> => {
    await page.goto(base);
    await page.getByRole('link', { name: study.state.study.title }).waitFor();
    await page.waitForTimeout(500);
  };
  const raw = await gauge.samples('reading raw', 6, async () => {
    await start();
    return page.evaluate(async (database) => {
      const db = await new Promise<IDBDatabase>(
        (resolve) => (indexedDB.open(database).onsuccess = (event) => resolve((event.target as IDBOpenDBRequest).result)),
      );
      const tables = ['meta', 'passages', 'coder', 'folder', 'document', 'case', 'attribute', 'code', 'memo', 'query'];
      const start = performance.now();
      const transaction = db.transaction(tables);
      await Promise.all(
        tables.map(
          (table) =>
            new Promise(
              (resolve) =>
                (transaction.objectStore(table).getAll().onsuccess = (event) => resolve((event.target as IDBRequest<unknown[]>).result)),
            ),
        ),
      );
      const took = performance.now() - start;
      db.close();
      return took;
    }, name);
  });
  const ours = await gauge.samples('opening', 6, async () => {
    await start();
    return page.evaluate(async (title) => {
      const link = [...document.querySelectorAll<HTMLAnchorElement>('.studies a')].find((one) => one.textContent === title)!;
      return (window as unknown as Watched).painted(
        () => link.click(),
        () => document.querySelector('.figures') !== null,
      );
    }, study.state.study.title);
  });
  const [open, read] = [median(ours), median(raw)];
  report({
    what: 'opening the large study to usable',
    value: open,
    unit: 'ms',
    beside: { what: 'the same rows read raw', value: read },
    promise: { words: 'at most 2 ×, and under 1.5 s', kept: open <= 2 * read && open < 1_500 },
  });

  await page.goto(`${address.replace(/\/overview$/, '')}/queries`);
  await page.getByRole('button', { name: 'Choose codes' }).click();
  const asked = await page.evaluate(async () => {
    const start = performance.now();
    document.querySelector<HTMLInputElement>('fl-choose-codes input[type=checkbox]')!.click();
    while (!document.querySelector('[data-summary]')) await new Promise((resolve) => setTimeout(resolve, 1));
    return performance.now() - start;
  });
  report({ what: 'the first question over it, worker start included', value: asked, unit: 'ms' });
}
