import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { Question } from '../model/query';
import { idOfRow } from '../passages/columns';
import { answeringOf, needsText } from './answering';
import type { Narrowing } from './narrowing';
import type { AskedStudy } from './asked-study';
import { DocumentHere } from './document-here';

/** A passage that answers a question. */
export interface Hit {
  readonly documentId: Id;
  readonly passageId: Id;
  readonly start: number;
  readonly end: number;
}

/** What a part of a question does: how many passages meet it by itself, and how many are left after it and those before it. */
export interface PartCount {
  readonly alone: number;
  readonly left: number;
}

/** Asks a question of one document after another, and counts what each of its parts leaves. */
export class Evaluation {
  private readonly answering;
  private readonly alone: number[];
  private readonly left: number[];
  /** Passages there are in the documents that were asked. */
  passages = 0;
  found = 0;

  constructor(
    private readonly question: Question,
    private readonly study: AskedStudy,
    private readonly narrowing: Narrowing,
  ) {
    this.answering = question.all.map((part) => answeringOf(part, study));
    this.alone = question.all.map(() => 0);
    this.left = question.all.map(() => 0);
  }

  /** Whether a document is worth asking. */
  mayConcern(document: Document): boolean {
    return this.narrowing.mayHold(document);
  }

  /** Whether the text of a document must be known. */
  needsText(document: Document): boolean {
    return this.narrowing.needsSpoken(document) || needsText({ all: this.question.all }, document, this.study);
  }

  /** The passages that answer, in reading order. @param text may be null where it was not said to be needed */
  hitsIn(all: PassageColumns, document: Document, text: Text | null): Hit[] {
    const columns = this.narrowing.leftOf(all, document, text);
    return columns ? hitsOf(columns, this.rowsIn(columns, document, text)) : [];
  }

  /** Rows of what the scope leaves that answer, ascending. */
  private rowsIn(columns: PassageColumns, document: Document, text: Text | null): number[] {
    const here = new DocumentHere(columns, document, text, this.study.language);
    const rows = here.every();
    this.passages += rows.length;
    for (let at = 0; at < this.answering.length; at++) {
      const met = this.answering[at]!(here);
      let [alone, left] = [0, 0];
      // one walk for all three: every passage of the study goes through here, part by part
      for (let row = 0; row < rows.length; row++) {
        const holds = met[row]!;
        alone += holds;
        left += rows[row]! &= holds;
      }
      this.alone[at]! += alone;
      this.left[at]! += left;
    }
    const found: number[] = [];
    for (let row = 0; row < rows.length; row++) if (rows[row]) found.push(row);
    this.found += found.length;
    return found;
  }

  parts(): PartCount[] {
    return this.alone.map((alone, at) => ({ alone, left: this.left[at]! }));
  }
}

/** The passages of some rows as they are listed. */
export const hitsOf = (columns: PassageColumns, rows: readonly number[]): Hit[] =>
  rows.map((row) => ({
    documentId: columns.documentId,
    passageId: idOfRow(columns, row),
    start: columns.starts[row]!,
    end: columns.ends[row]!,
  }));
