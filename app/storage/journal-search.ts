import type { JournalEntry } from '@core/change/journal';
import { wishTest, type LogWish } from '@core/log/wish';
import { LogDigests } from './log-digests';
import { fromRow, type JournalRow, type StudyDatabase } from './study-database';

/** Which entries of the journal are wanted. Every part that is given must hold. */
export interface JournalFilter extends LogWish {
  /** A word of `touchesOf`, or several of which one is enough. */
  readonly touching?: readonly string[];
  /** Any further condition; it is asked last. */
  readonly fits?: (entry: JournalEntry) => boolean;
}

/** Entries found, the newest first, and where to go on; null where there are no more. */
export interface JournalPage {
  readonly entries: readonly JournalEntry[];
  readonly next: number | null;
}

/** Entries read at once when the journal is walked back: few at first, for what is found soon, then more. */
const FIRST_STEP = 400;
const LONGEST_STEP = 8_000;

/**
 * Finds entries of the journal, the newest first, a page at a time. What touches something is found by its index;
 * everything else by walking back through the journal in strides until the page is full, past the blocks whose digest
 * says that nothing wanted is in them.
 * @param before only entries with a smaller number
 * @param goOn asked between strides; a search that is no longer wanted ends
 */
export async function findEntries(
  db: StudyDatabase,
  filter: JournalFilter,
  before: number,
  limit: number,
  goOn: () => boolean = () => true,
): Promise<JournalPage> {
  const { touching = [], from = -Infinity, to = Infinity, fits } = filter;
  const isWished = wishTest(filter);
  const entries: JournalEntry[] = [];
  /** Takes what fits of some rows, the newest first. @returns where to go on if the page is full, else null */
  const take = (rows: readonly JournalRow[]): number | null => {
    for (const row of rows) {
      let unpacked: JournalEntry | undefined;
      const entry = (): JournalEntry => (unpacked ??= fromRow(row));
      if (!isWished({ at: row.at, coderId: row.coderId, sentence: row.sentence, change: () => entry().change })) continue;
      if (fits && !fits(entry())) continue;
      if (entries.push(entry()) >= limit) return row.seq;
    }
    return null;
  };

  if (touching.length > 0) {
    const keys = await Promise.all(touching.map((word) => db.journal.where('touches').equals(word).primaryKeys()));
    // a few entries touch thousands of things, and are not looked up by each
    await db.touched.each(({ seq, words }) => {
      if (touching.some((word) => words.includes(word))) keys.push([seq]);
    });
    const wanted = [...new Set(keys.flat())].filter((seq) => seq < before).sort((a, b) => b - a);
    for (let at = 0; at < wanted.length; at += FIRST_STEP) {
      const rows = await db.journal.bulkGet(wanted.slice(at, at + FIRST_STEP));
      const full = take(rows.filter((row) => row !== undefined));
      if (full !== null) return { entries, next: full };
      if (!goOn()) return { entries, next: wanted[at]! };
    }
    return { entries, next: null };
  }

  const digests = filter.coderId || filter.kind || filter.words?.length ? await LogDigests.of(db) : null;
  let step = Math.min(FIRST_STEP, limit);
  let walked = 0;
  let end = before === Infinity ? ((await db.journal.orderBy('seq').last())?.seq ?? 0) + 1 : before;
  try {
    while (end > 1) {
      const stretches = digests ? digests.stretchesBefore(end, step, filter, from, to) : [{ start: Math.max(1, end - step), end }];
      if (stretches.length === 0) break;
      // many rows in one reading take a fraction of the time of one after the other
      const read = await Promise.all(stretches.map((stretch) => db.journal.where('seq').between(stretch.start, stretch.end).toArray()));
      for (const rows of read) {
        digests?.learn(rows);
        walked += rows.length;
        const full = take(rows.reverse());
        if (full !== null) return { entries, next: full };
        // entries are written in the order of time: nothing older lies within the period
        if (rows.length > 0 && rows.at(-1)!.at < from) return { entries, next: null };
      }
      end = stretches.at(-1)!.start;
      // as many as the rest of the page is likely to take
      const likely = entries.length > 0 ? (1.1 * (limit - entries.length) * walked) / entries.length : 0;
      step = Math.min(LONGEST_STEP, Math.max(step * 2, Math.ceil(likely)));
      if (!goOn()) return { entries, next: end };
    }
  } finally {
    await digests?.keep();
  }
  return { entries, next: null };
}
