import type { JournalEntry } from '@core/change/journal';
import type { Id } from '@core/model/ids';
import { fromRow, type JournalRow, type StudyDatabase } from './study-database';

/** Which entries of the journal are wanted. Every part that is given must hold. */
export interface JournalFilter {
  /** A word of `touchesOf`, or several of which one is enough. */
  readonly touching?: readonly string[];
  readonly coderId?: Id;
  /** ms since 1970, the end not included. */
  readonly from?: number;
  readonly to?: number;
  /** Any further condition; it is asked last. */
  readonly fits?: (entry: JournalEntry) => boolean;
}

/** Entries found, the newest first, and where to go on; null where there are no more. */
export interface JournalPage {
  readonly entries: readonly JournalEntry[];
  readonly next: number | null;
}

/**
 * Finds entries of the journal, the newest first, a page at a time. What is asked for by index (what is touched, by
 * whom, when) is found by it, so that a page takes as long in a journal of a million entries as in a short one; any
 * other condition walks back until the page is full.
 * @param before only entries with a smaller number
 * @param goOn asked now and then; a search that is no longer wanted ends
 */
export async function findEntries(
  db: StudyDatabase,
  filter: JournalFilter,
  before: number,
  limit: number,
  goOn: () => boolean = () => true,
): Promise<JournalPage> {
  const { touching = [], coderId, from = -Infinity, to = Infinity, fits } = filter;
  const journal = db.journal;
  const range =
    touching.length === 1
      ? journal.where('touches').equals(touching[0]!)
      : coderId && touching.length === 0
        ? journal.where('coderId').equals(coderId)
        : journal.where('seq').below(before);
  const entries: JournalEntry[] = [];
  let last = before;
  let more = false;
  let visited = 0;
  let wanted = true;
  await range
    .reverse()
    .until(() => entries.length >= limit || !wanted)
    .each((row: JournalRow) => {
      if (++visited % 256 === 0) wanted = goOn();
      if (row.seq >= before) return;
      last = row.seq;
      if (row.at < from || row.at >= to || (coderId && row.coderId !== coderId)) return;
      if (touching.length > 1 && !touching.some((word) => row.touches.includes(word))) return;
      const entry = fromRow(row);
      if (fits && !fits(entry)) return;
      entries.push(entry);
      more = entries.length >= limit;
    });
  return { entries, next: more || !wanted ? last : null };
}
