import type { Entry } from './axis';

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
