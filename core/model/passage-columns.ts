import type { Area } from './area';
import type { Id } from './ids';

/** What few codings have beside code, coder and time. */
export interface CodingMarks {
  /** Place among the codings. */
  readonly at: number;
  readonly rating?: number;
  readonly swept?: true;
}

/** What few codings have, to be spread beside what all have. */
export const marksOf = ({ rating, swept }: Omit<CodingMarks, 'at'>): Omit<CodingMarks, 'at'> | null =>
  rating === undefined && !swept ? null : { ...(rating !== undefined && { rating }), ...(swept && { swept }) };

/**
 * The passages of one document, packed: one row of storage, read many times faster than objects
 * because the browser copies typed arrays as blocks. Row i is the i-th passage in reading order
 * (by start, the longer first, then by id). Codes and coders are local numbers into short lists.
 */
interface Columns {
  readonly documentId: Id;
  /** Passage ids in row order, joined: row i is `ids.slice(36 * i, 36 * i + 36)`. */
  readonly ids: string;
  /** Where passages begin and end: characters, milliseconds or rows of pixels, by the ground of the document. */
  readonly starts: Uint32Array;
  readonly ends: Uint32Array;
  /** Who marked the passage, as an index into `coders`. */
  readonly markedBy: Uint16Array;
  readonly markedAt: Float64Array;
  /** Comments, by row, only where there is one. */
  readonly comments: readonly { readonly row: number; readonly text: string; readonly open?: true }[];
  /** One entry a coding, ordered by passage row, then as coded. */
  readonly codingRow: Uint32Array;
  readonly codingCode: Uint32Array;
  readonly codingCoder: Uint16Array;
  readonly codingAt: Float64Array;
  /** Ratings and marks of a sweep, by place among the codings, only where there is one; absent in columns of before there were ratings. */
  readonly ratings?: readonly CodingMarks[];
  /** Each is carried by at least one passage. */
  readonly codes: readonly Id[];
  readonly coders: readonly Id[];
}

export interface TextColumns extends Columns {
  readonly ground: 'text';
  readonly areas?: undefined;
}
export interface TimeColumns extends Columns {
  readonly ground: 'time';
  readonly areas?: undefined;
}
export interface PictureColumns extends Columns {
  readonly ground: 'picture';
  /** The area of each passage, by row. */
  readonly areas: readonly Area[];
}

/** Passages of a document of any ground. What has a meaning for one ground only asks for the columns of that one. */
export type PassageColumns = TextColumns | TimeColumns | PictureColumns;
