import { mixed } from '../../../ui/charts/mixed';
import { shortened } from '@core/text/shortened';
import type { TableCell } from '../number-table';
import type { TableHead } from '../table-head';
import { Drawing } from './draw';

const [NAMES, CELL, ROW, HEADS, AROUND] = [250, 44, 22, 150, 12];
/** Cells that a picture can show: more are a table to be calculated with. */
const MOST_CELLS = 20_000;
/** How much of the hue a shade has, as on the screen. */
const SHADES = [0.08, 0.15, 0.22, 0.29, 0.37, 0.45, 0.82, 0.92];

/** A table with its headings and shades. @returns null where it is too large for a picture */
export function tableDrawing(
  rows: readonly TableHead[],
  columns: readonly TableHead[],
  cellOf: (row: number, column: number) => TableCell,
): (() => SVGSVGElement) | null {
  if (rows.length * columns.length > MOST_CELLS) return null;
  return () => {
    const drawing = new Drawing(NAMES + columns.length * CELL + 90 + 2 * AROUND);
    const [ink, second, rule] = ['--ink', '--ink-second', '--rule'].map(drawing.token) as [string, string, string];
    const xOf = (column: number): number => AROUND + NAMES + column * CELL;
    const yOf = (row: number): number => AROUND + HEADS + row * ROW;
    columns.forEach(({ name }, column) => {
      const [x, y] = [xOf(column) + CELL / 2, yOf(0) - 8];
      drawing.text(shortened(name, 30), x, y, { transform: `rotate(-50 ${x} ${y})`, 'font-size': 11 });
    });
    rows.forEach(({ name, code }, row) => {
      const y = yOf(row) + 15;
      if (code) drawing.swatch(code.mark, code.colour, AROUND, y);
      drawing.text(shortened(name, 36), AROUND + (code ? 28 : 0), y);
      drawing.line(AROUND, yOf(row) + ROW, xOf(columns.length), yOf(row) + ROW, rule, 0.5);
      columns.forEach((_, column) => {
        const { words, shade, empty, absent } = cellOf(row, column);
        if (shade !== null)
          drawing.rect(
            xOf(column),
            yOf(row),
            CELL - 1,
            ROW - 1,
            mixed(drawing.token('--surface'), drawing.token('--accent'), SHADES[shade]!),
          );
        drawing.text(absent ? '∅' : empty ? '–' : words, xOf(column) + CELL - 7, y, {
          'text-anchor': 'end',
          fill: empty && !absent ? second : shade !== null && shade > 5 ? drawing.token('--on-accent') : ink,
        });
      });
    });
    return drawing.ended(yOf(rows.length) + AROUND);
  };
}
