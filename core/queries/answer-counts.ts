import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { CaseFinder } from '../passages/case-finder';
import { idOfRow } from '../passages/columns';
import { wordsIn } from '../passages/coverage';
import { union } from '../passages/union';

/** How much an answer is. */
export interface AnswerCounts {
  readonly passages: number;
  /** Codings that its passages carry, everybody's. */
  readonly codings: number;
  readonly documents: number;
  readonly cases: number;
  /** Words in the union of its passages. */
  readonly words: number;
}

/** Counts an answer, one document after another. */
export class AnswerCounter {
  private readonly counts = { passages: 0, codings: 0, documents: 0, words: 0 };
  private readonly cases = new Set<Id>();

  constructor(private readonly finder: CaseFinder) {}

  /** @param passageIds those of the document that are in the answer */
  add(columns: PassageColumns, document: Document, text: Text | null, passageIds: ReadonlySet<Id>): void {
    const { starts, ends, codingRow } = columns;
    const inside = new Uint8Array(starts.length);
    const places = [];
    for (let row = 0; row < inside.length; row++) {
      if (!passageIds.has(idOfRow(columns, row))) continue;
      inside[row] = 1;
      const place = { start: starts[row]!, end: ends[row]! };
      places.push(place);
      for (const caseId of this.finder.of(document, text, place)) this.cases.add(caseId);
    }
    if (places.length === 0) return;
    this.counts.documents++;
    this.counts.passages += places.length;
    for (const row of codingRow) this.counts.codings += inside[row]!;
    if (text && columns.ground === 'text') this.counts.words += wordsIn(text, union(places));
  }

  result(): AnswerCounts {
    return { ...this.counts, cases: this.cases.size };
  }
}
