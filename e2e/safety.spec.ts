import { expect, test } from '@playwright/test';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { SCHEMA_VERSION } from '../core/model/schema-version';
import { Filum } from './support/filum';

test('two tabs of one study do not overwrite each other: one writes, the other follows and can take over', async ({ context }) => {
  const first = new Filum(await context.newPage());
  await first.newStudy('Shared');
  await first.paste('Interview', 'A: Nobody asked us.\n\nB: They held the boat.\n\nA: So?\n\nB: Well.');
  await first.read('Interview');
  const second = new Filum(await context.newPage());
  await second.page.goto(first.page.url());
  await expect(second.page.getByText('open for work in another tab')).toBeVisible();

  await first.code('Nobody asked us', 'Asked');
  await expect(second.slips('Asked')).toBeVisible();
  await second.page.locator('.cm-line').nth(1).click();
  await second.page.keyboard.press('c');
  await second.page.keyboard.type('Lost');
  await second.page.keyboard.press('Enter');
  await expect(second.page.getByRole('status').filter({ hasText: 'open for work in another tab' }).last()).toBeVisible();
  await second.page.keyboard.press('Escape');
  await second.passages(1);

  await second.page.getByRole('button', { name: 'Work here instead' }).click();
  await expect(second.page.getByRole('button', { name: 'Work here instead' })).toBeHidden();
  await second.code('They held the boat', 'Held');
  await expect(first.slips('Held')).toBeVisible();
  await expect(first.page.getByText('open for work in another tab')).toBeVisible();
  await first.page.reload();
  await expect(first.slips('Held')).toBeVisible();
  await expect(first.slips('Asked')).toBeVisible();
});

test('a tab that was overtaken writes nothing over what the other wrote', async ({ context }) => {
  const first = new Filum(await context.newPage());
  await first.newStudy('Overtaken');
  await first.paste('Interview', 'A: Nobody asked us.\n\nB: They held the boat.\n\nA: So?\n\nB: Well.');
  await first.read('Interview');
  // a writer that does not know of locks moves the journal on behind this tab's back
  await first.page.evaluate(async () => {
    const name = (await indexedDB.databases()).find((one) => one.name?.startsWith('filum-study-'))!.name!;
    const db = await new Promise<IDBDatabase>(
      (resolve) => (indexedDB.open(name).onsuccess = (event) => resolve((event.target as IDBOpenDBRequest).result)),
    );
    const store = db.transaction('meta', 'readwrite').objectStore('meta');
    store.get('history').onsuccess = (event) => {
      const row = (event.target as IDBRequest<{ key: string; value: { seq: number } }>).result;
      row.value.seq += 1;
      store.put(row);
    };
    await new Promise((resolve) => (store.transaction.oncomplete = resolve));
    db.close();
  });
  await first.select('They held the boat');
  await first.page.keyboard.press('c');
  await first.page.keyboard.type('Held');
  await first.page.keyboard.press('Enter');
  await expect(first.page.getByRole('status').filter({ hasText: 'changed in another tab' })).toBeVisible();
  await first.passages(0);
});

test('the save state is true: nothing is called saved before it is on disk, and a failure is said', async ({ page }) => {
  const filum = new Filum(page);
  await page.addInitScript(() => {
    const original = IDBObjectStore.prototype.add;
    IDBObjectStore.prototype.add = function (...args) {
      if ((window as { refuse?: boolean }).refuse && this.name === 'journal')
        throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      return original.apply(this, args);
    };
  });
  await filum.newStudy();
  await filum.paste('Interview', 'Nobody asked us.');
  await filum.read('Interview');
  await page.evaluate(() => ((window as { refuse?: boolean }).refuse = true));
  await filum.code('Nobody asked us', 'Asked');
  await expect(page.getByRole('alert')).toContainText('not saved: 1 step');
  await expect(filum.slips('Asked')).toBeVisible();
  await page.evaluate(() => ((window as { refuse?: boolean }).refuse = false));
  await page.getByRole('button', { name: 'Try again' }).click();
  await filum.saved();
  await page.reload();
  await expect(filum.slips('Asked')).toBeVisible();
});

