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
 * Tells every two passages of a document that overlap, each pair once, the one that begins first in front. They lie in
 * the order in which they begin: what begins before one ends lies right behind it.
 */
export function eachPairThatMeets(columns: PassageColumns, tell: (first: number, second: number) => void): void {
  const { starts, ends } = columns;
  for (let row = 0; row < starts.length; row++) {
    const end = ends[row]!;
    for (let other = row + 1; other < starts.length && starts[other]! < end; other++)
      if (columns.ground !== 'picture' || touch(columns, row, other)) tell(row, other);
  }
}
