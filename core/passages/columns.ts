import { boxOf, type Area } from '../model/area';
import type { GroundName } from '../model/ground';
import { ID_LENGTH, type Id } from '../model/ids';
import type { Passage } from '../model/passage';
import { marksOf, type CodingMarks, type PassageColumns, type TextColumns } from '../model/passage-columns';
import type { Place } from '../model/stretch';
import { codeNumber, codeNumbersOf } from './code-numbers';

/**
 * Reading order: where a passage begins, the longer first, then by id so that the order is total. Areas of a picture
 * are read from the top, and those that begin at one height from the left.
 */
export function inReadingOrder(a: Passage, b: Passage): number {
  const across = a.area && b.area ? boxOf(a.area).left - boxOf(b.area).left : 0;
  return a.start - b.start || across || b.end - a.end || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);
}

/** Gives each distinct value a number in order of appearance. */
class LocalNumbers {
  readonly values: Id[] = [];
  private readonly numbers = new Map<Id, number>();

  of(value: Id): number {
    let number = this.numbers.get(value);
    if (number === undefined) {
      number = this.values.push(value) - 1;
      this.numbers.set(value, number);
    }
    return number;
  }
}

/**
 * Packs the passages of one document, in any order.
 * @param ground what the passages of the document stand in
 * @throws RangeError if a passage belongs to another document or stands in another ground.
 */
export function packPassages(documentId: Id, passages: readonly Passage[], ground?: 'text'): TextColumns;
export function packPassages(documentId: Id, passages: readonly Passage[], ground: GroundName): PassageColumns;
export function packPassages(documentId: Id, passages: readonly Passage[], ground: GroundName = 'text'): PassageColumns {
  const sorted = [...passages].sort(inReadingOrder);
  const codingTotal = sorted.reduce((sum, passage) => sum + passage.codings.length, 0);
  const codes = new LocalNumbers();
  const coders = new LocalNumbers();
  const columns = {
    starts: new Uint32Array(sorted.length),
    ends: new Uint32Array(sorted.length),
    markedBy: new Uint16Array(sorted.length),
    markedAt: new Float64Array(sorted.length),
    codingRow: new Uint32Array(codingTotal),
    codingCode: new Uint32Array(codingTotal),
    codingCoder: new Uint16Array(codingTotal),
    codingAt: new Float64Array(codingTotal),
  };
  const ids: Id[] = [];
  const ratings: CodingMarks[] = [];
  const comments: { row: number; text: string; open?: true }[] = [];
  const areas: Area[] = [];
  let at = 0;
  sorted.forEach((passage, row) => {
    if (passage.documentId !== documentId) throw new RangeError(`Passage ${passage.id} belongs to another document.`);
    if ((passage.area === undefined) === (ground === 'picture')) throw new RangeError(`Passage ${passage.id} stands in another ground.`);
    if (passage.area) areas.push(passage.area);
    ids.push(passage.id);
    columns.starts[row] = passage.start;
    columns.ends[row] = passage.end;
    columns.markedBy[row] = coders.of(passage.coderId);
    columns.markedAt[row] = passage.createdAt;
    if (passage.comment) comments.push({ row, text: passage.comment, ...(passage.open && { open: true }) });
    for (const coding of passage.codings) {
      columns.codingRow[at] = row;
      columns.codingCode[at] = codes.of(coding.codeId);
      columns.codingCoder[at] = coders.of(coding.coderId);
      columns.codingAt[at] = coding.createdAt;
      const marks = marksOf(coding);
      if (marks) ratings.push({ at, ...marks });
      at++;
    }
  });
  const common = { documentId, ids: ids.join(''), ...columns, comments, ratings, codes: codes.values, coders: coders.values };
  const packed: PassageColumns = ground === 'picture' ? { ...common, ground, areas } : { ...common, ground };
  unpacked.set(packed, sorted);
  return packed;
}

/** What few codings have, by place among the codings; null where none has anything. */
export const marksByCoding = ({ ratings }: PassageColumns): ReadonlyMap<number, Omit<CodingMarks, 'at'>> | null =>
  ratings?.length ? new Map(ratings.map(({ at, ...marks }) => [at, marks])) : null;

/** Passages as objects of columns in memory: kept as long as the columns are. */
const unpacked = new WeakMap<PassageColumns, readonly Passage[]>();

/** Number of passages in the columns. */
export const passageCount = (columns: PassageColumns): number => columns.starts.length;

/** Id of the passage in a row. */
export const idOfRow = (columns: PassageColumns, row: number): Id => columns.ids.slice(row * ID_LENGTH, (row + 1) * ID_LENGTH);

/** Where the passage in a row stands. */
export function placeOfRow(columns: PassageColumns, row: number): Place {
  const stretch = { start: columns.starts[row]!, end: columns.ends[row]! };
  return columns.ground === 'picture' ? { ...stretch, area: columns.areas[row]! } : stretch;
}

