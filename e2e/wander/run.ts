import { chromium } from '@playwright/test';
import type { AddressInfo } from 'node:net';
import { createApp } from '../../server/app';
import { wander, WanderError } from './wanderer';
import { chromiumHere } from '../../scripts/browser.cjs';

/** Strides between two looks at whether all can be taken back. */
const ROUND = 40;

/**
 * `npm run wander -- MINUTES SEED`: walks through the built application for so long, a fresh demo study every round, and
 * stops at the first fault with the way that led there. The same seed walks the same way.
 */
const minutes = Number(process.argv[2] ?? 5);
const first = Number(process.argv[3] ?? 1);
const server = createApp(process.env['FILUM_BUILD'] ?? 'dist/app/browser').listen(0, '127.0.0.1');
await new Promise((resolve) => server.once('listening', resolve));
const baseURL = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
const browser = await chromium.launch({
  executablePath: chromiumHere(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
});
const until = Date.now() + minutes * 60_000;
let rounds = 0;
let faults = 0;
for (let seed = first; Date.now() < until; seed++) {
  try {
    await wander(browser, baseURL, seed, ROUND, process.env['WANDER_TELL'] ? (words) => console.log(`  ${words}`) : undefined);
    rounds++;
    console.log(`seed ${seed}: ${ROUND} strides, taken back, sound`);
  } catch (error) {
    faults++;
    console.log(error instanceof WanderError ? error.message : error);
    if (!process.env['WANDER_ON'] || !(error instanceof WanderError)) break;
  }
}
console.log(`${rounds * ROUND} strides in ${rounds} rounds without a fault, ${faults} faults`);
await browser.close();
server.close();
process.exit(faults > 0 ? 1 : 0);
