import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';
import { numberAfter } from './code-numbers';
import { marksByCoding, rowOfId } from './columns';
import { marksOf, type CodingMarks, type PassageColumns } from '../model/passage-columns';

/**
 * Columns in which some passages have other codings, and all else is as it was: what stays is shared or copied as it
 * lies, so that a change of a few passages in each of a thousand documents takes no time.
 * @param changed passages of these columns, with their new codings
 * @returns null if one of them is not in the columns
 */
export function withOtherCodings(columns: PassageColumns, changed: readonly Passage[]): PassageColumns | null {
  const { codingRow, codingCode, codingCoder, codingAt } = columns;
  const before = codingRow.length;
  /** Rows that change, ascending, and the place of each in `changed`. */
  const rows: number[] = [];
  const placeOf = scratch(columns.starts.length);
  let total = before;
  let inOrder = true;
  for (let at = 0, last = -1; at < changed.length; at++) {
    // mostly they come in reading order, so that one walk over the ids finds them all
    let row = rowOfId(columns, changed[at]!.id, last + 1);
    if (row < 0) row = rowOfId(columns, changed[at]!.id);
    if (row < 0) return null;
    inOrder &&= row > last;
    rows.push((last = row));
    placeOf[row] = at + 1;
    total += changed[at]!.codings.length;
  }
  if (!inOrder) rows.sort((a, b) => a - b);
  for (let at = 0; at < before; at++) if (placeOf[codingRow[at]!] !== 0) total--;

  const codes = new GrowingList(columns.codes);
  const coders = new GrowingList(columns.coders);
  const marksBefore = marksByCoding(columns);
  const ratings: CodingMarks[] = [];
  const nextRow = new Uint32Array(total);
  const nextCode = new Uint32Array(total);
  const nextCoder = new Uint16Array(total);
  const nextAt = new Float64Array(total);
  /** Local numbers of codes that a passage has lost, which perhaps nothing carries any more. */
  const lost = new Set<number>();
  let to = 0;
  let from = 0;
  for (let next = 0; next <= rows.length; next++) {
    const row = next < rows.length ? rows[next]! : Infinity;
    for (; from < before && codingRow[from]! < row; from++, to++) {
      nextRow[to] = codingRow[from]!;
      nextCode[to] = codingCode[from]!;
      nextCoder[to] = codingCoder[from]!;
      nextAt[to] = codingAt[from]!;
      const marks = marksBefore?.get(from);
      if (marks) ratings.push({ at: to, ...marks });
    }
    if (row === Infinity) break;
    const first = from;
    const firstNow = to;
    while (from < before && codingRow[from] === row) from++;
    for (const coding of changed[placeOf[row]! - 1]!.codings) {
      // most of its codings it had before: their codes need not be looked for
      let code = -1;
      for (let at = first; at < from && code < 0; at++) if (columns.codes[codingCode[at]!] === coding.codeId) code = codingCode[at]!;
      nextRow[to] = row;
      nextCode[to] = code >= 0 ? code : codes.numberOf(coding.codeId);
      nextCoder[to] = coders.numberOf(coding.coderId);
      nextAt[to] = coding.createdAt;
      const marks = marksOf(coding);
      if (marks) ratings.push({ at: to, ...marks });
      to++;
    }
    for (let at = first; at < from; at++) if (!holds(nextCode, codingCode[at]!, firstNow, to)) lost.add(codingCode[at]!);
  }
  return {
    ...columns,
    codingRow: nextRow,
    codingCode: nextCode,
    codingCoder: nextCoder,
    codingAt: nextAt,
    ratings,
    codes: codesCarried(codes.ids, columns.codes, nextCode, lost),
    coders: coders.ids,
  };
}

/** Whether a number stands in a part of a column. */
function holds(column: Uint32Array, number: number, from: number, to: number): boolean {
  for (let at = from; at < to; at++) if (column[at] === number) return true;
  return false;
}

/** The list of codes or coders of columns that change: it is the one before, as long as nothing new comes. */
class GrowingList {
  private last: readonly [Id, number] = ['', -1];

  constructor(public ids: readonly Id[]) {}

  /** Local number of an id, given now where it has none. The same is often asked again. */
  numberOf(id: Id): number {
    if (this.last[0] === id) return this.last[1];
    let local = this.ids.indexOf(id);
    if (local < 0) {
      local = this.ids.length;
      this.ids = [...this.ids, id];
    }
    this.last = [id, local];
    return local;
  }
}

/**
 * The codes that something carries; where some leave the list, the codings are numbered anew in place.
 * @param codes the list as it has grown from the one before
 * @param lost local numbers that may have left; all others are known to be carried
 */
function codesCarried(codes: readonly Id[], before: readonly Id[], codingCode: Uint32Array, lost: ReadonlySet<number>): readonly Id[] {
  const gone = [...lost].filter((local) => !codingCode.includes(local)).sort((a, b) => a - b);
  if (gone.length === 0 && codes === before) return codes;
  const left: Id[] = [];
  const moved = new Uint32Array(codes.length);
  for (let local = 0; local < codes.length; local++) {
    moved[local] = left.length;
    if (!gone.includes(local)) left.push(codes[local]!);
  }
  if (gone.length > 0) for (let at = 0; at < codingCode.length; at++) codingCode[at] = moved[codingCode[at]!]!;
  numberAfter(left, before, gone);
  return left;
}

let room = new Uint32Array(0);

/** Zeros to work with, for one call at a time: making them anew for each of a thousand documents costs more than the work. */
function scratch(length: number): Uint32Array {
  if (room.length < length) room = new Uint32Array(2 * length);
  return room.fill(0, 0, length);
}
