import { inject, Injectable, signal } from '@angular/core';
import { QuestionSchema, type Question } from '@core/model/query';
import { mappedAs } from '@core/model/references';
import { MovedHere } from './moved-here';
import { onNextVisit } from './visit';

export const EMPTY_QUESTION: Question = { all: [] };

/**
 * The question being asked, and how far its answer was scrolled: kept while the researcher looks at a passage and comes
 * back. It follows what happens to what it asks for, as a kept one does.
 */
@Injectable({ providedIn: 'root' })
export class QueryDraft {
  readonly question = signal<Question>(EMPTY_QUESTION);
  scrolled = 0;

  constructor() {
    onNextVisit(() => {
      this.question.set(EMPTY_QUESTION);
      this.scrolled = 0;
    });
    inject(MovedHere).moves.subscribe((moves) =>
      this.question.update((question) => mappedAs(QuestionSchema, question, moves) ?? EMPTY_QUESTION),
    );
  }
}
