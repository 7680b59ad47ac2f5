import type { PassageColumns, PictureColumns } from '../model/passage-columns';
import { IntervalIndex } from './interval-index';
import { sharePixels } from './pixels';

/** Areas whose rows overlap meet where they have a pixel in common. */
const touch = ({ areas }: PictureColumns, one: number, other: number): boolean => sharePixels(areas[one]!, areas[other]!);

/** Which passages of a document meet which: for asking of some of them. Whoever wants all pairs asks {@link eachPairThatMeets}. */
export class Meetings {
  private readonly index: IntervalIndex;

  constructor(private readonly columns: PassageColumns) {
    this.index = new IntervalIndex(columns);
  }

  /** Rows of the passages that overlap the one in a row, itself among them, ascending. */
  of(row: number): number[] {
    const { columns } = this;
    const rows = this.index.overlapping(columns.starts[row]!, columns.ends[row]!);
    return columns.ground === 'picture' ? rows.filter((other) => other === row || touch(columns, row, other)) : rows;
  }
}

/**
 * Tells every two passages of a document that overlap, each pair once, the one that begins first in front. A sweep over
 * where they begin: only what is still open can meet what begins.
 */
export function eachPairThatMeets(columns: PassageColumns, tell: (first: number, second: number) => void): void {
  const { starts, ends } = columns;
  const open = new Uint32Array(starts.length);
  let count = 0;
  for (let row = 0; row < starts.length; row++) {
    const start = starts[row]!;
    let left = 0;
    for (let at = 0; at < count; at++) {
      const other = open[at]!;
      if (ends[other]! <= start) continue;
      open[left++] = other;
      if (columns.ground !== 'picture' || touch(columns, other, row)) tell(other, row);
    }
    open[left] = row;
    count = left + 1;
  }
}
