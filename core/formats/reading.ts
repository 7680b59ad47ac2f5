import type { DraftParagraph } from '../text/draft-text';
import type { EncodingSample } from './plain-text/guess-encoding';

/** What a reader made of a file: nothing of it is stored yet. */
export interface Reading {
  /** The title the file itself gives, or null. */
  readonly title: string | null;
  readonly paragraphs: readonly DraftParagraph[];
  /** The day it was written or recorded, `YYYY-MM-DD`, where the file says so. */
  readonly date?: string;
  /** What the file says of itself beside its text: who wrote to whom, the fields at its head. */
  readonly facts?: readonly Fact[];
  /** Pages of a PDF, which can be seen as they look. */
  readonly pages?: number;
  /** What was left out or changed on the way, for the researcher to see. */
  readonly notes: readonly string[];
}

/** Something that a file says of itself. */
export interface Fact {
  readonly name: string;
  readonly value: string;
}

/** What may help to read a file that cannot be read as it is. */
export interface Remedy {
  /** What it may be written in, the likeliest first. */
  readonly encodings?: readonly EncodingSample[];
  /** It is locked; a password opens it, unless a wrong one was given. */
  readonly password?: 'asked' | 'wrong';
}

/** A file cannot be read. The message says what is wrong, and what to do. */
export class UnreadableFileError extends Error {
  /**
   * @param encodings all encodings on offer, where the encoding is the trouble
   * @param remedy what may help
   */
  constructor(
    message: string,
    readonly encodings: readonly string[] = [],
    readonly remedy: Remedy = {},
  ) {
    super(message);
    this.name = 'UnreadableFileError';
  }
}

/** Is told what share of a file is read, from 0 to 1, where reading takes long. */
export type Progress = (share: number) => void;
