/** Half-open stretches `[start, end)` as two columns of the same length, sorted by start. */
export interface SortedIntervals {
  readonly starts: ArrayLike<number>;
  readonly ends: ArrayLike<number>;
}

/**
 * Finds the intervals that overlap a stretch without looking at all of them.
 *
 * The sorted intervals are read as a balanced binary tree without pointers: the root of rows
 * `[low, high)` is the middle row, its children are the halves to its left and right. For each root
 * the greatest end in its rows is kept, so a whole half is passed over when everything in it ends
 * too early, and another when everything in it starts too late. A search that finds k of n
 * intervals takes O(log n + k) steps. (Cormen et al., Introduction to Algorithms, "Interval trees".)
 */
export class IntervalIndex {
  private readonly greatestEnd: Float64Array;

  /** @throws RangeError if the starts are not in ascending order. */
  constructor(private readonly intervals: SortedIntervals) {
    const { starts, ends } = intervals;
    for (let row = 1; row < starts.length; row++) {
      if (starts[row - 1]! > starts[row]!) throw new RangeError(`Interval ${row} starts before the one in front of it.`);
    }
    this.greatestEnd = new Float64Array(starts.length);
    const build = (low: number, high: number): number => {
      if (low >= high) return -Infinity;
      const middle = (low + high) >>> 1;
      return (this.greatestEnd[middle] = Math.max(ends[middle]!, build(low, middle), build(middle + 1, high)));
    };
    build(0, starts.length);
  }

  /** Rows of the intervals that share at least one position with `[start, end)`, ascending. */
  overlapping(start: number, end: number): number[] {
    const found: number[] = [];
    const { starts, ends } = this.intervals;
    const search = (low: number, high: number): void => {
      if (low >= high) return;
      const middle = (low + high) >>> 1;
      if (this.greatestEnd[middle]! <= start) return;
      search(low, middle);
      if (starts[middle]! >= end) return;
      if (Math.max(starts[middle]!, start) < Math.min(ends[middle]!, end)) found.push(middle);
      search(middle + 1, high);
    };
    search(0, starts.length);
    return found;
  }

  /** Rows of the intervals that cover the position, ascending: those in which a click at it lands. */
  at(position: number): number[] {
    return this.overlapping(position, position + 1);
  }
}
