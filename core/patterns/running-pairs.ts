import type { PassageColumns } from '../model/passage-columns';
import { NO_ENTRY, SEVERAL, type EntriesOfCodes } from './entries-of-codes';
import type { JoinedEntries } from './joined-entries';
import type { CountedCells } from './scratch';

/** A document of which codings alone say what is found, and where. */
export interface OccurringIn {
  readonly columns: PassageColumns;
  readonly codes: EntriesOfCodes;
  /** Entries of which some passages count once together. */
  readonly joined: JoinedEntries | null;
}

/** Each entry of a document as often as it counts, by where it begins: three numbers each. Room for one document after the other. */
class Occurrences {
  private room = new Uint32Array(3 * 512);
  /** How many there are. */
  count = 0;

  /** Where each begins, where it ends, and what it is. */
  get all(): Uint32Array {
    return this.room;
  }

  /** Lays out what codings say. */
  layOut({ columns, codes, joined }: OccurringIn): void {
    this.count = 0;
    if (codes.several || joined) this.layOutAll(columns, codes, joined);
    else this.layOutSingle(columns, codes);
  }

  /** Where each code is in one entry at most, and nothing counts together: a plain loop, for hundreds of thousands of codings. */
  private layOutSingle({ starts, ends, codingRow, codingCode }: PassageColumns, { single }: EntriesOfCodes): void {
    const room = this.roomFor(codingRow.length);
    let [to, first, rowBefore] = [0, 0, -1];
    for (let at = 0; at < codingRow.length; at++) {
      const entry = single[codingCode[at]!]!;
      if (entry === NO_ENTRY) continue;
      const row = codingRow[at]!;
      if (row !== rowBefore) {
        first = to;
        rowBefore = row;
      }
      // another coder may have given it as well
      let known = first;
      while (known < to && room[known + 2] !== entry) known += 3;
      if (known < to) continue;
      room[to] = starts[row]!;
      room[to + 1] = ends[row]!;
      room[to + 2] = entry;
      to += 3;
    }
    this.count = to / 3;
  }

  private layOutAll(columns: PassageColumns, codes: EntriesOfCodes, joined: JoinedEntries | null): void {
    const { starts, ends, codingRow, codingCode } = columns;
    const { single } = codes;
    const lists = codes.several ? codes.lists() : [];
    const together = joined ? placesTogether(columns, joined) : [];
    let next = 0;
    /** The first of the row that is laid out. */
    let first = 0;
    let rowBefore = -1;
    const meet = (entry: number, row: number): void => {
      if (joined?.are[entry]) return;
      for (let at = first; at < this.count; at++) if (this.room[3 * at + 2] === entry) return;
      this.put(starts[row]!, ends[row]!, entry);
    };
    for (let at = 0; at < codingRow.length; at++) {
      const [entry, row] = [single[codingCode[at]!]!, codingRow[at]!];
      if (entry === NO_ENTRY) continue;
      if (row !== rowBefore) {
        for (; next < together.length && together[next]!.start <= starts[row]!; next++) this.putPlace(together[next]!);
        first = this.count;
        rowBefore = row;
      }
      if (entry === SEVERAL) for (const one of lists[codingCode[at]!]!) meet(one, row);
      else meet(entry, row);
    }
    for (; next < together.length; next++) this.putPlace(together[next]!);
  }

  private putPlace({ start, end, entry }: EntryPlace): void {
    this.put(start, end, entry);
  }

  private put(start: number, end: number, entry: number): void {
    this.roomFor(this.count + 1).set([start, end, entry], 3 * this.count);
    this.count++;
  }

  private roomFor(many: number): Uint32Array {
    if (this.room.length < 3 * many) {
      const wider = new Uint32Array(6 * many);
      wider.set(this.room);
      this.room = wider;
    }
    return this.room;
  }
}

interface EntryPlace {
  readonly start: number;
  readonly end: number;
  readonly entry: number;
}

/** The places that passages take up which count once together. */
function placesTogether({ starts, ends }: PassageColumns, { occurrences }: JoinedEntries): EntryPlace[] {
  const places: EntryPlace[] = [];
  for (const [entry, together] of occurrences)
    for (const rows of together) places.push({ entry, start: starts[rows[0]!]!, end: Math.max(...rows.map((row) => ends[row]!)) });
  return places.sort((a, b) => a.start - b.start);
}

/** Rows and columns that are gone through together. */
const BLOCK = 16;

/** Sums of pairs, to which documents are added and from which they are taken away. */
export class RunningPairs {
  /** Of two entries, by whichever begins first. Counts and words of a study fit into 32 bits. */
  private readonly counts: Uint32Array;
  /** How often each entry occurs. */
  private readonly own: Uint32Array;
  private readonly occurrences = new Occurrences();

  constructor(private readonly size: number) {
    this.counts = new Uint32Array(size * size);
    this.own = new Uint32Array(size);
  }

  /** Every two occurrences of a document that overlap. */
  overlapping(document: OccurringIn, by: 1 | -1): void {
    this.occurrences.layOut(document);
    const { counts, own, size } = this;
    const { all, count } = this.occurrences;
    const last = 3 * count;
    for (let at = 0; at < last; at += 3) {
      const [end, entry] = [all[at + 1]!, all[at + 2]!];
      const line = entry * size;
      own[entry]! += by;
      // what begins before this ends lies right behind it
      for (let other = at + 3; other < last && all[other]! < end; other += 3) counts[line + all[other + 2]!]! += by;
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
    // a block after the other, so that what lies row by row and what lies across stay at hand
    for (let top = 0; top < size; top += BLOCK)
      for (let left = top; left < size; left += BLOCK)
        for (let a = top; a < Math.min(size, top + BLOCK); a++)
          for (let b = Math.max(a + 1, left); b < Math.min(size, left + BLOCK); b++)
            all[a * size + b] = all[b * size + a] = counts[a * size + b]! + counts[b * size + a]!;
    for (let a = 0; a < size; a++) all[a * size + a] = own[a]!;
    return all;
  }
}
