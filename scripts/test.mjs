// npm test: types, lint, core, component and interface tests. Prints the sum last.
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { chromium, install } from './install.mjs';

install();
process.env.CHROME_BIN = chromium();
let passed = 0;
let failed = 0;
/** What failed, said once more at the end: whoever keeps only the last lines must still learn it. */
const failures = [];

/** What a runner printed, without colours and without the lines by which it told how far it was: failures must not be cut off. */
const plain = (output) =>
  output
    // eslint-disable-next-line no-control-regex -- colours begin with one
    .replace(/\u001b\[[0-9;]*[A-Za-z]/g, '')
    .split(/[\r\n]+/)
    .filter(
      (line, at, lines) =>
        !/^npm warn /.test(line) && !(/Executed \d+ of \d+/.test(line) && /Executed \d+ of \d+/.test(lines[at + 1] ?? '')),
    )
    .filter((line) => !/WARN \[web-server\]: 404/.test(line))
    .join('\n')
    .trim();

/** Runs a step, and shows what it printed when it has ended; gives its exit status and its output. */
function step(title, command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    let output = '';
    child.stdout.on('data', (data) => (output += data));
    child.stderr.on('data', (data) => (output += data));
    child.on('error', (error) => (output += error));
    child.on('close', (status) => {
      output = plain(output);
      console.log(`\n— ${title}`);
      console.log(output.length > 20_000 ? output.slice(-20_000) : output);
      resolve({ status: status ?? 1, output });
    });
  });
}

/** A check that passes or fails as a whole. */
async function check(title, command, args) {
  const { status, output } = await step(title, command, args);
  if (status === 0) passed++;
  else {
    failed++;
    failures.push(`${title}\n${output.split('\n').slice(-30).join('\n')}`);
  }
}

/** Adds what a runner counted; one that died without counting has failed. */
function count({ status }, good, bad) {
  passed += good;
  failed += bad || status === 0 ? bad : 1;
  if (status === 0 && good === 0) failed++;
}

async function checks() {
  await check('types', 'npm', ['run', '--silent', 'types']);
  await check('lint', 'npm', ['run', '--silent', 'lint']);
  await check('build', 'npm', ['run', '--silent', 'build']);
}

async function units() {
  const core = await step('core', 'npm', ['run', '--silent', 'test:core']);
  const specs = /(\d+) specs?, (\d+) failures?/.exec(core.output);
  count(core, specs ? specs[1] - specs[2] : 0, specs ? Number(specs[2]) : 0);
  if (core.status !== 0) failures.push(`core\n${/\nFailures:\n([\s\S]*)/.exec(core.output)?.[1] ?? core.output.slice(-2_000)}`);

  const components = await step('components', 'npm', ['run', '--silent', 'test:components']);
  const success =
    /TOTAL: (\d+) SUCCESS/.exec(components.output) ?? [...components.output.matchAll(/Executed (\d+) of \d+.*SUCCESS/g)].at(-1);
  const broken = [...components.output.matchAll(/Executed (\d+) of \d+ .*?\((\d+) FAILED\)/g)].at(-1);
  count(components, broken ? broken[1] - broken[2] : Number(success?.[1] ?? 0), Number(broken?.[2] ?? 0));
  if (components.status !== 0) {
    // each with what is indented under it
    const said = components.output.match(/^.* FAILED$(?:\n\s.*)*/gm) ?? [components.output.slice(-2_000)];
    failures.push(`components\n${said.join('\n')}`);
  }
}

// side by side, for two cores; the interface tests need the build and use both
await Promise.all([checks(), units()]);

const report = 'test-results/interface.json';
rmSync(report, { force: true });
const faces = await step('interface', 'npx', ['playwright', 'test']);
const { stats, suites } = existsSync(report)
  ? JSON.parse(readFileSync(report, 'utf8'))
  : { stats: { expected: 0, unexpected: 0, flaky: 0 }, suites: [] };
count(faces, stats.expected + stats.flaky, stats.unexpected);
if (faces.status !== 0 && stats.unexpected === 0) failures.push(`interface\n${faces.output.slice(-2_000)}`);

/** The tests in a suite of the report and in those under it. */
const testsIn = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(testsIn)];
for (const { title, file, tests } of suites.flatMap(testsIn))
  for (const { status, results } of tests) {
    if (status !== 'unexpected' && status !== 'flaky') continue;
    const outcome = status === 'flaky' ? 'passed only at the second try: look at it' : 'failed';
    const error = plain(results.find((one) => one.error)?.error.message ?? '');
    failures.push(`interface: ${file} › ${title}\n${outcome}\n${error.slice(0, 2_000)}`);
  }

if (failures.length > 0) console.log(`\n— what did not pass at once\n\n${failures.join('\n\n')}`);

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
