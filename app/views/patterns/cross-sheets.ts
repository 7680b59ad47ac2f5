import { nameOf } from '@core/patterns/axis';
import type { CrossTable } from '@core/patterns/cross-table';
import type { PlacedLine } from './cross-bars';
import { groupSheet } from './group-words';
import type { Sheet } from './take-out';

/** A table as it is taken out: its lines as they are shown, and what stands in them. */
interface TakenOut {
  readonly table: CrossTable;
  readonly rows: readonly PlacedLine[];
  readonly columns: readonly PlacedLine[];
  readonly caseWord: string;
  readonly countAt: (row: number, column: number) => number;
  /** What is shown in place of counts; null where they are shown as they are. */
  readonly shownAt: ((row: number, column: number) => number | null) | null;
  /** What was written of a cell that is marked as expected and not found, by its keys; null where it is not. */
  readonly absentAt: (row: string, column: string) => string | null;
}

/** The sheets of a table: as shown, as counted, how large groups are, and what is missing. */
export function crossSheets({ table, rows, columns, caseWord, countAt, shownAt, absentAt }: TakenOut): Sheet[] {
  const nameOfLine = ({ entry }: PlacedLine): string => (entry ? nameOf(entry) : 'all');
  const head = ['', ...columns.map(nameOfLine)];
  const sheet = (name: string, valueAt: (row: number, column: number) => number | null): Sheet => ({
    name,
    rows: [head, ...rows.map((row) => [nameOfLine(row), ...columns.map((column) => valueAt(row.at, column.at) ?? '')])],
  });
  const absent = rows.flatMap(({ entry: row }) =>
    columns.flatMap(({ entry: column }) => {
      const written = row && column ? absentAt(row.key, column.key) : null;
      return row && column && written !== null ? [[nameOf(row), nameOf(column), written]] : [];
    }),
  );
  return [
    ...(shownAt ? [sheet('Shown', shownAt)] : []),
    sheet('Counted', countAt),
    groupSheet(
      columns.flatMap(({ entry }) => entry ?? []),
      columns.map(({ at }) => table.sizes[at]!),
      caseWord,
    ),
    ...(absent.length > 0 ? [{ name: 'Expected, not found', rows: [['', 'where', 'why'], ...absent] }] : []),
  ];
}
