import { computed, signal, type Signal } from '@angular/core';
import type { CellKeys } from '@core/analysis/table-requests';
import type { CellAt } from './number-table';
import type { TableHead } from './table-head';

/** The keys of the row and the column that a table is ordered by. */
interface SortedBy {
  readonly row?: string;
  readonly column?: string;
}

/**
 * A table whose rows and columns the researcher orders by one of them: places as they are shown, and what was counted
 * there. What stands for all, at the end, stays there.
 */
export class SortedLines {
  readonly by = signal<SortedBy>({});
  readonly rows: Signal<readonly number[]>;
  readonly columns: Signal<readonly number[]>;
  /** The largest of what was counted, without what stands for all: what shading goes by. */
  readonly largest: Signal<number>;

  /** @param heads of rows and columns as they are counted, without those for all @param valueAt one more than the last stands for all; null, where nothing can be said, comes last */
  constructor(
    private readonly heads: Signal<{ readonly rows: readonly TableHead[]; readonly columns: readonly TableHead[] }>,
    valueAt: Signal<(row: number, column: number) => number | null>,
  ) {
    const ordered = (size: number, value: ((at: number) => number | null) | null): number[] => {
      const places = Array.from({ length: size }, (_, at) => at);
      return value ? places.sort((a, b) => (value(b) ?? -1) - (value(a) ?? -1)) : places;
    };
    this.rows = computed(() => {
      const { rows, columns } = this.heads();
      const column = placeOf(columns, this.by().column);
      return ordered(rows.length, column === null ? null : (at) => valueAt()(at, column));
    });
    this.columns = computed(() => {
      const { rows, columns } = this.heads();
      const row = placeOf(rows, this.by().row);
      return ordered(columns.length, row === null ? null : (at) => valueAt()(row, at));
    });
    this.largest = computed(() => {
      const { rows, columns } = this.heads();
      let largest = 0;
      for (const row of rows.keys()) for (const column of columns.keys()) largest = Math.max(largest, valueAt()(row, column) ?? 0);
      return largest;
    });
  }

  /** Orders by a heading, or no longer. */
  pick(of: 'row' | 'column', { key }: TableHead): void {
    this.by.update(({ [of]: before, ...rest }) => (before === key ? rest : { ...rest, [of]: key }));
  }
}

/** The key of what stands for all. */
export const ALL_KEY = 'all of them';

/** The key of a heading as a cell is asked for by it: null for what stands for all. */
export const keyOfHead = ({ key }: TableHead): string | null => (key === ALL_KEY ? null : key);

/** The cell of some keys, as it is shown; -1 where there is none. */
export const cellAt = (rows: readonly TableHead[], columns: readonly TableHead[], { row, column }: CellKeys): CellAt => ({
  row: rows.findIndex((one) => keyOfHead(one) === row),
  column: columns.findIndex((one) => keyOfHead(one) === column),
});

function placeOf(heads: readonly TableHead[], key: string | undefined): number | null {
  if (key === undefined) return null;
  if (key === ALL_KEY) return heads.length;
  const at = heads.findIndex((one) => one.key === key);
  return at < 0 ? null : at;
}
