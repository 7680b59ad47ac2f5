import { Injectable, signal } from '@angular/core';
import type { WordSearch } from '@core/model/word-search';
import type { SweepContext } from '@core/words/contexts';
import { onNextVisit } from './visit';

export const NO_SEARCH: WordSearch = { typed: '', match: 'whole words', capitals: false, accents: false, unit: 'words' };

/** What is looked for, kept while the researcher goes to a place in a text and back. */
@Injectable({ providedIn: 'root' })
export class WordsDraft {
  readonly search = signal<WordSearch>(NO_SEARCH);
  readonly onlyUncoded = signal(false);
  readonly context = signal<SweepContext>('hit');
  /** What is looked through: the texts, or what is written beside them. */
  readonly where = signal<'texts' | 'writing'>('texts');

  constructor() {
    onNextVisit(() => this.search.set(NO_SEARCH));
  }
}
