import { inject, Injectable } from '@angular/core';
import { Ways } from '../../state/ways';
import { NO_SEARCH, WordsDraft } from '../../state/words-draft';

/** Leads from words of a pattern to where they stand: there they can be read, swept and coded. */
@Injectable({ providedIn: 'root' })
export class SearchFor {
  private readonly search = inject(WordsDraft);
  private readonly ways = inject(Ways);

  /** @param typed as words are typed to be looked for @param forms in all their forms */
  go(typed: string, forms: boolean): void {
    this.search.where.set('texts');
    this.search.onlyUncoded.set(false);
    this.search.search.set({ ...NO_SEARCH, typed, match: forms ? 'all forms' : 'whole words', accents: true });
    this.ways.go(['queries'], { queryParams: { view: 'words' } });
  }
}
