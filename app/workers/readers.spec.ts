import { until } from '../testing/until';
import { expose } from 'comlink';
import { DAMAGED } from '@core/filing/damaged';
import type { FileOutcome } from '@core/filing/read-material';
import { Readers } from './readers';

/** A worker that answers when it is told to, at the end of a channel. */
class HandledWorker {
  readonly channel = new MessageChannel();
  readonly reading: {
    readonly name: string;
    readonly answer: (outcome: FileOutcome) => void;
    readonly progress: (share: number) => void;
  }[] = [];
  terminated = false;
  onerror: ((event: ErrorEvent) => void) | null = null;

  constructor() {
    expose(
      {
        connect: () => undefined,
        read: (_key: number, name: string, _file: Blob, _options: object, progress: (share: number) => void) =>
          new Promise<FileOutcome>((answer) => this.reading.push({ name, answer, progress })),
      },
      this.channel.port1,
    );
    this.channel.port1.start();
    this.channel.port2.start();
  }

  postMessage(message: unknown, transfer: Transferable[]): void {
    this.channel.port2.postMessage(message, transfer);
  }
  addEventListener(...listener: Parameters<MessagePort['addEventListener']>): void {
    this.channel.port2.addEventListener(...listener);
  }
  removeEventListener(...listener: Parameters<MessagePort['removeEventListener']>): void {
    this.channel.port2.removeEventListener(...listener);
  }
  terminate(): void {
    this.terminated = true;
    this.channel.port1.close();
  }
}

const read = (name: string): FileOutcome => ({ trouble: name, encodings: [], remedy: {} });

describe('readers side by side', () => {
  let workers: HandledWorker[];
  let connected: number;
  let readers: Readers;
  /** Readers over workers that are handled here. @param patience milliseconds without getting on */
  const atMost = (most: number, patience?: number) =>
    new Readers(
      () => void connected++,
      most,
      () => {
        const worker = new HandledWorker();
        workers.push(worker);
        return worker as unknown as Worker;
      },
      patience,
    );
  const ask = (name: string, progress: (share: number) => void = () => undefined) => readers.read(1, name, new Blob(), {}, progress);
  const busy = () => workers.flatMap((worker) => worker.reading.map((one) => one.name));
  const reads = (name: string) => until(() => busy().includes(name));

  beforeEach(() => {
    workers = [];
    connected = 0;
    readers = atMost(2);
  });
  afterEach(() => readers.stop());

  it('are made as they are needed, up to the most, and each reads one file at a time', async () => {
    const first = ask('a');
    await reads('a');
    expect([workers.length, connected]).toEqual([1, 1]);
    const others = [ask('b'), ask('c')];
    await reads('b');
    expect(workers.length).toBe(2);
    expect(busy()).toEqual(['a', 'b']);
    workers[0]!.reading[0]!.answer(read('read a'));
    expect(await first).toEqual(read('read a'));
    await reads('c');
    expect(workers[0]!.reading.map((one) => one.name)).toEqual(['a', 'c']);
    workers[0]!.reading[1]!.answer(read('read c'));
    workers[1]!.reading[0]!.answer(read('read b'));
    expect(await Promise.all(others)).toEqual([read('read b'), read('read c')]);
    expect(workers.length).toBe(2);
  });

  it('tell how far a long file is read', async () => {
    const shares: number[] = [];
    const done = ask('long', (share) => shares.push(share));
    await reads('long');
    workers[0]!.reading[0]!.progress(0.5);
    await until(() => shares.length > 0);
    expect(shares).toEqual([0.5]);
    workers[0]!.reading[0]!.answer(read('long'));
    await done;
  });

  it('stop at once: what was not read is said to be stopped, and reading begins anew afterwards', async () => {
    const [reading, , waiting] = [ask('a'), ask('b'), ask('c')];
    await reads('b');
    readers.stop();
    expect(await reading).toBeNull();
    expect(await waiting).toBeNull();
    expect(workers.map((worker) => worker.terminated)).toEqual([true, true]);
    const again = ask('d');
    await reads('d');
    expect(workers.length).toBe(3);
    workers[2]!.reading[0]!.answer(read('read d'));
    expect(await again).toEqual(read('read d'));
  });

  it('give up a file that does not get on, while the others go on', async () => {
    readers = atMost(1, 300);
    const endless = ask('endless');
    const good = ask('good');
    await reads('endless');
    const outcome = (await endless) as { readonly trouble: string };
    expect(outcome.trouble).toContain('something in it takes endlessly to read');
    expect(workers[0]!.terminated).toBeTrue();
    await reads('good');
    workers[1]!.reading[0]!.answer(read('good'));
    expect(await good).toEqual(read('good'));
  });

  it('go on after a file that brings its reader down', async () => {
    const bad = ask('bad');
    await reads('bad');
    workers[0]!.onerror!({ message: 'out of memory' } as ErrorEvent);
    expect(await bad).toEqual({ trouble: DAMAGED, encodings: [], remedy: {} });
    expect(workers[0]!.terminated).toBeTrue();
    const good = ask('good');
    await reads('good');
    workers[1]!.reading[0]!.answer(read('good'));
    expect(await good).toEqual(read('good'));
  });
});
