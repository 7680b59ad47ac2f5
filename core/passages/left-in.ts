import type { Id } from '../model/ids';
import type { CodingMarks, PassageColumns } from '../model/passage-columns';
import { idOfRow, marksByCoding } from './columns';

/** What is looked at of the passages of a document. */
export interface Looking {
  /** One flag a row: 1 for passages that stand where one looks; null for all. */
  readonly rows: Uint8Array | null;
  /** Whose codings, and of which time: milliseconds since 1970, from and up to. */
  readonly coderIds: ReadonlySet<Id> | null;
  readonly from: number;
  readonly until: number;
}

/**
 * The passages that are left of a document: those that stand where one looks, and of these, where one looks at some
 * coders or some time only, those marked or coded so, with those codings alone. Whatever counts or shows passages in a
 * scope goes through here (`core/queries/narrowing.ts`), so that the same number stands everywhere.
 * @returns the very same columns where nothing is left out; null if nothing is left
 */
export function columnsLeft(columns: PassageColumns, { rows: wanted, coderIds, from, until }: Looking): PassageColumns | null {
  const byWhom = coderIds && columns.coders.map((id) => coderIds.has(id));
  if (byWhom && !byWhom.includes(true)) return null;
  // plain loops over columns: in a narrow scope every document goes through here
  const { starts, ends, markedBy, markedAt, codingRow, codingCode, codingCoder, codingAt } = columns;
  const counts = (coder: number, at: number): boolean => (!byWhom || byWhom[coder]!) && at >= from && at < until;
  const kept = new Uint8Array(starts.length);
  for (let row = 0; row < kept.length; row++) if ((!wanted || wanted[row]) && counts(markedBy[row]!, markedAt[row]!)) kept[row] = 1;
  const keptCodings = new Uint8Array(codingRow.length);
  let codings = 0;
  for (let at = 0; at < codingRow.length; at++) {
    const row = codingRow[at]!;
    if ((wanted && !wanted[row]) || !counts(codingCoder[at]!, codingAt[at]!)) continue;
    keptCodings[at] = kept[row] = 1;
    codings++;
  }
  /** New row of each row that is kept. */
  const rowOf = new Uint32Array(starts.length);
  let rows = 0;
  for (let row = 0; row < kept.length; row++) if (kept[row]) rowOf[row] = rows++;
  if (rows === 0) return null;
  if (rows === kept.length && codings === codingRow.length) return columns;
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
    codingCoder: new Uint16Array(codings),
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
    if (!keptCodings[at]) continue;
    own.codingCoder[to] = codingCoder[at]!;
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
