import type { Id } from '../model/ids';
import { idOfRow, marksByCoding } from './columns';
import type { CodingMarks, PassageColumns } from '../model/passage-columns';

const known = new WeakMap<PassageColumns, Map<Id, PassageColumns | null>>();

/**
 * The passages of one coder: those they marked or gave a code to, with their codings alone. Whatever counts or shows
 * passages in a scope of one coder goes through here, so that the same number stands everywhere.
 * @returns null if the coder has none; asked again, the same columns
 */
export function columnsOfCoder(columns: PassageColumns, coderId: Id): PassageColumns | null {
  let byCoder = known.get(columns);
  if (!byCoder) known.set(columns, (byCoder = new Map()));
  let own = byCoder.get(coderId);
  if (own === undefined) byCoder.set(coderId, (own = filtered(columns, coderId)));
  return own;
}

function filtered(columns: PassageColumns, coderId: Id): PassageColumns | null {
  const coder = columns.coders.indexOf(coderId);
  if (coder < 0) return null;
  // plain loops over columns: in a scope of one coder every document goes through here
  const { starts, ends, markedBy, markedAt, codingRow, codingCode, codingCoder, codingAt } = columns;
  const kept = new Uint8Array(starts.length);
  for (let row = 0; row < kept.length; row++) if (markedBy[row] === coder) kept[row] = 1;
  let codings = 0;
  for (let at = 0; at < codingRow.length; at++)
    if (codingCoder[at] === coder) {
      kept[codingRow[at]!] = 1;
      codings++;
    }
  /** New row of each row that is kept. */
  const rowOf = new Uint32Array(starts.length);
  let rows = 0;
  for (let row = 0; row < kept.length; row++) if (kept[row]) rowOf[row] = rows++;
  if (rows === 0) return null;
  const codes = new KeptCodes(columns.codes);
  const own = {
    documentId: columns.documentId,
    ids: '',
    starts: new Uint32Array(rows),
    ends: new Uint32Array(rows),
    markedBy: new Uint16Array(rows),
    markedAt: new Float64Array(rows),
    comments: columns.comments.flatMap((comment) => (kept[comment.row] ? [{ ...comment, row: rowOf[comment.row]! }] : [])),
    codingRow: new Uint32Array(codings),
    codingCode: new Uint32Array(codings),
    codingCoder: new Uint16Array(codings).fill(coder),
    codingAt: new Float64Array(codings),
    ratings: [] as CodingMarks[],
    codes: codes.ids,
    coders: columns.coders,
  };
  for (let row = 0; row < kept.length; row++) {
    if (!kept[row]) continue;
    const to = rowOf[row]!;
    own.ids += idOfRow(columns, row);
    own.starts[to] = starts[row]!;
    own.ends[to] = ends[row]!;
    own.markedBy[to] = markedBy[row]!;
    own.markedAt[to] = markedAt[row]!;
  }
  const ratings = marksByCoding(columns);
  for (let at = 0, to = 0; at < codingRow.length; at++) {
    if (codingCoder[at] !== coder) continue;
    own.codingRow[to] = rowOf[codingRow[at]!]!;
    own.codingCode[to] = codes.numberOf(codingCode[at]!);
    own.codingAt[to] = codingAt[at]!;
    const marks = ratings?.get(at);
    if (marks) own.ratings.push({ at: to, ...marks });
    to++;
  }
  return columns.ground === 'picture'
    ? { ...own, ground: columns.ground, areas: columns.areas.filter((_, row) => kept[row]) }
    : { ...own, ground: columns.ground };
}

/** The codes of a list that are still carried, numbered anew. */
class KeptCodes {
  readonly ids: Id[] = [];
  private readonly numbers: Int32Array;

  constructor(private readonly all: readonly Id[]) {
    this.numbers = new Int32Array(all.length).fill(-1);
  }

  numberOf(before: number): number {
    if (this.numbers[before]! < 0) this.numbers[before] = this.ids.push(this.all[before]!) - 1;
    return this.numbers[before]!;
  }
}

/** How many different codes the passages carry. */
export const codesCarried = (columns: PassageColumns): number => columns.codes.length;
