import { computed, effect, inject, Injectable, resource, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Answer } from '@core/analysis/messages';
import type { PassageCondition } from '@core/model/passage-condition';
import { chosenPart } from '@core/queries/open-parts';
import { groupsBy, type Grouping } from '@core/queries/groups';
import { sinceSeen } from '@core/queries/seen';
import {
  selectData,
  selectQueries,
  selectScope,
  selectScopedDocuments,
  selectSetsIn,
  selectSortedDocuments,
} from '../../state/study.selectors';
import { AnalysisService } from '../../workers/analysis-service';
import { QueryDraft } from '../../state/query-draft';

/** The question at hand, asked anew whenever it, the scope or the study changes, and its answer. */
@Injectable()
export class Asking {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(QueryDraft);
  private readonly data = this.store.selectSignal(selectData);
  private readonly sets = this.store.selectSignal(selectSetsIn);
  private readonly scope = this.store.selectSignal(selectScope);
  private readonly documents = this.store.selectSignal(selectSortedDocuments);
  private readonly scopedDocuments = this.store.selectSignal(selectScopedDocuments);
  private readonly queries = this.store.selectSignal(selectQueries);
  readonly question = this.draft.question;
  /** Each part as it is asked; null for one that is still to be chosen. */
  private readonly parts = computed(() => this.question().all.map(chosenPart));
  readonly asked = computed(() => this.parts().some((part) => part !== null));
  /** The parts that are asked. */
  private readonly complete = computed(() => ({ ...this.question(), all: this.parts().filter((part) => part !== null) }));
  /** Share done of an answer that takes long. */
  readonly progress = signal<number | null>(null);
  private readonly answer = resource({
    params: () =>
      this.asked() && this.data()
        ? { question: this.complete(), scope: this.scope(), data: this.data()!, order: this.documents().map((document) => document.id) }
        : undefined,
    loader: async ({ params: { question, scope, data, order }, abortSignal }) => {
      const answer = await this.analysis.ask(data, question, scope, order, abortSignal, (share) =>
        this.progress.set(share < 1 && !abortSignal.aborted ? share : null),
      );
      this.progress.set(null);
      return answer;
    },
  });
  readonly trouble = computed(() => this.answer.error()?.message ?? null);
  /** The last answer stays while the next is on its way. */
  readonly shown = signal<Answer | null>(null);
  /** What each part leaves, where the answer is of the question as it stands. */
  readonly counts = computed(() => {
    const parts = this.shown()?.parts;
    let at = 0;
    const next = (): readonly number[] | null => {
      const count = parts?.[at++];
      return count ? [count.alone, count.left] : null;
    };
    return parts && this.parts().map((part) => (part ? next() : null));
  });
  /** What the answer is set side by side by; null for one list. */
  readonly grouping = signal<Grouping | null>(null);
  private readonly groups = computed(() => {
    const [grouping, sets] = [this.grouping(), this.sets()];
    return grouping && sets ? groupsBy(grouping, sets, new Set(this.scopedDocuments().map((document) => document.id))) : [];
  });
  private readonly compared = resource({
    params: () => {
      const [groups, data] = [this.groups(), this.data()];
      return groups.length > 0 && data && this.asked()
        ? { groups, data, question: this.complete(), scope: this.scope(), order: this.documents().map((document) => document.id) }
        : undefined;
    },
    loader: async ({ params: { groups, data, question, scope, order }, abortSignal }) => {
      const conditions = groups.map((group) => group.condition);
      const answers = await this.analysis.sideBySide(data, question, conditions, scope, order, abortSignal);
      return answers && groups.map((group, at) => ({ group, hits: answers[at]! }));
    },
  });
  /** The answer by group; null where it is one list. */
  readonly columns = computed(() => (this.grouping() ? (this.compared.value() ?? []) : null));

  /** The kept query that asks just this. */
  readonly kept = computed(() => {
    const asked = JSON.stringify(this.question());
    return Object.values(this.queries()).find((query) => JSON.stringify(query.question) === asked) ?? null;
  });
  /** What is new and what is gone since the answer of the kept query was last seen. */
  readonly since = computed(() => {
    const seen = this.kept()?.seen;
    const hits = this.shown()?.hits;
    return seen && hits
      ? {
          at: seen.at,
          ...sinceSeen(
            hits.map((hit) => hit.passageId),
            seen,
          ),
        }
      : null;
  });

  constructor() {
    effect(() => {
      if (!this.asked()) this.shown.set(null);
      else if (this.answer.status() === 'resolved' || this.answer.status() === 'local') this.shown.set(this.answer.value() ?? null);
    });
  }

  set(all: readonly PassageCondition[]): void {
    this.draft.scrolled = 0;
    this.question.update((question) => ({ ...question, all: [...all] }));
  }
}
