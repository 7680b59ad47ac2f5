import type { EncodingSample } from '../plain-text/guess-encoding';

/** A table as it was read: every cell as text, days as `YYYY-MM-DD`, all rows of the same length as the header. */
export interface Table {
  readonly header: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** Line or row of the file that each row stands in, from 1, for messages. */
  readonly rowNumbers: readonly number[];
  /** The sheets of the file; one for a text table. */
  readonly sheets: readonly string[];
  readonly sheet: string;
  readonly encoding: string | null;
  /** Where the encoding is a guess: what it may be, with words in which it shows, the one used first. */
  readonly encodings: readonly EncodingSample[];
  readonly delimiter: string | null;
  /** Row of the file that names the columns, from 1; null where none does. */
  readonly headerRow: number | null;
  /** Rows above it, which are passed over: a title, notes. */
  readonly above: readonly ShownRow[];
  /** The first rows, of which one may name the columns. */
  readonly heads: readonly ShownRow[];
  readonly notes: readonly string[];
}

/** A row as it is shown: its filled cells, cut where they are long. */
export interface ShownRow {
  /** Row of the file, from 1. */
  readonly number: number;
  readonly words: string;
}

/** How a table is to be read, where the guess is not right. */
export interface TableOptions {
  readonly encoding?: string;
  readonly delimiter?: string;
  readonly sheet?: string;
  /** Row of the file that names the columns, from 1; the first that is not empty; or none. Left out, it is looked for. */
  readonly headerRow?: number | 'first' | null;
}

/** More than this is refused. */
export const MOST_ROWS = 200_000;
export const MOST_COLUMNS = 1_000;
export const MOST_CELLS = 5_000_000;
