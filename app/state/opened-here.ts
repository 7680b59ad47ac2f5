import type { JournalEntry } from '@core/change/journal';
import type { Id } from '@core/model/ids';
import type { StudyState } from '@core/model/study-state';
import type { StudyChannel } from '../storage/study-channel';
import type { StudyStorage } from '../storage/study-storage';
import type { WriterLock } from '../storage/writer-lock';
import { RecentEntries } from './recent-entries';

/**
 * A study as this tab has it open: its disk, the right to write it, and what of it waits to be written. All of it
 * belongs to this one study and goes with it; whatever is done later looks first whether it is still the open one.
 */
export class OpenedHere {
  /** Entries on the screen that are not on disk yet, oldest first, with the state after each. */
  readonly pending: {
    readonly entry: JournalEntry;
    readonly after: StudyState | null;
    readonly media?: ReadonlyMap<string, Blob> | undefined;
  }[] = [];
  /** The newest entries, so that undoing them need not wait for the disk. */
  readonly recent = new RecentEntries();
  writing = false;
  /** A worker is writing an entry. */
  away = false;
  private waiting: (() => void)[] = [];

  constructor(
    readonly id: Id,
    readonly storage: StudyStorage,
    readonly lock: WriterLock,
    readonly channel: StudyChannel,
  ) {}

  /** Done when nothing is being written: all is on disk, or could not be written. */
  settled(): Promise<void> {
    if (this.pending.length === 0 || !this.writing) return Promise.resolve();
    return new Promise((resolve) => this.waiting.push(resolve));
  }

  /** Tells those who wait. */
  nowSettled(): void {
    for (const done of this.waiting.splice(0)) done();
  }

  /** Gives up what could not be written. @returns what was done in it, in words */
  giveUp(): string[] {
    return this.pending.splice(0).map(({ entry }) => entry.sentence);
  }

  async end(): Promise<void> {
    await this.lock.giveBack();
    this.channel.close();
    this.storage.close();
  }
}
