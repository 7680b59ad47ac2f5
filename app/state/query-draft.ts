import { inject, Injectable, signal } from '@angular/core';
import { QuestionSchema, type Question } from '@core/model/query';
import { mappedAs } from '@core/model/references';
import { MovedHere } from './moved-here';

export const EMPTY_QUESTION: Question = { all: [] };

/**
 * The question being asked, and how far its answer was scrolled: kept while the researcher looks at a passage and comes
 * back. It follows what happens to what it asks for, as a kept one does.
 */
@Injectable({ providedIn: 'root' })
export class QueryDraft {
  readonly question = signal<Question>(EMPTY_QUESTION);
  readonly studyId = signal<string | null>(null);
  scrolled = 0;

  constructor() {
    inject(MovedHere).moves.subscribe((moves) =>
      this.question.update((question) => mappedAs(QuestionSchema, question, moves) ?? EMPTY_QUESTION),
    );
  }
}
