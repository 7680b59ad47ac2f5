import type { Id } from '@core/model/ids';

const lockName = (studyId: Id): string => `filum-writer-${studyId}`;

/**
 * The right to write a study, held by one tab at a time (Web Locks). It is given back when the tab closes,
 * however it closes. Even if two tabs believed to hold it, the journal number checked in every
 * transaction keeps them from overwriting each other.
 */
export class WriterLock {
  private release: (() => void) | null = null;
  private held: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly studyId: Id,
    private readonly onLost: () => void,
  ) {}

  /** Tries to become the writer. @param takeOver takes the right from the tab that has it */
  acquire(takeOver = false): Promise<boolean> {
    return new Promise((resolve) => {
      const options = takeOver ? { steal: true } : { ifAvailable: true };
      const held = navigator.locks.request(lockName(this.studyId), options, (lock) => {
        if (!lock) {
          resolve(false);
          return undefined;
        }
        return new Promise<void>((release) => {
          this.release = release;
          resolve(true);
        });
      });
      this.held = held.catch(() => {
        this.release = null;
        this.onLost();
      });
    });
  }

  /** Done when another tab can have the right. */
  async giveBack(): Promise<void> {
    this.release?.();
    this.release = null;
    await this.held;
  }
}

/** Does something to a study that no tab may be writing meanwhile. @returns false if one is */
export async function whileNobodyWrites(studyId: Id, action: () => Promise<unknown>): Promise<boolean> {
  return navigator.locks.request(lockName(studyId), { ifAvailable: true }, async (lock) => {
    if (!lock) return false;
    await action();
    return true;
  });
}
