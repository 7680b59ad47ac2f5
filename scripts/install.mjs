import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';

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
  const known = [process.env.CHROME_BIN, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].find(
    (path) => path && existsSync(path),
  );
  if (known) return known;
  console.log('Installing Chromium…');
  const root = process.getuid?.() === 0;
  const apt = (...args) =>
    spawnSync(root ? 'apt-get' : 'sudo', root ? args : ['-n', 'apt-get', ...args], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', 'chromium', 'fonts-noto-core');
  if (existsSync('/usr/bin/chromium')) return '/usr/bin/chromium';
  console.error('The tests need Chromium. Install it, and name it in CHROME_BIN if it is not /usr/bin/chromium.');
  process.exit(1);
}
