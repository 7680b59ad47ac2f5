import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { chromiumHere } from './browser.cjs';

/** Installs the packages of the lock file where they are missing or older than it. */
export function install() {
  const marker = 'node_modules/.package-lock.json';
  if (existsSync(marker) && statSync(marker).mtimeMs >= statSync('package-lock.json').mtimeMs) return;
  console.log('Installing packages…');
  // not `npm ci`: a lock file written on one platform may lack the optional packages of another, which ci refuses
  const result = spawnSync('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], {
    stdio: 'inherit',
    shell: process.platform === 'win32',
  });
  if (result.status !== 0) process.exit(result.status ?? 1);
}

/** Path of a Chromium, installed by apt where there is none and it may be. */
export function chromium() {
  if (existsSync(chromiumHere())) return chromiumHere();
  console.log('Installing Chromium…');
  const root = process.getuid?.() === 0;
  const apt = (...args) =>
    spawnSync(root ? 'apt-get' : 'sudo', root ? args : ['-n', 'apt-get', ...args], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    }).status === 0;
  const install = (...packages) => apt('install', '-y', '-qq', '--no-install-recommends', ...packages);
  apt('update', '-qq');
  // an older Debian has it with its window only
  if (!install('chromium-headless-shell', 'fonts-noto-core')) install('chromium', 'fonts-noto-core');
  if (existsSync(chromiumHere())) return chromiumHere();
  console.error('The tests need Chromium. Install it, and name it in CHROME_BIN if it is not /usr/bin/chromium.');
  process.exit(1);
}
