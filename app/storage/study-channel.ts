import type { JournalEntry } from '@core/change/journal';
import type { Id } from '@core/model/ids';

/** Tells the other tabs of a study what this one has written. */
export class StudyChannel {
  private readonly channel: BroadcastChannel;

  constructor(studyId: Id, onEntry: (entry: JournalEntry) => void) {
    this.channel = new BroadcastChannel(`filum-study-${studyId}`);
    this.channel.onmessage = (event: MessageEvent<JournalEntry>) => onEntry(event.data);
  }

  tell(entry: JournalEntry): void {
    this.channel.postMessage(entry);
  }

  close(): void {
    this.channel.close();
  }
}
