import type { ShownAs } from '../model/pattern';
import type { CrossTable } from './cross-table';

/** As much of a table as its numbers are shown by. */
export type ShownTable = Pick<CrossTable, 'columns' | 'rows' | 'counts' | 'sizes'>;

/** A cell as it is shown. */
export interface ShownCell {
  /** What was counted. */
  readonly count: number;
  /** What is shown; null where it cannot be said: there is nothing to divide by. */
  readonly value: number | null;
  /** Of `against expected`: the count expected if rows and columns had nothing to do with each other. */
  readonly expected?: number;
}

/** Expected counts under which a residual says little (Cochran 1954). */
export const FEW_EXPECTED = 5;

/** Cases under which a group is small. */
export const FEW_CASES = 5;

/**
 * A cell of a table in another measure. Shares are of the row's or column's own total, which is no sum where a passage
 * is in several columns or rows. `per case` divides by all cases of the group in scope, coded or not; `per 1,000 words`
 * by the words of the group. `presence` is 1 where anything was counted. `against expected` is the Pearson residual,
 * (found − expected) ÷ √expected, with expected = row total × column total ÷ total.
 * @param row place of the row; one more than the last for all rows @param column likewise
 */
export function shownCell({ columns, rows, counts, sizes }: ShownTable, row: number, column: number, as: ShownAs): ShownCell {
  const width = columns.length + 1;
  const at = (r: number, c: number): number => counts[r * width + c]!;
  const [allRows, allColumns] = [rows.length, columns.length];
  const count = at(row, column);
  const per = (whole: number | null, times = 1): ShownCell => ({ count, value: whole ? (count / whole) * times : null });
  switch (as) {
    case 'as they are':
      return { count, value: count };
    case 'per row':
      return per(at(row, allColumns), 100);
    case 'per column':
      return per(at(allRows, column), 100);
    case 'per case':
      return per(sizes[column]!.cases);
    case 'per 1,000 words':
      return per(sizes[column]!.words, 1_000);
    case 'presence':
      return { count, value: count > 0 ? 1 : 0 };
    case 'against expected': {
      if (row === allRows || column === allColumns) return { count, value: null };
      const total = at(allRows, allColumns);
      const expected = total === 0 ? 0 : (at(row, allColumns) * at(allRows, column)) / total;
      return { count, value: expected === 0 ? null : residual(count, expected), expected };
    }
  }
}

/** The largest number of a table in a measure, wherever it is below or above: what its shading goes by. */
export function largestShown(table: ShownTable, as: ShownAs): number {
  let largest = 0;
  for (let row = 0; row < table.rows.length; row++)
    for (let column = 0; column < table.columns.length; column++)
      largest = Math.max(largest, Math.abs(shownCell(table, row, column, as).value ?? 0));
  return largest;
}

/** What is said beside a residual. */
export const expectedWords = (expected: number): string =>
  `${shownNumber(expected)} expected${expected < FEW_EXPECTED ? ', too few to say much' : ''}`;

/** Pearson's residual: how far a count is from what was expected, in standard deviations of a Poisson count. */
export const residual = (found: number, expected: number): number => (found - expected) / Math.sqrt(expected);

/**
 * A number as it is written in a table: whole ones as they are, others with one digit, and never 0 for what is not.
 * @param digit writes whole ones with the digit as well, where they stand among others
 */
export function shownNumber(value: number, language?: string, digit = false): string {
  if (Number.isInteger(value) && (value === 0 || !digit)) return writerOf(language, 0).format(value);
  if (Math.abs(value) < 0.05) return value > 0 ? '< 0.1' : '> −0.1';
  return writerOf(language, 1).format(value);
}

const writers = new Map<string, Intl.NumberFormat>();

/** What writes numbers with so many digits: to make one takes longer than to write a hundred with it, and a table has thousands. */
function writerOf(language: string | undefined, digits: number): Intl.NumberFormat {
  const key = `${language ?? ''} ${digits}`;
  let writer = writers.get(key);
  if (!writer)
    writers.set(key, (writer = new Intl.NumberFormat(language, { minimumFractionDigits: digits, maximumFractionDigits: digits })));
  return writer;
}
