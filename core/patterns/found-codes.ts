import type { PassageColumns } from '../model/passage-columns';
import { NO_ENTRY, SEVERAL, type EntriesOfCodes } from './entries-of-codes';

/** The passages of a document in which one thing was found, and the codings that say so. */
export interface Found {
  /** Rows, ascending, each once. */
  readonly rows: readonly number[];
  /** Places among the codings, ascending; each once. */
  readonly codings: readonly number[];
}

/**
 * What the codings of a document say is found of each entry, and of any at the end; undefined where nothing is.
 * @param only by entry, whether it is looked for; null for all
 */
export function foundByCodes(
  { codingRow, codingCode }: PassageColumns,
  codes: EntriesOfCodes,
  entries: number,
  only: Uint8Array | null = null,
): (Found | undefined)[] {
  const { numbers, single, lists } = codes;
  const found = new Array<{ rows: number[]; codings: number[] } | undefined>(entries + 1);
  for (let at = 0; at < codingRow.length; at++) {
    const number = numbers[codingCode[at]!]!;
    const one = single[number]!;
    if (one === NO_ENTRY) continue;
    const list = one === SEVERAL ? lists[number]! : null;
    const row = codingRow[at]!;
    const count = list ? list.length : 1;
    for (let nth = 0; nth <= count; nth++) {
      const entry = nth === count ? entries : list ? list[nth]! : one;
      if (only && !only[entry]) continue;
      const some = (found[entry] ??= { rows: [], codings: [] });
      // codings are ordered by row: the last is the same one or one before it
      if (some.rows[some.rows.length - 1] !== row) some.rows.push(row);
      some.codings.push(at);
    }
  }
  return found;
}
