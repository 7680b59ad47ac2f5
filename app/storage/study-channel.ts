import type { JournalEntry } from '@core/change/journal';
import type { Id } from '@core/model/ids';

/** Records that are told at most; copying more would hold the interface up. */
const LARGEST_TOLD = 500;

/** Tells the other tabs of a study what this one has written. */
export class StudyChannel {
  private readonly channel: BroadcastChannel;

  /** @param onEntry is given what was written, or null where it is too much to be told and has to be read from disk */
  constructor(studyId: Id, onEntry: (entry: JournalEntry | null) => void) {
    this.channel = new BroadcastChannel(`filum-study-${studyId}`);
    this.channel.onmessage = (event: MessageEvent<JournalEntry | null>) => onEntry(event.data);
  }

  tell(entry: JournalEntry): void {
    this.channel.postMessage(entry.change.length > LARGEST_TOLD ? null : entry);
  }

  close(): void {
    this.channel.close();
  }
}
