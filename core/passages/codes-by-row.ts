import type { PassageColumns } from '../model/passage-columns';

/**
 * The codes each passage carries, as local numbers, each once, in the order they were given. A passage without any is
 * left undefined.
 */
export function codesByRow(columns: PassageColumns): (number[] | undefined)[] {
  const byRow = new Array<number[] | undefined>(columns.starts.length);
  for (let at = 0; at < columns.codingRow.length; at++) {
    const codes = (byRow[columns.codingRow[at]!] ??= []);
    const code = columns.codingCode[at]!;
    if (!codes.includes(code)) codes.push(code);
  }
  return byRow;
}
