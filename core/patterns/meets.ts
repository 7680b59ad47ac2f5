import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import { eachPairThatMeets } from '../passages/meetings';

/**
 * With which other codes some codes meet in a document, and how often: pairs of overlapping passages, one that carries a
 * code asked for and one that carries the other; a passage that carries both is one pair with itself. Passages that only
 * touch do not meet. Of the codes asked for none is counted with another of them.
 * @param codesOfRow the codings that count, by `codesByRow`
 * @param codeIds the codes asked for: a code, or a code with what is under it
 * @returns by the other code
 */
export function meets(
  columns: PassageColumns,
  codesOfRow: readonly (readonly number[] | undefined)[],
  codeIds: ReadonlySet<Id>,
): ReadonlyMap<Id, number> {
  const asked = columns.codes.map((id) => codeIds.has(id));
  const isAsked = codesOfRow.map((codes) => codes?.some((code) => asked[code]) ?? false);
  const counts = new Map<Id, number>();
  /** Counts what another passage carries, for one that was asked for. */
  const count = (one: number, other: number): void => {
    if (!isAsked[one]) return;
    for (const code of codesOfRow[other] ?? [])
      if (!asked[code]) counts.set(columns.codes[code]!, (counts.get(columns.codes[code]!) ?? 0) + 1);
  };
  for (let row = 0; row < isAsked.length; row++) count(row, row);
  eachPairThatMeets(columns, (first, second) => {
    count(first, second);
    count(second, first);
  });
  return counts;
}