test('a study file that is damaged, newer or hostile gets a clear error and changes nothing', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy('Whole');
  await filum.paste('<img src=x onerror=alert(1)>', 'Nobody asked us.');
  await filum.goTo('Write-up');
  const { bytes } = await filum.download(() => page.getByRole('button', { name: 'Export the study file' }).click());
  await page.getByRole('button', { name: 'Filum: all studies' }).click();
  const archive = unzipSync(bytes);
  const manifest = JSON.parse(new TextDecoder().decode(archive['manifest.json'])) as object;
  const withManifest = (fields: object) => zipSync({ ...archive, 'manifest.json': strToU8(JSON.stringify({ ...manifest, ...fields })) });
  const cases: [string, Uint8Array, string][] = [
    ['damaged.filum', bytes.subarray(0, bytes.length - 100), 'Nothing was changed'],
    ['newer.filum', withManifest({ dataVersion: SCHEMA_VERSION + 1 }), 'newer version of Filum'],
    ['bomb.filum', zipSync({ 'manifest.json': new Uint8Array(40_000_000) }), 'zip bomb'],
    ['escape.filum', zipSync({ '../../evil': strToU8('x') }), 'forbidden path'],
    ['altered.filum', zipSync({ ...archive, 'codebook.json': strToU8('[{"__proto__":{}}]') }), 'not as it was saved'],
    ['letter.filum', strToU8('Dear Sir'), 'not a zip archive'],
  ];
  for (const [name, content, message] of cases) {
    await page.getByLabel('Study file').setInputFiles({ name, mimeType: '', buffer: Buffer.from(content) });
    await expect(page.getByRole('alert')).toContainText(message);
    await expect(page.locator('.studies li')).toHaveCount(1);
  }
  page.on('dialog', () => expect(false, 'a script in a title ran').toBe(true));
  await page.getByLabel('Study file').setInputFiles({ name: 'whole.filum', mimeType: '', buffer: bytes });
  await expect(page.getByRole('dialog')).toContainText('“Whole” is already here');
  await page.getByRole('button', { name: 'Open as a copy' }).click();
  await expect(page.getByRole('heading', { name: 'Whole (copy)' })).toBeVisible();
  await filum.read('<img src=x onerror=alert(1)>');
  await expect(page.getByRole('heading', { name: '<img src=x onerror=alert(1)>' })).toBeVisible();
});

test('a study is deleted only after naming what goes, with a study file offered', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await page.getByRole('button', { name: 'Filum: all studies' }).click();
  await page.getByRole('button', { name: 'Delete The Last Ferry' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText(/82 documents with 1,551 codings, 40 codes, 16 memos and the log/);
  await expect(dialog).toContainText('No study file has been exported yet.');
  const file = await filum.download(() => dialog.getByRole('button', { name: 'Save a study file first' }).click());
  expect(file.name).toBe('The Last Ferry.filum');
  await page.getByRole('dialog').getByRole('button', { name: 'Delete the study' }).click();
  await expect(page.locator('.studies li')).toHaveCount(0);
  expect(await page.evaluate(async () => (await indexedDB.databases()).length)).toBe(0);
});

test('a study that is open for work elsewhere is not deleted', async ({ context }) => {
  const open = new Filum(await context.newPage());
  await open.newStudy('In use');
  const other = await context.newPage();
  await other.goto('/');
  await other.getByRole('button', { name: 'Delete In use' }).click();
  await other.getByRole('dialog').getByRole('button', { name: 'Delete the study' }).click();
  await expect(other.getByRole('alert')).toContainText('open in another tab');
  await expect(other.locator('.studies li')).toHaveCount(1);
});

test('a study that is not here says so', async ({ page }) => {
  await page.goto('/study/00000000-0000-4000-8000-000000000000/reading');
  await expect(page.getByRole('alert')).toContainText('not in this browser');
});
