import type { Id } from '../model/ids';
import { idOfRow } from './columns';
import type { PassageColumns } from '../model/passage-columns';

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
  const { starts, markedBy, codingRow, codingCoder } = columns;
  const keep = Uint8Array.from(markedBy, (by) => (by === coder ? 1 : 0));
  const codings: number[] = [];
  codingCoder.forEach((by, at) => {
    if (by !== coder) return;
    keep[codingRow[at]!] = 1;
    codings.push(at);
  });
  /** New row of each row that is kept. */
  const rowOf = new Uint32Array(starts.length);
  const rows: number[] = [];
  keep.forEach((kept, row) => {
    if (kept) rowOf[row] = rows.push(row) - 1;
  });
  if (rows.length === 0) return null;
  const placeOf = new Map(codings.map((at, place) => [at, place]));
  return {
    documentId: columns.documentId,
    ids: rows.map((row) => idOfRow(columns, row)).join(''),
    starts: Uint32Array.from(rows, (row) => starts[row]!),
    ends: Uint32Array.from(rows, (row) => columns.ends[row]!),
    markedBy: Uint16Array.from(rows, (row) => markedBy[row]!),
    markedAt: Float64Array.from(rows, (row) => columns.markedAt[row]!),
    comments: columns.comments.flatMap((comment) => (keep[comment.row] ? [{ ...comment, row: rowOf[comment.row]! }] : [])),
    codingRow: Uint32Array.from(codings, (at) => rowOf[codingRow[at]!]!),
    codingCode: Uint32Array.from(codings, (at) => columns.codingCode[at]!),
    codingCoder: Uint16Array.from(codings, (at) => codingCoder[at]!),
    codingAt: Float64Array.from(codings, (at) => columns.codingAt[at]!),
    ratings: (columns.ratings ?? []).flatMap(({ at, rating }) => (placeOf.has(at) ? [{ at: placeOf.get(at)!, rating }] : [])),
    codes: columns.codes,
    coders: columns.coders,
  };
}

/** How many different codes the passages carry. */
export const codesCarried = (columns: PassageColumns): number => new Set(columns.codingCode).size;
