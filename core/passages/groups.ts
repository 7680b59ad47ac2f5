import type { Passage } from '../model/passage';
import type { Stretch } from '../model/stretch';

/** Rows `[first, last)` of a list. */
export interface Rows {
  readonly first: number;
  readonly last: number;
}

/**
 * Passages in groups: each passage of a group overlaps one before it, and no passage overlaps one of another
 * group. Where a group ends all lanes are free, so the threads of a group can be laid without looking at any
 * other: of a long document only what is in the window is laid out.
 */
export class PassageGroups {
  /** Row of the first passage of each group. */
  private readonly firsts: number[] = [];
  private readonly ends: number[] = [];

  /** @param passages in reading order */
  constructor(private readonly passages: readonly Passage[]) {
    passages.forEach(({ start, end }, row) => {
      const last = this.ends.length - 1;
      if (last < 0 || start >= this.ends[last]!) {
        this.firsts.push(row);
        this.ends.push(end);
      } else if (end > this.ends[last]!) this.ends[last] = end;
    });
  }

  /** Rows of all passages in groups that a stretch touches. */
  touching({ start, end }: Stretch): Rows {
    const from = firstWhere(this.ends.length, (group) => this.ends[group]! > start);
    const to = firstWhere(this.firsts.length, (group) => this.passages[this.firsts[group]!]!.start >= end);
    if (from >= to) return { first: 0, last: 0 };
    return { first: this.firsts[from]!, last: this.firsts[to] ?? this.passages.length };
  }
}

/** Index of the first passage that starts at or after a position. */
export function firstStartingAt(passages: readonly Passage[], position: number): number {
  return firstWhere(passages.length, (row) => passages[row]!.start >= position);
}

/** First number below a count for which a condition holds that holds for all after it as well, or the count. */
function firstWhere(count: number, holds: (at: number) => boolean): number {
  let low = 0;
  let high = count;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}
