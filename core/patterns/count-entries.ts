import type { PassageColumns } from '../model/passage-columns';
import { NO_ENTRY, type EntriesOfCodes } from './entries-of-codes';
import { joinedEntries } from './joined-entries';
import type { CountedCells, Scratch } from './scratch';

/**
 * How often each entry was found in a document whose codings alone say so, by one walk over them: passages, or, joined,
 * those that coders marked over each other once. A cell is an entry.
 */
export function countEntries(
  scratch: Scratch,
  columns: PassageColumns,
  codes: EntriesOfCodes,
  entries: number,
  joined: boolean,
): CountedCells {
  const { codingRow, codingCode, starts } = columns;
  const { numbers, single, lists } = codes;
  const apart = joined ? joinedEntries(columns, codes, entries, false) : null;
  scratch.begin(entries, starts.length);
  const meet = (entry: number, row: number): void => {
    if (!apart?.are[entry] && scratch.isNew(entry, row)) scratch.add(entry);
  };
  for (let at = 0; at < codingRow.length; at++) {
    const number = numbers[codingCode[at]!]!;
    const entry = single[number]!;
    if (entry >= 0) meet(entry, codingRow[at]!);
    else if (entry !== NO_ENTRY) for (const one of lists[number]!) meet(one, codingRow[at]!);
  }
  for (const [entry, occurrences] of apart?.occurrences ?? []) scratch.add(entry, occurrences.length);
  return scratch.take();
}
