import type { JournalEntry } from '@core/change/journal';

/** Entries that are kept at most, and records in them: one that joins two codes may hold tens of thousands. */
const MOST_ENTRIES = 200;
const MOST_RECORDS = 60_000;

/** The newest entries of the journal, in memory. The newest of all is always there, however large; others make room. */
export class RecentEntries {
  private readonly entries = new Map<number, JournalEntry>();
  private records = 0;

  add(entry: JournalEntry): void {
    this.entries.set(entry.seq, entry);
    this.records += entry.change.length;
    for (const [seq, oldest] of this.entries) {
      if (seq === entry.seq || (this.entries.size <= MOST_ENTRIES && this.records <= MOST_RECORDS)) break;
      this.entries.delete(seq);
      this.records -= oldest.change.length;
    }
  }

  get(seq: number): JournalEntry | undefined {
    return this.entries.get(seq);
  }

  clear(): void {
    this.entries.clear();
    this.records = 0;
  }
}
