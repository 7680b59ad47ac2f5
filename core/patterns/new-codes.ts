import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';
import type { PassageColumns } from '../model/passage-columns';

/** What one document brought to the codebook. */
export interface NewCodes {
  readonly documentId: Id;
  /** Codes found in it that no document before it has. */
  readonly fresh: number;
  /** Distinct codes up to and with it. */
  readonly total: number;
}

/**
 * New codes document by document, in the order in which they were first coded, and the cumulative count: while it
 * rises, new codes still appear. Documents without a coding are left out. Counts codes, not passages.
 */
export function newCodesByDocument(passages: Table<PassageColumns>, documentIds: Iterable<Id>): NewCodes[] {
  const coded: { columns: PassageColumns; first: number }[] = [];
  for (const id of documentIds) {
    const columns = passages[id];
    if (!columns || columns.codingAt.length === 0) continue;
    coded.push({ columns, first: columns.codingAt.reduce((least, at) => Math.min(least, at), Infinity) });
  }
  const seen = new Set<Id>();
  return coded
    .sort((a, b) => a.first - b.first || (a.columns.documentId < b.columns.documentId ? -1 : 1))
    .map(({ columns }) => {
      const before = seen.size;
      for (const row of columns.codingCode) seen.add(columns.codes[row]!);
      return { documentId: columns.documentId, fresh: seen.size - before, total: seen.size };
    });
}
