/** A cell that a spreadsheet might run as a formula begins with one of these, perhaps behind apostrophes. */
const FORMULA = /^'*[=+\-@\t\r]/;
const GUARDED = /^''*[=+\-@\t\r]/;

/** A cell that no spreadsheet runs: what could be taken for a formula gets an apostrophe in front. */
export const guarded = (cell: string): string => (FORMULA.test(cell) ? `'${cell}` : cell);

/** The cell as it was before {@link guarded}. */
export const unguarded = (cell: string): string => (GUARDED.test(cell) ? cell.slice(1) : cell);
