import type { Answered } from '../model/answered';
import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { StudyState } from '../model/study-state';
import type { Hit, PartCount } from '../queries/evaluate';
import type { WayOut } from '../queries/explain';

/** What was found, and what each part of the question leaves; for an empty answer, the steps that would bring something back. */
export interface Answer {
  readonly hits: readonly Hit[];
  readonly parts: readonly PartCount[];
  /** Passages there are in scope. */
  readonly of: number;
  readonly waysOut: readonly WayOut[];
}

/** How many places were found, or why none could be looked for. */
export interface FoundWords {
  readonly hits: number;
  /** There are more than are shown. */
  readonly more?: true;
  readonly trouble?: string;
}

/** What of the study has changed since it was last told; null where nothing has. */
export interface Told {
  readonly studyId: Id;
  /** What is known of this study so far is not to be relied on: it was read anew. */
  readonly anew: boolean;
  readonly changed: readonly PassageColumns[];
  readonly gone: readonly Id[];
  /** Tables of which any record changed. */
  readonly tables: Partial<StudyState['tables']>;
  /** BCP 47 tag of the study. */
  readonly language: string;
  /** Texts that changed, as they are now: the disk may not have them yet. */
  readonly texts: readonly Text[];
}

/** Reads texts of a study from where they are kept. */
export type ReadTexts = (studyId: Id, documentIds: readonly Id[]) => Promise<readonly Text[]>;

/** How often a word of the glossary stands in a document. */
export interface GlossUse {
  readonly documentId: Id;
  readonly count: number;
}

/** How much a scope leaves. */
export interface Leaves {
  readonly documents: number;
  readonly cases: number;
  readonly passages: number;
}

/** What kept queries find that live sets ask for. */
export interface SetsAnswered {
  /** Tells these answers from others, of this analysis and of any other. */
  readonly sign: string;
  /** Null where whoever asks has just these. */
  readonly found: Answered | null;
}
