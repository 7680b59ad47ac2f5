import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';

/**
 * The codes each passage carries, as local numbers, each once, in the order they were given. A passage without any is
 * left undefined.
 * @param coderIds whose codings count; null for everybody's
 */
export function codesByRow(columns: PassageColumns, coderIds: ReadonlySet<Id> | null): (number[] | undefined)[] {
  const counts = coderIds && columns.coders.map((id) => coderIds.has(id));
  const byRow = new Array<number[] | undefined>(columns.starts.length);
  for (let at = 0; at < columns.codingRow.length; at++) {
    if (counts && !counts[columns.codingCoder[at]!]) continue;
    const codes = (byRow[columns.codingRow[at]!] ??= []);
    const code = columns.codingCode[at]!;
    if (!codes.includes(code)) codes.push(code);
  }
  return byRow;
}
