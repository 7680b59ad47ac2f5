import type { PassageColumns } from '../model/passage-columns';
import { NO_ENTRY, SEVERAL, type EntriesOfCodes } from './entries-of-codes';
import type { JoinedEntries } from './joined-entries';
import type { CountedCells } from './scratch';

/** What was found in a document, each as often as it counts, by where it begins. */
export interface Occurring {
  readonly starts: Uint32Array;
  readonly ends: Uint32Array;
  readonly entries: Uint32Array;
}

/** Lays out what codings say. @param joined entries of which some passages count once together */
export function occurringIn(columns: PassageColumns, codes: EntriesOfCodes, joined: JoinedEntries | null): Occurring {
  const { starts, ends, codingRow, codingCode } = columns;
  const { single } = codes;
  const lists = codes.several ? codes.lists() : [];
  const [from, to, of]: [number[], number[], number[]] = [[], [], []];
  const put = (start: number, end: number, entry: number): void => {
    from.push(start);
    to.push(end);
    of.push(entry);
  };
  const together = joined ? placesTogether(columns, joined) : [];
  let next = 0;
  /** Where the entries of the row begin that is laid out. */
  let first = 0;
  let rowBefore = -1;
  const meet = (entry: number, row: number): void => {
    if (joined?.are[entry]) return;
    for (let at = first; at < of.length; at++) if (of[at] === entry) return;
    put(starts[row]!, ends[row]!, entry);
  };
  for (let at = 0; at < codingRow.length; at++) {
    const [entry, row] = [single[codingCode[at]!]!, codingRow[at]!];
    if (entry === NO_ENTRY) continue;
    if (row !== rowBefore) {
      for (; next < together.length && together[next]!.start <= starts[row]!; next++)
        put(together[next]!.start, together[next]!.end, together[next]!.entry);
      first = of.length;
      rowBefore = row;
    }
    if (entry === SEVERAL) for (const one of lists[codingCode[at]!]!) meet(one, row);
    else meet(entry, row);
  }
  for (; next < together.length; next++) put(together[next]!.start, together[next]!.end, together[next]!.entry);
  return { starts: Uint32Array.from(from), ends: Uint32Array.from(to), entries: Uint32Array.from(of) };
}

/** The places that passages take up which count once together. */
function placesTogether(
  { starts, ends }: PassageColumns,
  { are, occurrences }: JoinedEntries,
): { start: number; end: number; entry: number }[] {
  const places: { start: number; end: number; entry: number }[] = [];
  for (const [entry, together] of occurrences) {
    // the last stands for any of them
    if (entry === are.length - 1) continue;
    for (const rows of together) places.push({ entry, start: starts[rows[0]!]!, end: Math.max(...rows.map((row) => ends[row]!)) });
  }
  return places.sort((a, b) => a.start - b.start);
}

/** Sums of pairs, to which documents are added and from which they are taken away. */
export class RunningPairs {
  /** Of two entries, by whichever begins first. */
  private readonly counts: Float64Array;
  /** How often each entry occurs. */
  private readonly own: Float64Array;

  constructor(private readonly size: number) {
    this.counts = new Float64Array(size * size);
    this.own = new Float64Array(size);
  }

  /** Every two occurrences that overlap. */
  overlapping({ starts, ends, entries }: Occurring, by: 1 | -1): void {
    const { counts, own, size } = this;
    const length = starts.length;
    for (let at = 0; at < length; at++) {
      const entry = entries[at]!;
      own[entry]! += by;
      const [end, line] = [ends[at]!, entry * size];
      // what begins before this ends lies right behind it
      for (let other = at + 1; other < length && starts[other]! < end; other++) counts[line + entries[other]!]! += by;
    }
  }

  /** Every two of some entries that are in the same document. */
  present(entries: Uint32Array, by: 1 | -1): void {
    const { counts, own, size } = this;
    for (let at = 0; at < entries.length; at++) {
      own[entries[at]!]! += by;
      const line = entries[at]! * size;
      for (let other = at + 1; other < entries.length; other++) counts[line + entries[other]!]! += by;
    }
  }

  /** Pairs that were counted otherwise, the lower entry first, an entry with itself among them. */
  put({ cells, amounts }: CountedCells, by: 1 | -1): void {
    const { counts, own, size } = this;
    for (let at = 0; at < cells.length; at++) {
      const cell = cells[at]!;
      if (cell % (size + 1) === 0) own[cell / (size + 1)]! += by * amounts[at]!;
      else counts[cell]! += by * amounts[at]!;
    }
  }

  /** How often each is with each; with itself how often it occurs. */
  result(): Float64Array {
    const { counts, own, size } = this;
    const all = new Float64Array(size * size);
    for (let a = 0; a < size; a++) {
      all[a * size + a] = own[a]!;
      for (let b = a + 1; b < size; b++) all[a * size + b] = all[b * size + a] = counts[a * size + b]! + counts[b * size + a]!;
    }
    return all;
  }
}
