import { expect, test, chromium, type BrowserContext } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Filum } from './support/filum';
import { chromiumHere } from '../scripts/browser.cjs';

/** Rounds of a usual run; FILUM_ROUNDS asks for more. */
const ROUNDS = Number(process.env['FILUM_ROUNDS'] ?? 6);
const PARAGRAPHS = Array.from({ length: 80 }, (_, at) => `Paragraph ${at} about the boat, the pier and whoever stood on it.`).join('\n\n');

/** A browser whose process this test can kill: started here, driven from outside. */
async function start(profile: string): Promise<{ process: ChildProcess; context: BrowserContext; close: () => Promise<void> }> {
  const browserProcess = spawn(
    chromiumHere(),
    [
      '--headless',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--no-first-run',
      '--remote-debugging-port=0',
      `--user-data-dir=${profile}`,
      'about:blank',
    ],
    { detached: true, stdio: ['ignore', 'ignore', 'pipe'] },
  );
  const address = await new Promise<string>((resolve, reject) => {
    let output = '';
    browserProcess.stderr!.on('data', (data: Buffer) => {
      output += data.toString();
      const match = /DevTools listening on (ws:\S+)/.exec(output);
      if (match) resolve(match[1]!);
    });
    browserProcess.on('exit', () => reject(new Error(`The browser did not start: ${output}`)));
  });
  const browser = await chromium.connectOverCDP(address);
  return { process: browserProcess, context: browser.contexts()[0]!, close: () => browser.close() };
}

test('a browser killed at random moments during coding loses nothing that was shown as saved', async ({ baseURL }) => {
  test.setTimeout(600_000);
  const profile = mkdtempSync(join(tmpdir(), 'filum-kill-'));
  let address = '';
  let shownAsSaved = 0;
  let killedWithWorkUnderWay = 0;
  for (let round = 0; round <= ROUNDS; round++) {
    const { process: browserProcess, context, close } = await start(profile);
    const page = context.pages()[0] ?? (await context.newPage());
    const filum = new Filum(page);
    if (round === 0) {
      await page.goto(baseURL!);
      await page.getByRole('button', { name: /New study/ }).click();
      await page.getByLabel('Title of the study').fill('Killed');
      await page.getByLabel('Your name').fill('Ada');
      await page.getByRole('button', { name: 'Make the study' }).click();
      await filum.paste('Interview', PARAGRAPHS);
      await filum.read('Interview');
      await filum.code('Paragraph 0', 'Boat');
      await filum.saved();
      address = page.url();
    } else {
      await page.goto(address);
    }
    const foot = page.locator('[data-passages]');
    await expect(foot).toBeVisible();
    const found = Number.parseInt((await foot.textContent())!, 10);
    expect(found, `round ${round}: what was shown as saved is there`).toBeGreaterThanOrEqual(shownAsSaved);
    await checkIntegrity(filum, found);
    if (round === ROUNDS) {
      await close();
      await kill(browserProcess);
      break;
    }

    // what the interface calls saved, noted by the page itself at the moment it says so
    let noted = found;
    await page.exposeFunction('noteSaved', (count: number) => (noted = Math.max(noted, count)));
    await page.evaluate(() => {
      const look = (): void => {
        if (document.querySelector('[data-save]')?.getAttribute('data-save') !== 'saved') return;
        void (window as unknown as { noteSaved: (count: number) => void }).noteSaved(
          Number.parseInt(document.querySelector('[data-passages]')?.textContent ?? '0', 10),
        );
      };
      new MutationObserver(look).observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true });
    });
    const working = codeOnAndOn(filum, round);
    // every fourth round is killed at any moment, the others once coding is under way
    const patience = Date.now() + (round % 4 === 0 ? Math.random() * 1_000 : 4_000);
    while (Date.now() < patience && noted === found) await pause(5);
    await pause(Math.random() * 500);
    await kill(browserProcess);
    await working;
    if (noted > found) killedWithWorkUnderWay++;
    shownAsSaved = noted;
    await close().catch(() => undefined);
  }
  expect(killedWithWorkUnderWay, 'rounds in which something had been coded and saved before the kill').toBeGreaterThan(ROUNDS / 2);
  try {
    rmSync(profile, { recursive: true, force: true, maxRetries: 8, retryDelay: 250 });
  } catch {
    // the killed browser's helpers may still hold files: what is left in the temporary folder is no fault of Filum's
  }
});

/** Kills a browser with all its processes, and waits until it is gone: a dying one still holds the files that the next one opens. */
async function kill(browserProcess: ChildProcess): Promise<void> {
  const gone = new Promise((resolve) => browserProcess.once('exit', resolve));
  const dead = browserProcess.exitCode !== null || browserProcess.signalCode !== null;
  try {
    process.kill(-browserProcess.pid!, 'SIGKILL');
  } catch {
    // it has ended by itself
  }
  if (!dead) await gone;
}

const pause = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Codes one stretch after another with the last code, until the browser is gone. */
async function codeOnAndOn(filum: Filum, round: number): Promise<void> {
  const { page } = filum;
  try {
    await page
      .locator('.cm-line')
      .nth(1 + (round % 8))
      .click({ position: { x: 200, y: 15 } });
    await page.keyboard.press('c');
    await page.keyboard.type('Boat');
    await page.keyboard.press('Enter');
    for (;;) {
      for (let at = 0; at < 3 + Math.random() * 5; at++) await page.keyboard.press('Shift+ArrowRight');
      await page.keyboard.press('.');
      await page.keyboard.press('ArrowRight');
    }
  } catch {
    // the browser was killed: that is the point
  }
}

/** The stored study must hold together: as many journal entries as the history says, and every passage sound. */
async function checkIntegrity(filum: Filum, passages: number): Promise<void> {
  const faults = await filum.page.evaluate(async (shown) => {
    const name = (await indexedDB.databases()).find((one) => one.name?.startsWith('filum-study-'))!.name!;
    const db = await new Promise<IDBDatabase>(
      (resolve) => (indexedDB.open(name).onsuccess = (event) => resolve((event.target as IDBOpenDBRequest).result)),
    );
    const all = <T>(table: string): Promise<T[]> =>
      new Promise(
        (resolve) =>
          (db.transaction(table).objectStore(table).getAll().onsuccess = (event) => resolve((event.target as IDBRequest<T[]>).result)),
      );
    const [meta, journal, rows, codes, texts] = [
      await all<{ key: string; value: { seq: number } }>('meta'),
      await all<{ seq: number }>('journal'),
      await all<{ ids: string; starts: Uint32Array; ends: Uint32Array; codes: string[] }>('passages'),
      await all<{ id: string }>('code'),
      await all<{ text: string }>('text'),
    ];
    db.close();
    const found: string[] = [];
    if (meta.find((row) => row.key === 'history')!.value.seq !== journal.length) found.push('journal and history differ');
    journal.forEach((entry, at) => entry.seq === at + 1 || found.push(`journal entry ${at + 1} is missing`));
    for (const row of rows) {
      if (row.starts.length !== shown || row.ids.length !== 36 * shown) found.push('the interface shows other passages than are stored');
      row.starts.forEach(
        (start, at) => (start < row.ends[at]! && row.ends[at]! <= texts[0]!.text.length) || found.push('a passage lies outside the text'),
      );
      for (const id of row.codes) if (!codes.some((code) => code.id === id)) found.push('a coding has no code');
    }
    return found;
  }, passages);
  expect(faults).toEqual([]);
}
