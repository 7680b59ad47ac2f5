import type { PassageColumns } from '../model/passage-columns';
import { NO_ENTRY, SEVERAL, type EntriesOfCodes } from './entries-of-codes';
import type { JoinedEntries } from './joined-entries';
import type { CountedCells } from './scratch';

/** A document of which codings alone say what is found, and where. */
export interface OccurringIn {
  readonly columns: PassageColumns;
  /** Entries of which some passages count once together. */
  readonly joined: JoinedEntries | null;
}

interface EntryPlace {
  readonly start: number;
  readonly end: number;
  readonly entry: number;
}

/** Lays out the entries of one document after the other, always in the same room. */
class Layout {
  /** Three numbers for each entry, as often as it counts, by where it begins: where it begins, where it ends, and what it is. */
  room = new Uint32Array(3 * 512);
  /** How much of the room is taken. */
  end = 0;
  private together: readonly EntryPlace[] = [];
  private next = 0;

  /** Lays out what codings say, in place of the document before. */
  of({ columns, joined }: OccurringIn, codes: EntriesOfCodes): void {
    const { starts, ends, codingRow, codingCode } = columns;
    const { numbers, single, lists } = codes;
    this.together = joined ? placesTogether(columns, joined) : [];
    this.next = this.end = 0;
    for (let at = 0; at < codingRow.length;) {
      const row = codingRow[at]! | 0;
      const [start, end] = [starts[row]!, ends[row]!];
      this.putTogether(start);
      /** Where those of the row begin. */
      const first = this.end;
      for (; at < codingRow.length && (codingRow[at]! | 0) === row; at++) {
        const number = numbers[codingCode[at]!]!;
        const entry = single[number]!;
        if (entry === SEVERAL) for (const one of lists[number]!) this.meet(start, end, one, first, joined);
        else if (entry !== NO_ENTRY) this.meet(start, end, entry, first, joined);
      }
    }
    this.putTogether(Infinity);
  }

  private meet(start: number, end: number, entry: number, first: number, joined: JoinedEntries | null): void {
    if (joined !== null && joined.are[entry] === 1) return;
    // another coder may have given it as well
    for (let at = first; at < this.end; at += 3) if (this.room[at + 2] === entry) return;
    this.put(start, end, entry);
  }

  private putTogether(until: number): void {
    for (; this.next < this.together.length && this.together[this.next]!.start <= until; this.next++) {
      const { start, end, entry } = this.together[this.next]!;
      this.put(start, end, entry);
    }
  }

  private put(start: number, end: number, entry: number): void {
    if (this.end === this.room.length) {
      const wider = new Uint32Array(2 * this.end);
      wider.set(this.room);
      this.room = wider;
    }
    const { room } = this;
    const at = this.end;
    room[at] = start;
    room[at + 1] = end;
    room[at + 2] = entry;
    this.end = at + 3;
  }
}

/** The places that passages take up which count once together. */
function placesTogether({ starts, ends }: PassageColumns, { occurrences }: JoinedEntries): EntryPlace[] {
  const places: EntryPlace[] = [];
  for (const [entry, together] of occurrences)
    for (const rows of together) places.push({ entry, start: starts[rows[0]!]!, end: Math.max(...rows.map((row) => ends[row]!)) });
  return places.sort((a, b) => a.start - b.start);
}

/** Sums of pairs, to which documents are added and from which they are taken away. */
export class RunningPairs {
  /** Of two entries, by whichever begins first. Counts and words of a study fit into 32 bits. */
  private readonly counts: Uint32Array;
  /** How often each entry occurs. */
  private readonly own: Uint32Array;
  private readonly layout = new Layout();

  constructor(private readonly size: number) {
    this.counts = new Uint32Array(size * size);
    this.own = new Uint32Array(size);
  }

  /** Every two occurrences of a document that overlap. */
  overlapping(document: OccurringIn, codes: EntriesOfCodes, by: 1 | -1): void {
    const { counts, own, size } = this;
    this.layout.of(document, codes);
    const { room, end: length } = this.layout;
    for (let at = 0; at < length; at += 3) {
      const [end, entry] = [room[at + 1]!, room[at + 2]! | 0];
      const line = entry * size;
      own[entry]! += by;
      // what begins before this ends lies right behind it
      for (let other = at + 3; other < length && room[other]! < end; other += 3) counts[line + (room[other + 2]! | 0)]! += by;
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
