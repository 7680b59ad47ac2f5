import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import type { FoundElsewhere } from '@core/words/find-elsewhere';
import type { FoundHit } from '@core/words/found-hit';
import type { Id } from '@core/model/ids';
import type { StudyState } from '@core/model/study-state';
import type { WordSearch } from '@core/model/word-search';
import type { Scope } from '@core/model/scope';
import { selectData, selectScope, selectSortedDocuments } from '../../../state/study.selectors';
import { WordsDraft } from '../../../state/words-draft';
import { AnalysisService } from '../../../workers/analysis-service';

/** Milliseconds after the last key before it is looked for: who types on is not looked for in between. */
const REST = 40;

/** Looks for words while they are typed; what is found comes as it is found, and a newer search ends the older. */
@Injectable()
export class Looking {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(WordsDraft);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scope = this.store.selectSignal(selectScope);
  private readonly documents = this.store.selectSignal(selectSortedDocuments);
  readonly hits = signal<readonly FoundHit[]>([]);
  readonly trouble = signal<string | null>(null);
  /** What was found in memos, comments and what is said of codes. */
  readonly elsewhere = signal<readonly FoundElsewhere[]>([]);
  /** There are more hits than are shown. */
  readonly more = signal(false);
  /** Share done; null when nothing is looked for. */
  readonly progress = signal<number | null>(null);
  /** Whether what is shown are the first hits, and the rest is still being looked for. */
  readonly looksOn = signal(false);
  readonly asked = computed(() => this.draft.search().typed.trim() !== '');

  constructor() {
    effect((onCleanup) => {
      const search = this.draft.search();
      const onlyUncoded = this.draft.onlyUncoded();
      const [data, scope] = [this.data(), this.scope()];
      const order = untracked(this.documents).map((document) => document.id);
      const where = this.draft.where();
      const ending = new AbortController();
      const look = (): unknown =>
        where === 'texts'
          ? this.look(data!, search, scope, order, onlyUncoded, ending.signal)
          : this.lookElsewhere(data!, search, ending.signal);
      const timer = data && search.typed.trim() ? setTimeout(look, REST) : null;
      if (timer === null) this.show([], null);
      onCleanup(() => {
        if (timer !== null) clearTimeout(timer);
        ending.abort();
      });
    });
  }

  private async look(
    data: StudyState,
    search: WordSearch,
    scope: Scope,
    order: readonly Id[],
    onlyUncoded: boolean,
    signal: AbortSignal,
  ): Promise<void> {
    const found: FoundHit[] = [];
    let shown = false;
    const show = (some: readonly FoundHit[]): void => {
      if (signal.aborted) return;
      for (const hit of some) found.push(hit);
      if (!shown) this.more.set(false);
      // the first are shown at once, the rest as often as the eye can follow
      if (!shown) this.show([...found], null, [], true);
      shown = true;
    };
    const answer = await this.analysis.findWords(
      data,
      search,
      scope,
      order,
      onlyUncoded,
      show,
      (share) => this.told(share, signal),
      signal,
    );
    if (!answer || signal.aborted) return;
    this.progress.set(null);
    this.more.set(answer.more ?? false);
    this.show(found, answer.trouble ?? null);
  }

  private async lookElsewhere(data: StudyState, search: WordSearch, signal: AbortSignal): Promise<void> {
    const found = await this.analysis.findElsewhere(data, search, signal);
    if (!found || signal.aborted) return;
    this.progress.set(null);
    this.more.set(found.more ?? false);
    this.show([], null, found.places);
  }

  private told(share: number, signal: AbortSignal): void {
    if (!signal.aborted) this.progress.set(share < 1 ? share : null);
  }

  private show(hits: readonly FoundHit[], trouble: string | null, elsewhere: readonly FoundElsewhere[] = [], more = false): void {
    this.looksOn.set(more);
    this.elsewhere.set(elsewhere);
    this.hits.set(hits);
    this.trouble.set(trouble);
  }
}
