import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { Stretch } from '../model/stretch';
import { codesByRow } from '../passages/codes-by-row';
import type { CaseFinder } from '../passages/case-finder';
import { IntervalIndex } from '../passages/interval-index';
import { paragraphAt, speakerAt } from '../text/paragraphs';
import type { WordHit } from './find-words';

/** A hit as it is shown: what stands around it, who says it, and the codes that are there already. */
export interface FoundHit extends Stretch {
  readonly documentId: Id;
  /** The words, from the start of what is said. */
  readonly words: readonly Stretch[];
  readonly before: string;
  readonly said: string;
  readonly after: string;
  readonly speaker: string;
  /** The cases whose words it is. */
  readonly caseIds: readonly Id[];
  /** Codes of passages in scope that overlap it. */
  readonly codeIds: readonly Id[];
}

/** Characters that are shown on each side of a hit, at most. */
const AROUND = 60;
/** Characters of a unit that are shown. */
const SAID = 600;

/** Hits of one document as they are shown. @param columns its passages as far as they are looked at @param finder says whose words it is */
export function shownHits(
  document: Document,
  text: Text,
  columns: PassageColumns | undefined,
  finder: CaseFinder,
  hits: readonly WordHit[],
): FoundHit[] {
  // most texts of a rare word: nothing is looked up for them
  if (hits.length === 0) return [];
  const codes = codesAt(columns);
  return hits.map(({ start, end, words }) => {
    const first = text.paragraphs[paragraphAt(text.paragraphs, start)];
    const last = text.paragraphs[paragraphAt(text.paragraphs, end - 1)];
    const from = Math.max(first?.body ?? 0, start - AROUND);
    const to = Math.min(last?.end ?? end, end + AROUND);
    return {
      documentId: document.id,
      start,
      end,
      words: words
        .filter((one) => one.start - start < SAID)
        .map((one) => ({ start: one.start - start, end: Math.min(SAID, one.end - start) })),
      before: text.text.slice(from, start),
      said: text.text.slice(start, Math.min(end, start + SAID)),
      after: text.text.slice(end, to),
      speaker: speakerAt(document, text, start)?.name ?? '',
      caseIds: finder.of(document, text, { start, end }),
      codeIds: codes(start, end),
    };
  });
}

function codesAt(columns: PassageColumns | undefined): (start: number, end: number) => Id[] {
  if (!columns) return () => [];
  const index = new IntervalIndex(columns);
  const byRow = codesByRow(columns);
  return (start, end) => {
    const locals = new Set(index.overlapping(start, end).flatMap((row) => byRow[row] ?? []));
    return [...locals].map((local) => columns.codes[local]!);
  };
}