/** Row of the passage with this id, or -1. @param from a row before which it is known not to be */
export function rowOfId(columns: PassageColumns, id: Id, from = 0): number {
  const { ids } = columns;
  // its end is compared before the whole: nearly all ids differ in the last two digits already
  const end = ID_LENGTH - 1;
  const last = id.charCodeAt(end);
  const lastButOne = id.charCodeAt(end - 1);
  for (let at = from * ID_LENGTH; at < ids.length; at += ID_LENGTH)
    if (ids.charCodeAt(at + end) === last && ids.charCodeAt(at + end - 1) === lastButOne && ids.startsWith(id, at)) return at / ID_LENGTH;
  return -1;
}

/**
 * The passages as objects, in reading order. Asking again costs nothing, and of columns packed here those
 * that were packed come back, so that a passage which did not change stays the same object.
 */
export function unpackPassages(columns: PassageColumns): readonly Passage[] {
  const known = unpacked.get(columns);
  if (known) return known;
  const passages: Passage[] = Array.from(columns.starts, (start, row) => ({
    id: idOfRow(columns, row),
    documentId: columns.documentId,
    start,
    end: columns.ends[row]!,
    ...(columns.ground === 'picture' && { area: columns.areas[row]! }),
    comment: '',
    coderId: columns.coders[columns.markedBy[row]!]!,
    createdAt: columns.markedAt[row]!,
    codings: [],
  }));
  for (const { row, text, open } of columns.comments) {
    passages[row]!.comment = text;
    if (open) passages[row]!.open = true;
  }
  const ratings = marksByCoding(columns);
  columns.codingRow.forEach((row, at) => {
    passages[row]!.codings.push({
      codeId: columns.codes[columns.codingCode[at]!]!,
      coderId: columns.coders[columns.codingCoder[at]!]!,
      createdAt: columns.codingAt[at]!,
      ...ratings?.get(at),
    });
  });
  unpacked.set(columns, passages);
  return passages;
}

/** The passage with an id, or undefined; of columns that were not taken apart before only this one is. */
export function passageOf(columns: PassageColumns | undefined, id: Id): Passage | undefined {
  if (!columns) return undefined;
  const row = rowOfId(columns, id);
  if (row < 0) return undefined;
  return unpacked.get(columns)?.[row] ?? passagesInRows(columns, (one) => one === row)[0];
}

/** Rows of the passages that carry at least one of some codes, whoever gave it. */
export function rowsCarrying(columns: PassageColumns, codeIds: ReadonlySet<Id>): Set<number> {
  const rows = new Set<number>();
  const numbers = codeNumbersOf(columns.codes);
  /** Local numbers of the wanted codes that are carried here. */
  const wanted: number[] = [];
  for (const id of codeIds) {
    const local = numbers.indexOf(codeNumber(id));
    if (local >= 0) wanted.push(local);
  }
  if (wanted.length === 0) return rows;
  const { codingCode, codingRow } = columns;
  const [only] = wanted;
  for (let at = 0; at < codingCode.length; at++)
    if (wanted.length === 1 ? codingCode[at] === only : wanted.includes(codingCode[at]!)) rows.add(codingRow[at]!);
  return rows;
}

/** The passages that carry at least one of some codes, in reading order. */
export function passagesCarrying(columns: PassageColumns, codeIds: ReadonlySet<Id>): Passage[] {
  const rows = rowsCarrying(columns, codeIds);
  return rows.size === 0 ? [] : passagesInRows(columns, (row) => rows.has(row));
}

/** The passages that carry a comment, in reading order. @param open only those whose comment is a question to come back to */
export function passagesCommented(columns: PassageColumns, open = false): Passage[] {
  const rows = new Set(columns.comments.filter((comment) => !open || comment.open).map((comment) => comment.row));
  return rows.size === 0 ? [] : passagesInRows(columns, (row) => rows.has(row));
}

/** Whether the columns were taken apart into objects before. */
export const isUnpacked = (columns: PassageColumns): boolean => unpacked.has(columns);

/** The passages of some rows as objects, without taking the others apart. @param wanted says of a row whether it is asked for */
export function passagesInRows(columns: PassageColumns, wanted: (row: number) => boolean): Passage[] {
  const passages: Passage[] = [];
  /** Place in `passages` by row, from 1; 0 where the row is not asked for. */
  const placeOf = new Uint32Array(columns.starts.length);
  for (let row = 0; row < placeOf.length; row++) {
    if (!wanted(row)) continue;
    placeOf[row] = passages.push({
      id: idOfRow(columns, row),
      documentId: columns.documentId,
      ...placeOfRow(columns, row),
      comment: '',
      coderId: columns.coders[columns.markedBy[row]!]!,
      createdAt: columns.markedAt[row]!,
      codings: [],
    });
  }
  for (const { row, text, open } of columns.comments) {
    const passage = passages[placeOf[row]! - 1];
    if (!passage) continue;
    passage.comment = text;
    if (open) passage.open = true;
  }
  const ratings = marksByCoding(columns);
  for (let at = 0; at < columns.codingRow.length; at++) {
    const place = placeOf[columns.codingRow[at]!]!;
    if (place === 0) continue;
    const coding: Passage['codings'][number] = {
      codeId: columns.codes[columns.codingCode[at]!]!,
      coderId: columns.coders[columns.codingCoder[at]!]!,
      createdAt: columns.codingAt[at]!,
    };
    const marks = ratings?.get(at);
    passages[place - 1]!.codings.push(marks ? { ...coding, ...marks } : coding);
  }
  return passages;
}
