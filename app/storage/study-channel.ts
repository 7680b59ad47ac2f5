import type { JournalEntry } from '@core/change/journal';
import type { Id } from '@core/model/ids';

/** Records that are told at most; copying more would hold the interface up. */
const LARGEST_TOLD = 500;

/** Tells the other tabs of a study what this one has written. */
export class StudyChannel {
  private readonly channel: BroadcastChannel;

  constructor(studyId: Id, onEntry: (entry: JournalEntry) => void) {
    this.channel = new BroadcastChannel(`filum-study-${studyId}`);
    this.channel.onmessage = (event: MessageEvent<JournalEntry>) => onEntry(event.data);
  }

  /** A large entry goes without its records: the other tabs read them from disk, and telling takes no time. */
  tell(entry: JournalEntry): void {
    this.channel.postMessage(entry.change.length > LARGEST_TOLD ? { ...entry, seq: Infinity, change: [] } : entry);
  }

  close(): void {
    this.channel.close();
  }
}
