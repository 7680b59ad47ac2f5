import { mkdirSync, writeFileSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import { seededRandom } from '../../core/sample/large-study';
import { broken, brokenInside, realFiles, realRecordings } from '../../core/testing/broken-files';

/**
 * `npm run fuzz -- MINUTES SEED`: breaks files of every format, from outside and inside their archives, and brings them
 * in. Each is read, or refused in words, within 20 seconds; anything else is a failure, and its smallest file is written
 * to `fuzz-results/`. The same seed breaks the same way. A broken recording can send the library that reads it round
 * without end; the interface ends its reader then and says so, and here it counts as given up.
 */
const minutes = Number(process.argv[2] ?? 5);
const seed = Number(process.argv[3] ?? 1);
const PATIENCE = 20_000;
const PATIENCE_FOR_RECORDINGS = 3_000;
const RESULTS = 'fuzz-results';
/** A thread reads TypeScript once it is told how. */
const START = `import('tsx/esm/api').then(({ register }) => { register(); return import(require('node:worker_threads').workerData); })`;

type Said = { readonly outcome: 'read' | 'refused' } | { readonly failure: string };

/** Reads in a thread of its own, which can be ended in the middle. */
class Trial {
  private worker: Worker | null = null;

  async of(name: string, bytes: Uint8Array, patience = PATIENCE): Promise<Said> {
    const worker = (this.worker ??= new Worker(START, { eval: true, workerData: new URL('./trial.ts', import.meta.url).href }));
    return new Promise((resolve) => {
      const done = (said: Said, usable: boolean): void => {
        clearTimeout(timer);
        worker.off('message', onMessage);
        worker.off('error', onError);
        if (!usable) {
          void worker.terminate();
          this.worker = null;
        }
        resolve(said);
      };
      const timer = setTimeout(() => done({ failure: `no end after ${patience / 1_000} seconds` }, false), patience);
      const onMessage = (said: Said): void => done(said, true);
      const onError = (error: unknown): void => done({ failure: `the reader went down: ${String(error)}` }, false);
      worker.on('message', onMessage);
      worker.on('error', onError);
      worker.postMessage({ name, bytes });
    });
  }

  async end(): Promise<void> {
    await this.worker?.terminate();
  }
}

/** The smallest part of a file that still fails in the same way, found by leaving out halves, quarters, eighths… */
async function smallest(trial: Trial, name: string, bytes: Uint8Array, failure: string): Promise<Uint8Array> {
  let small = bytes;
  for (let size = Math.ceil(small.length / 2); size >= 1; size = size === 1 ? 0 : Math.ceil(size / 2))
    for (let at = 0; at < small.length && small.length > 1;) {
      const less = Uint8Array.from([...small.subarray(0, at), ...small.subarray(at + size)]);
      const said = less.length > 0 ? await trial.of(name, less) : { outcome: 'refused' as const };
      if ('failure' in said && said.failure.slice(0, 30) === failure.slice(0, 30)) small = less;
      else at += size;
    }
  return small;
}

const until = Date.now() + minutes * 60_000;
const random = seededRandom(seed);
const recordings = realRecordings();
const files = [...realFiles(), ...recordings];
const trial = new Trial();
const seen = new Set<string>();
const counts = { read: 0, refused: 0, givenUp: 0, failures: 0 };
for (let round = 0; Date.now() < until; round++) {
  const [name, bytes] = files[round % files.length]!;
  const file = random() < 0.5 ? broken(bytes, random) : brokenInside(bytes, random);
  const said = await trial.of(name, file, recordings.has(name) ? PATIENCE_FOR_RECORDINGS : PATIENCE);
  if ('failure' in said && said.failure.startsWith('no end') && recordings.has(name)) {
    counts.givenUp++;
    continue;
  }
  if ('outcome' in said) {
    counts[said.outcome]++;
    continue;
  }
  counts.failures++;
  // one file for each kind of failure
  const kind = `${name} ${said.failure.slice(0, 60)}`;
  if (seen.has(kind)) continue;
  seen.add(kind);
  const small = said.failure.startsWith('no end') ? file : await smallest(trial, name, file, said.failure);
  mkdirSync(RESULTS, { recursive: true });
  const path = `${RESULTS}/${seed}-${round}-${name}`;
  writeFileSync(path, small);
  console.log(`${path} (${small.length} bytes): ${said.failure}`);
}
await trial.end();
const total = counts.read + counts.refused + counts.givenUp + counts.failures;
console.log(
  `${total} files: ${counts.read} read, ${counts.refused} refused in words, ${counts.givenUp} recordings given up, ${counts.failures} failures`,
);
process.exit(counts.failures > 0 ? 1 : 0);
