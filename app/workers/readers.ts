import { proxy, transfer, wrap, type Remote } from 'comlink';
import type { ReadOptions } from '@core/formats/read-file';
import type { TableOptions } from '@core/formats/table/table';
import { DAMAGED } from '@core/filing/damaged';
import type { FileOutcome } from '@core/filing/read-material';
import type { ReaderWorker } from './reader.worker';

/** A file that waits to be read. */
interface Waiting {
  readonly key: number;
  readonly name: string;
  readonly file: Blob;
  readonly options: ReadOptions & TableOptions;
  readonly progress: (share: number) => void;
  readonly done: (outcome: FileOutcome | null) => void;
}

/** Readers at most: more would have no processor to run on, or crowd out the rest of the machine. */
const MOST_READERS = 4;

/** A file that does not get on for so long is given up, milliseconds. */
const PATIENCE = 20_000;
const ENDLESS =
  'It was given up after 20 seconds without getting on: something in it takes endlessly to read. Save it again in the program it comes from, or in another format.';

/** Several workers that read files side by side. Each is made when there is something for it to read. */
export class Readers {
  private readonly idle: Reader[] = [];
  private readonly all = new Set<Reader>();
  private readonly waiting: Waiting[] = [];

  /** @param connect gives a reader the way to where what is read is kept */
  constructor(
    private readonly connect: (port: MessagePort) => void,
    private readonly most = Math.min(MOST_READERS, navigator.hardwareConcurrency || 2),
    private readonly make: () => Worker = () => new Worker(new URL('./reader.worker', import.meta.url), { type: 'module' }),
    private readonly patience = PATIENCE,
  ) {}

  /** Reads a file when a reader is free. @returns null if it was stopped before it was read */
  read(
    key: number,
    name: string,
    file: Blob,
    options: ReadOptions & TableOptions,
    progress: (share: number) => void,
  ): Promise<FileOutcome | null> {
    return new Promise((done) => {
      this.waiting.push({ key, name, file, options, progress, done });
      this.goOn();
    });
  }

  /** Stops reading: what was read stays where it is kept, and nothing more comes. */
  stop(): void {
    for (const { done } of this.waiting.splice(0)) done(null);
    for (const reader of this.all) reader.end();
    this.all.clear();
    this.idle.length = 0;
  }

  private goOn(): void {
    while (this.waiting.length > 0) {
      const reader = this.idle.pop() ?? (this.all.size < this.most ? this.another() : undefined);
      if (!reader) return;
      void reader.read(this.waiting.shift()!).then((usable) => {
        if (usable) this.idle.push(reader);
        else this.all.delete(reader);
        this.goOn();
      });
    }
  }

  private another(): Reader {
    const { port1, port2 } = new MessageChannel();
    this.connect(port1);
    const reader = new Reader(this.make(), port2, this.patience);
    this.all.add(reader);
    return reader;
  }
}

/** One worker that reads, and what it is reading. */
class Reader {
  private readonly remote: Remote<ReaderWorker>;
  private reading: Waiting | null = null;
  private ended = false;
  private broken = false;

  constructor(
    private readonly worker: Worker,
    port: MessagePort,
    private readonly patience: number,
  ) {
    this.remote = wrap<ReaderWorker>(worker);
    void this.remote.connect(transfer(port, [port]));
  }

  /** @returns whether it can read another: not one that was ended, or that a file brought down */
  async read(asked: Waiting): Promise<boolean> {
    this.reading = asked;
    const { key, name, file, options, progress, done } = asked;
    const { promise: givenUp, resolve } = Promise.withResolvers<FileOutcome>();
    const giveUp = (trouble: string): void => {
      resolve({ trouble, encodings: [], remedy: {} });
      this.worker.terminate();
      this.broken = true;
    };
    let timer: ReturnType<typeof setTimeout> | undefined;
    const wait = (): void => {
      clearTimeout(timer);
      timer = setTimeout(() => giveUp(ENDLESS), this.patience);
    };
    const told = (share: number): void => {
      wait();
      progress(share);
    };
    // a file that brings the worker down must not hold up the others, nor one without an end
    this.worker.onerror = () => giveUp(DAMAGED);
    wait();
    const outcome = await Promise.race([this.remote.read(key, name, file, options, proxy(told)), givenUp]);
    clearTimeout(timer);
    this.reading = null;
    if (!this.ended) done(outcome);
    return !this.ended && !this.broken;
  }

  end(): void {
    this.ended = true;
    this.worker.terminate();
    this.reading?.done(null);
  }
}
