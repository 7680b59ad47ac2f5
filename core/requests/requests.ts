/** How far something is, 0 to 1. Whoever tells waits: a request that was ended goes no further. */
export type Tell = (share: number) => void | Promise<void>;

/** A request is no longer wanted: whoever asked ended it, or asked for the same anew. */
export class RequestEndedError extends Error {
  constructor() {
    super('It was stopped.');
    this.name = 'RequestEndedError';
  }
}

/** How long work goes on before it tells how far it is and others get their turn, in ms: a message that ends it must be heard. */
const WITHOUT_BREATH = 40;

/** A request at work. */
export class Running {
  private since = Date.now();
  private told = 0;
  private ended = false;

  constructor(private readonly progress: Tell) {}

  end(): void {
    this.ended = true;
  }

  /** @throws RequestEndedError once it is no longer wanted */
  check(): void {
    if (this.ended) throw new RequestEndedError();
  }

  /** Lets others have their turn, where it has been at work for a while. @throws RequestEndedError */
  async breathe(): Promise<void> {
    this.check();
    if (Date.now() - this.since < WITHOUT_BREATH) return;
    await new Promise((resolve) => setTimeout(resolve));
    this.since = Date.now();
    this.check();
  }

  /** Tells how far it is, now and then and when all is done, and breathes. To be called as often as one likes. */
  readonly tell = async (share: number): Promise<void> => {
    this.check();
    const now = Date.now();
    if (share === 1 || now - this.told >= WITHOUT_BREATH) {
      this.told = now;
      await this.progress(share);
    }
    await this.breathe();
  };
}

/**
 * The requests that somebody does the work of. Each has a number, given by whoever asks, by which it can be ended; of
 * those of one kind only the newest is wanted.
 */
export class Requests {
  private readonly running = new Map<number, Running>();
  private readonly newest = new Map<string, Running>();

  /** @param ready what has to be done before the work of any request; null where nothing has */
  constructor(private readonly ready: () => Promise<void> | null = () => null) {}

  /**
   * Does the work of a request.
   * @param kind a newer request of the same kind ends it; null where several of a kind are wanted, each until whoever asked ends it
   * @returns null if it was ended before it was done
   */
  async run<T>(
    kind: string | null,
    id: number,
    work: (running: Running) => T | Promise<T>,
    progress: Tell = () => undefined,
  ): Promise<T | null> {
    const running = new Running(progress);
    if (kind !== null) {
      this.newest.get(kind)?.end();
      this.newest.set(kind, running);
    }
    this.running.set(id, running);
    try {
      const waiting = this.ready();
      if (waiting) {
        await waiting;
        running.check();
      }
      const done = await work(running);
      running.check();
      return done;
    } catch (error) {
      if (error instanceof RequestEndedError) return null;
      throw error;
    } finally {
      this.running.delete(id);
      if (kind !== null && this.newest.get(kind) === running) this.newest.delete(kind);
    }
  }

  /** Ends a request, if it is still at work. */
  end(id: number): void {
    this.running.get(id)?.end();
  }
}
