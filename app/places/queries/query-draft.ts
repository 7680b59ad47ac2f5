import { Injectable, signal } from '@angular/core';
import type { Question } from '@core/model/query';

export const EMPTY_QUESTION: Question = { all: [], any: [], none: [], withCodesUnder: false, reach: 'passage', documentIds: null };

/** The question being asked, and how far its answer was scrolled: kept while the researcher looks at a passage and comes back. */
@Injectable({ providedIn: 'root' })
export class QueryDraft {
  readonly question = signal<Question>(EMPTY_QUESTION);
  readonly studyId = signal<string | null>(null);
  scrolled = 0;
}
