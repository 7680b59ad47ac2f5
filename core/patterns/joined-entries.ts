import type { PassageColumns } from '../model/passage-columns';
import { NO_ENTRY, SEVERAL, type EntriesOfCodes } from './entries-of-codes';
import { foundByCodes } from './found-codes';
import { joinedAny } from './joined';

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
 * @param withAny whether that one is looked at as well: it takes longer than all others
 * @returns null where there is none
 */
export function joinedEntries(columns: PassageColumns, codes: EntriesOfCodes, entries: number, withAny: boolean): JoinedEntries | null {
  const are = entriesToJoin(columns, codes, entries);
  if (!withAny) are[entries] = 0;
  if (!are.includes(1)) return null;
  const occurrences = new Map<number, readonly (readonly number[])[]>();
  foundByCodes(columns, codes, entries, are).forEach((found, entry) => {
    const together = found && joinedAny(columns, found);
    if (together) occurrences.set(entry, together);
    else are[entry] = 0;
  });
  return occurrences.size > 0 ? { are, occurrences } : null;
}

/** Areas of pictures may overlap in the rows that they reach over without touching: that is seen when they are looked at. */
function entriesToJoin(
  { starts, ends, codingRow, codingCode, codingCoder }: PassageColumns,
  codes: EntriesOfCodes,
  entries: number,
): Uint8Array {
  const { numbers, single, lists } = codes;
  const lastRow = new Int32Array(entries + 1).fill(-1);
  /** How far the passages of an entry reach that came so far: they come in the order in which they begin. */
  const reach = new Uint32Array(entries + 1);
  const firstCoder = new Int32Array(entries + 1);
  const joining = new Uint8Array(entries + 1);
  for (let at = 0; at < codingRow.length; at++) {
    const number = numbers[codingCode[at]!]!;
    const one = single[number]!;
    if (one === NO_ENTRY) continue;
    const list = one === SEVERAL ? lists[number]! : null;
    const [row, coder] = [codingRow[at]! | 0, codingCoder[at]!];
    const count = list ? list.length : 1;
    // its entries, and any
    for (let nth = 0; nth <= count; nth++) {
      const entry = nth === count ? entries : list ? list[nth]! : one;
      const last = lastRow[entry]!;
      if (last === -1) firstCoder[entry] = coder;
      else if (firstCoder[entry] !== coder) joining[entry]! |= TWO_CODERS;
      if (last === row) continue;
      if (last !== -1 && starts[row]! < reach[entry]!) joining[entry]! |= OVERLAP;
      lastRow[entry] = row;
      if (ends[row]! > reach[entry]!) reach[entry] = ends[row]!;
    }
  }
  return joining.map((found) => (found === BOTH ? 1 : 0));
}
