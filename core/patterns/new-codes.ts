import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';
import { codeNumbersOf, numbersGiven } from '../passages/code-numbers';
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
    coded.push({ columns, first: firstCoding(columns) });
  }
  coded.sort((a, b) => a.first - b.first || (a.columns.documentId < b.columns.documentId ? -1 : 1));
  const numbers = coded.map(({ columns }) => codeNumbersOf(columns.codes));
  const seen = new Uint8Array(numbersGiven());
  let total = 0;
  return coded.map(({ columns }, at) => {
    const before = total;
    for (const number of numbers[at]!) if (seen[number] === 0) total += seen[number] = 1;
    return { documentId: columns.documentId, fresh: total - before, total };
  });
}

const firsts = new WeakMap<PassageColumns, number>();

/** When the first coding of a document was given, ms since 1970. Remembered with its columns. */
function firstCoding(columns: PassageColumns): number {
  let first = firsts.get(columns);
  if (first === undefined) {
    first = Infinity;
    const { codingAt } = columns;
    for (const at of codingAt) if (at < first) first = at;
    firsts.set(columns, first);
  }
  return first;
}
