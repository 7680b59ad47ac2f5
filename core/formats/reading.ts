import type { DraftParagraph } from '../text/draft-text';

/** What a reader made of a file: nothing of it is stored yet. */
export interface Reading {
  /** The title the file itself gives, or null. */
  readonly title: string | null;
  readonly paragraphs: readonly DraftParagraph[];
  /** The day it was written or recorded, `YYYY-MM-DD`, where the file says so. */
  readonly date?: string;
  /** What was left out or changed on the way, for the researcher to see. */
  readonly notes: readonly string[];
}

/** A file cannot be read. The message says what is wrong, and what to do. */
export class UnreadableFileError extends Error {
  /** @param encodings other encodings worth trying, where the encoding is the trouble */
  constructor(
    message: string,
    readonly encodings: readonly string[] = [],
  ) {
    super(message);
    this.name = 'UnreadableFileError';
  }
}

/** Is told what share of a file is read, from 0 to 1, where reading takes long. */
export type Progress = (share: number) => void;
