import { nameOf, type Entry } from '@core/patterns/axis';
import { shownNumber } from '@core/patterns/normalise';
import { shortened } from '@core/text/shortened';
import type { GroupedBars } from '../../ui/charts/bars-chart';

/** Things and groups that bars can be told apart for. */
const [MOST_THINGS, MOST_GROUPS] = [60, 6];
/** Characters of a name that have room beside bars. */
const LONGEST = 40;

/** A row or column: an entry, or null for all of them at the end, and its place in what was counted. */
export interface PlacedLine {
  readonly entry: Entry | null;
  readonly at: number;
}

/** A table as bars: as many rows and groups as can be told from each other, in their order, without what stands for all. */
export interface CrossBars extends GroupedBars {
  readonly rows: readonly PlacedLine[];
  readonly columns: readonly PlacedLine[];
  /** What is left out, in a sentence; empty where nothing is. */
  readonly left: string;
}

/** @param valueAt what is shown of places in what was counted @param broken whether values have digits after the point */
export function crossBars(
  all: { readonly rows: readonly PlacedLine[]; readonly columns: readonly PlacedLine[] },
  valueAt: (row: number, column: number) => number | null,
  broken: boolean,
): CrossBars {
  const [own, groups] = [all.rows, all.columns].map((lines) => lines.filter(({ entry }) => entry !== null)) as [PlacedLine[], PlacedLine[]];
  const [rows, columns] = [own.slice(0, MOST_THINGS), groups.slice(0, MOST_GROUPS)];
  const name = ({ entry }: PlacedLine): string => (entry ? nameOf(entry) : '');
  const left = [
    own.length > rows.length ? `${rows.length} of ${own.length.toLocaleString()} rows` : '',
    groups.length > columns.length ? `${columns.length} of ${groups.length.toLocaleString()} groups` : '',
  ].filter(Boolean);
  return {
    ...{ rows, columns },
    left: left.length > 0 ? `Drawn are the first ${left.join(' and ')}; the table has all, and can be ordered by any of them.` : '',
    things: rows.map((row) => shortened(name(row), LONGEST)),
    groups: columns.map(name),
    values: columns.map((column) => rows.map((row) => valueAt(row.at, column.at))),
    said: (thing, group) => {
      const [row, column] = [rows[thing], columns[group]];
      if (!row || !column) return '';
      const value = valueAt(row.at, column.at);
      return `${name(row)}, ${name(column)}: ${value === null ? 'nothing to divide by' : shownNumber(value, undefined, broken)}`;
    },
  };
}
