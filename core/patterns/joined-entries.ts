import type { PassageColumns } from '../model/passage-columns';
import type { ListsOfEntries } from './entries-of-codes';
import { joinedByCoders } from './joined';

const [OVERLAP, TWO_CODERS, BOTH] = [1, 2, 3];

/** Entries of a document of which some passages may count once together, though several coders marked them. */
export interface JoinedEntries {
  /** By entry, whether it is one of them. */
  readonly are: Uint8Array;
  /** Of each of them the rows that count once together. */
  readonly occurrences: ReadonlyMap<number, readonly (readonly number[])[]>;
}

/**
 * Looks one by one at the entries that are given by more than one coder, and to passages that overlap; all others count
 * as often as there are passages. One entry more stands for any of them.
 * @returns null where there is none
 */
export function joinedEntries(columns: PassageColumns, lists: ListsOfEntries, entries: number): JoinedEntries | null {
  const are = entriesToJoin(columns, lists, entries);
  if (!are.includes(1)) return null;
  const occurrences = new Map<number, readonly (readonly number[])[]>();
  for (const [entry, codings] of foundOf(columns, lists, are)) {
    const rows = [...new Set(codings.map((at) => columns.codingRow[at]!))];
    occurrences.set(entry, joinedByCoders(columns, { rows, codings }));
  }
  return { are, occurrences };
}

/** Areas of pictures may overlap in the rows that they reach over without touching: that is seen when they are looked at. */
function entriesToJoin(
  { starts, ends, codingRow, codingCode, codingCoder }: PassageColumns,
  lists: ListsOfEntries,
  entries: number,
): Uint8Array {
  const lastRow = new Int32Array(entries + 1).fill(-1);
  /** How far the passages of an entry reach that came so far: they come in the order in which they begin. */
  const reach = new Float64Array(entries + 1);
  const firstCoder = new Int32Array(entries + 1);
  const joining = new Uint8Array(entries + 1);
  const meet = (entry: number, row: number, coder: number): void => {
    const last = lastRow[entry]!;
    if (last === -1) firstCoder[entry] = coder;
    else if (firstCoder[entry] !== coder) joining[entry]! |= TWO_CODERS;
    if (last === row) return;
    if (last !== -1 && starts[row]! < reach[entry]!) joining[entry]! |= OVERLAP;
    lastRow[entry] = row;
    if (ends[row]! > reach[entry]!) reach[entry] = ends[row]!;
  };
  for (let at = 0; at < codingRow.length; at++) {
    const line = lists[codingCode[at]!];
    if (!line) continue;
    for (const entry of line) meet(entry, codingRow[at]!, codingCoder[at]!);
    meet(entries, codingRow[at]!, codingCoder[at]!);
  }
  return joining.map((found) => (found === BOTH ? 1 : 0));
}

/** The codings of the entries that are looked at one by one, ascending. */
function foundOf({ codingCode }: PassageColumns, lists: ListsOfEntries, are: Uint8Array): Map<number, number[]> {
  const found = new Map<number, number[]>();
  const put = (entry: number, at: number): void => {
    if (!are[entry]) return;
    const some = found.get(entry);
    if (some) some.push(at);
    else found.set(entry, [at]);
  };
  for (let at = 0; at < codingCode.length; at++) {
    const line = lists[codingCode[at]!];
    if (!line) continue;
    for (const entry of line) put(entry, at);
    put(are.length - 1, at);
  }
  return found;
}
