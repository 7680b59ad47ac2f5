import type { Document, Text } from '../model/document';
import type { PassageColumns } from '../model/passage-columns';
import type { NearnessUnit } from '../model/passage-condition';
import { placeOfRow } from '../passages/columns';
import type { Spoken } from '../text/paragraphs';
import { isTimed, timeAt } from '../text/timeline';
import { unitsOf } from '../text/units';

/** One flag a row of a document's passages: 1 for those that meet something. */
export type Rows = Uint8Array;

/** Positions as numbers that grow with them: units counted from the start of a text, or milliseconds. */
export type Measure = (position: number) => number;

type TextUnit = Exclude<NearnessUnit, 'second'>;

/** Where the units of a text begin. Asked for as long as the text is in memory. */
const unitStarts = new WeakMap<Text, Map<TextUnit, Uint32Array>>();

/** A document that is being asked, with what has to be known of it more than once. */
export class DocumentHere {
  readonly count: number;

  /**
   * @param text only where it was said to be needed
   * @param language BCP 47 tag of the study, for sentences
   */
  constructor(
    readonly columns: PassageColumns,
    readonly document: Document,
    readonly text: Text | null,
    private readonly language: string,
    /** What says who speaks where: the text itself, or as much of it as is known. */
    readonly spoken: Spoken | null = text,
  ) {
    this.count = columns.starts.length;
  }

  none(): Rows {
    return new Uint8Array(this.count);
  }

  every(holds = true): Rows {
    return new Uint8Array(this.count).fill(holds ? 1 : 0);
  }

  place(row: number) {
    return placeOfRow(this.columns, row);
  }

  /** How positions are measured in a unit; null where the ground has none of the kind: areas, sentences of a recording, seconds of a text without times. */
  measureIn(unit: NearnessUnit): Measure | null {
    const { text } = this;
    if (unit === 'second') {
      if (this.columns.ground === 'time') return (position) => position;
      return text && isTimed(text) ? (position) => timeAt(text, position) : null;
    }
    if (!text) return null;
    const starts = this.startsOf(text, unit);
    // the first unit holds whatever is in front of it as well
    return (position) => Math.max(0, countUpTo(starts, position) - 1);
  }

  private startsOf(text: Text, unit: TextUnit): Uint32Array {
    let byKind = unitStarts.get(text);
    if (!byKind) unitStarts.set(text, (byKind = new Map()));
    let starts = byKind.get(unit);
    if (!starts) byKind.set(unit, (starts = Uint32Array.from(unitsOf(text, unit, this.language), ({ start }) => start)));
    return starts;
  }
}

/** How many of some numbers are not over a limit. @param sorted ascending */
export function countUpTo(sorted: ArrayLike<number>, limit: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (sorted[middle]! <= limit) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Both hold. */
export function bothOf(a: Rows, b: Rows): Rows {
  const both = new Uint8Array(a.length);
  for (let row = 0; row < both.length; row++) both[row] = a[row]! & b[row]!;
  return both;
}

/** It does not hold. */
export function notOf(a: Rows): Rows {
  const not = new Uint8Array(a.length);
  for (let row = 0; row < not.length; row++) not[row] = 1 - a[row]!;
  return not;
}
