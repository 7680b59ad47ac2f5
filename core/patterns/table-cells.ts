import type { Entry } from './axis';

/** The groups that are shown, by place: one for what is in no other only where something is in it. */
export const shownGroups = (groups: readonly Entry[], holdsAny: (at: number) => boolean): number[] =>
  [...groups.keys()].filter((at) => !groups[at]!.rest || holdsAny(at));

/** Numbers of a table: whole ones that are never large lie in half the room. */
export type Counts = Uint32Array | Float64Array;

/** Some rows and columns of a table. @param width columns it has */
export function narrowed<C extends Counts>(counts: C, width: number, rows: readonly number[], columns: readonly number[]): C {
  const size = rows.length * columns.length;
  const narrow = (counts instanceof Uint32Array ? new Uint32Array(size) : new Float64Array(size)) as C;
  rows.forEach((row, down) => {
    for (let across = 0; across < columns.length; across++)
      narrow[down * columns.length + across] = counts[row * width + columns[across]!]!;
  });
  return narrow;
}
