// npm start: installs what is missing, builds what has changed, and serves. Needs nothing but Node.
import { spawnSync, spawn } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { install } from './install.mjs';

/** When the newest file below some folders was changed. */
function newest(paths) {
  let latest = 0;
  for (const path of paths) {
    const status = statSync(path);
    latest = Math.max(latest, status.isDirectory() ? newest(readdirSync(path).map((name) => join(path, name))) : status.mtimeMs);
  }
  return latest;
}

install();
const built = 'dist/app/browser/index.html';
const sources = ['app', 'core', 'demo', 'angular.json', 'package.json', 'package-lock.json', 'tsconfig.json'];
if (!existsSync(built) || newest(sources) > statSync(built).mtimeMs) {
  console.log('Building (a minute, the first time)…');
  const build = spawnSync('npm', ['run', '--silent', 'build'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    shell: process.platform === 'win32',
  });
  if (build.status !== 0) process.exit(build.status ?? 1);
}
const server = spawn('npx', ['tsx', 'server/main.ts'], { stdio: 'inherit', shell: process.platform === 'win32' });
server.on('exit', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
