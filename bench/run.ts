import { existsSync } from 'node:fs';
import { benchBrowser } from './browser';
import { benchCore } from './core';

/** `npm run bench`, or `npm run bench -- core` / `-- browser` for one half. */
const [only] = process.argv.slice(2);
if (only !== 'browser') await benchCore();
if (only !== 'core') {
  if (!existsSync('dist/app/browser/index.html')) throw new Error('Build the application first: npm run build');
  await benchBrowser(process.argv[3]);
}
