import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { NearnessUnit } from '../model/passage-condition';
import { placeOfRow } from '../passages/columns';
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
  private seen: Rows | undefined;

  /**
   * @param text only where it was said to be needed
   * @param coderId whose codings count; null for everybody's
   * @param language BCP 47 tag of the study, for sentences
   */
  constructor(
    readonly columns: PassageColumns,
    readonly document: Document,
    readonly text: Text | null,
    readonly coderId: Id | null,
    private readonly language: string,
  ) {
    this.count = columns.starts.length;
  }

  none(): Rows {
    return new Uint8Array(this.count);
  }

  every(holds = true): Rows {
    return new Uint8Array(this.count).fill(holds ? 1 : 0);
  }

  /** The passages there are: of one coder those they marked or gave a code to. */
  visible(): Rows {
    return (this.seen ??= this.findVisible());
  }

  private findVisible(): Rows {
    const { columns, coderId } = this;
    if (coderId === null) return this.every();
    const rows = this.none();
    const coder = columns.coders.indexOf(coderId);
    if (coder < 0) return rows;
    for (let row = 0; row < rows.length; row++) if (columns.markedBy[row] === coder) rows[row] = 1;
    for (let at = 0; at < columns.codingRow.length; at++) if (columns.codingCoder[at] === coder) rows[columns.codingRow[at]!] = 1;
    return rows;
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

/** How many rows are flagged. */
export function countOf(rows: Rows): number {
  let count = 0;
  // eslint-disable-next-line @typescript-eslint/prefer-for-of -- every passage of the study goes through here
  for (let row = 0; row < rows.length; row++) count += rows[row]!;
  return count;
}
