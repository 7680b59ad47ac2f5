import { chromium } from '@playwright/test';
import type { AddressInfo } from 'node:net';
import { createApp } from '../server/app';
import { Filum } from '../e2e/support/filum';
const server = createApp('dist/app/browser').listen(0, '127.0.0.1');
await new Promise((r) => server.once('listening', r));
const baseURL = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const page = await (await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } })).newPage();
page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text()));
const filum = new Filum(page);
await page.goto('/');
await filum.openDemo();
const shot = async (n: string) => {
  await page.waitForTimeout(600);
  await page.screenshot({ path: `/tmp/scratch/${n}.png` });
};
const want = process.argv.slice(2);
const step = async (n: string, f: () => Promise<void>) => {
  if (want.length && !want.includes(n)) return;
  try {
    await f();
    await shot(n);
    console.log('ok', n);
  } catch (e) {
    console.log('FAIL', n, String(e).slice(0, 400));
    await shot(n + '-fail');
  }
};
await filum.goTo('Material');
await step('docs', async () => {
  await page.getByRole('checkbox', { name: /Select Interview 01/ }).check();
  await page.getByRole('checkbox', { name: /Select Interview 02/ }).check();
});
await step('cases', async () => {
  await page.getByRole('link', { name: /^Participants/ }).click();
  await page.locator('[data-cell="2,3"]').click();
  await page.keyboard.press('Shift+ArrowDown');
  await page
    .getByRole('button', { name: 'All that belongs to Shona Adair' })
    .click()
    .catch(() => 0);
});
await step('attributes', async () => {
  await page.getByRole('link', { name: /^Attributes/ }).click();
  await page.getByRole('button', { name: /^home/ }).click();
});
await step('questions', async () => {
  await page.getByRole('link', { name: /^Questions/ }).click();
});
await step('sets', async () => {
  await page.getByRole('link', { name: /^Sets/ }).click();
  await page.getByRole('button', { name: /Live set of participants/ }).click();
});
await step('import-text', async () => {
  await page.getByRole('link', { name: 'Bring in' }).first().click();
  await page
    .getByLabel('Files to bring in')
    .setInputFiles([
      'core/formats/fixtures/interview.pdf',
      'core/formats/fixtures/interview.odt',
      'core/formats/fixtures/interview.rtf',
      'demo/structured/pier-01.txt',
    ]);
  await page.waitForTimeout(2500);
});
await step('import-questions', async () => {
  await page.getByLabel('Files to bring in').setInputFiles(['demo/structured/pier-02.txt', 'demo/structured/pier-03.txt']);
  await page.waitForTimeout(1500);
  await page
    .getByRole('list', { name: 'Files' })
    .getByRole('button', { name: /pier-02/ })
    .first()
    .click();
});
await step('import-table', async () => {
  await page.getByLabel('Files to bring in').setInputFiles(['demo/survey.csv']);
  await page.waitForTimeout(1500);
  await page
    .getByRole('list', { name: 'Files' })
    .getByRole('button', { name: /survey/ })
    .first()
    .click();
});
await step('correct', async () => {
  await filum.read('Interview 03 – Shona Adair');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Correct the text' }).click();
  await page.keyboard.type('Hm. ');
});
await step('replace', async () => {
  await page.getByRole('button', { name: 'Drop', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Drop them' }).click();
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Find and replace' }).click();
  await page.getByLabel('Words', { exact: true }).fill('Shona');
  await page.getByLabel('Replaced by').fill('Anna');
  await page.getByLabel(/only in/).uncheck();
  await page.waitForTimeout(800);
});
await browser.close();
server.close();
process.exit(0);
