/** A cell of a grid, by row and column from 0. */
export interface Cell {
  readonly row: number;
  readonly column: number;
}

/** A rectangle of cells, its borders in it. */
export interface CellRange {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

/** The rectangle between two corners. */
export const rangeOf = (a: Cell, b: Cell): CellRange => ({
  top: Math.min(a.row, b.row),
  bottom: Math.max(a.row, b.row),
  left: Math.min(a.column, b.column),
  right: Math.max(a.column, b.column),
});

export const inRange = ({ top, bottom, left, right }: CellRange, { row, column }: Cell): boolean =>
  row >= top && row <= bottom && column >= left && column <= right;

/** Cells pasted from a spreadsheet (tab-separated lines, cells with line ends in quotation marks), placed from a corner. */
export function readPasted(text: string, corner: Cell): (Cell & { raw: string })[] {
  const lines = text.replace(/\r\n?/g, '\n').replace(/\n$/, '');
  const cells: (Cell & { raw: string })[] = [];
  let { row, column } = corner;
  for (const match of lines.matchAll(/(?:"((?:[^"]|"")*)"(?=[\t\n]|$)|([^\t\n]*))([\t\n]|$)/g)) {
    if (match.index >= lines.length && cells.length > 0 && match[0] === '' && !/[\t\n]$/.test(lines)) break;
    cells.push({ row, column, raw: (match[1]?.replace(/""/g, '"') ?? match[2] ?? '').trim() });
    if (match[3] === '\t') column++;
    else if (match[3] === '\n') {
      row++;
      ({ column } = corner);
    } else break;
  }
  return cells;
}
