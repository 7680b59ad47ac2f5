import type { Entry } from './axis';

/** Adds a table that lies by columns to one that lies by rows, a block after the other so that both stay at hand. */
export function addTurned(counts: Float64Array, byColumn: Float64Array, height: number, width: number): void {
  const block = 32;
  for (let top = 0; top < height; top += block)
    for (let left = 0; left < width; left += block)
      for (let row = top; row < Math.min(height, top + block); row++)
        for (let column = left; column < Math.min(width, left + block); column++)
          counts[row * width + column]! += byColumn[column * height + row]!;
}

/** The groups that are shown, by place: one for what is in no other only where something is in it. */
export const shownGroups = (groups: readonly Entry[], holdsAny: (at: number) => boolean): number[] =>
  [...groups.keys()].filter((at) => !groups[at]!.rest || holdsAny(at));

/** Some rows and columns of a table. @param width columns it has */
export function narrowed(counts: Float64Array, width: number, rows: readonly number[], columns: readonly number[]): Float64Array {
  const narrow = new Float64Array(rows.length * columns.length);
  rows.forEach((row, down) => {
    for (let across = 0; across < columns.length; across++)
      narrow[down * columns.length + across] = counts[row * width + columns[across]!]!;
  });
  return narrow;
}
