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
  readonly delimiter: string | null;
  readonly hasHeader: boolean;
  readonly notes: readonly string[];
}

/** How a table is to be read, where the guess is not right. */
export interface TableOptions {
  readonly encoding?: string;
  readonly delimiter?: string;
  readonly sheet?: string;
  readonly hasHeader?: boolean;
}

/** More than this is refused. */
export const MOST_ROWS = 200_000;
export const MOST_COLUMNS = 1_000;
