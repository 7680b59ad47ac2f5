import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { EVERYTHING, type Scope } from '@core/model/scope';
import type { Document } from '@core/model/document';
import type { StudyState } from '@core/model/study-state';
import type { Narrowing } from '@core/queries/narrowing';
import { scopeAfter } from '@core/queries/scope-moves';
import { AnalysisService } from '../workers/analysis-service';
import { MovedHere } from './moved-here';
import { narrowingOf } from './narrowing-here';
import { SetAnswers } from './set-answers';
import { ScopeActions } from './study.actions';
import { selectAnswered, selectData, selectNarrowing, selectPassages, selectScope, selectSpoken, selectStudy } from './study.selectors';

/** Codings of which those in scope are sorted out between two frames: a few milliseconds. */
const AT_ONCE = 6_000;

/**
 * Changes what everything looks at. Where a scope depends on who speaks, that is read first; and what it leaves of a large
 * study is sorted out between the frames and remembered: then every number changes in one step, and nothing waits for any.
 * Afterwards it keeps known who speaks in what is new.
 */
@Injectable({ providedIn: 'root' })
export class ScopeChoice {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly data = this.store.selectSignal(selectData);
  private readonly passages = this.store.selectSignal(selectPassages);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly spoken = this.store.selectSignal(selectSpoken);
  private readonly narrowing = this.store.selectSignal(selectNarrowing);
  private readonly answered = this.store.selectSignal(selectAnswered);
  private readonly stored = this.store.selectSignal(selectScope);
  /** What was chosen and is being sorted out; null where nothing is. */
  private readonly wanted = signal<Scope | null>(null);
  /** What was chosen last, whether or not all numbers are of it by now: what is changed next begins from it. */
  readonly scope = computed(() => this.wanted() ?? this.stored());
  private choice = 0;
  /** Documents of which it should be known who speaks where, and is not. */
  private readonly unknown = computed((): readonly Document[] => this.notKnown(this.narrowing()));

  constructor() {
    // what live sets hold is known before one of them is chosen
    inject(SetAnswers);
    inject(MovedHere).moves.subscribe((moves) => this.wanted.update((scope) => scope && scopeAfter(scope, moves)));
    effect(() => {
      const unknown = this.unknown();
      if (unknown.length > 0) untracked(() => void this.learn(unknown));
    });
  }

  /** @returns done when the scope has changed, or another was chosen meanwhile */
  async choose(scope: Scope): Promise<void> {
    const choice = ++this.choice;
    const studyId = this.study()?.id;
    const isStill = (): boolean => choice === this.choice && this.study()?.id === studyId;
    const data = this.data();
    if (!data) return;
    this.wanted.set(scope);
    try {
      await this.sortOut(scope, data, isStill);
    } catch (error) {
      if (choice === this.choice) this.wanted.set(null);
      throw error;
    }
    if (!isStill()) {
      // of another study nothing was chosen
      if (choice === this.choice) this.wanted.set(null);
      return;
    }
    const chosen = this.scope();
    this.wanted.set(null);
    this.store.dispatch(ScopeActions.chosen({ scope: chosen }));
  }

  /** Learns who speaks where it must be known, and sorts out what is left of each document; stops where it is not wanted any more. */
  private async sortOut(scope: Scope, data: StudyState, isStill: () => boolean): Promise<void> {
    const narrowing = narrowingOf(scope, data.tables, data.tables.document, this.answered().found);
    const unknown = this.notKnown(narrowing);
    if (unknown.length > 0) {
      await this.learn(unknown);
      if (!isStill()) return;
    }
    let codings = 0;
    for (const columns of narrowing.isEverything ? [] : Object.values(this.passages())) {
      const document = data.tables.document[columns.documentId];
      if (!document) continue;
      narrowing.leftOf(columns, document, this.spoken()[document.id] ?? null);
      codings += columns.codingRow.length;
      if (codings < AT_ONCE) continue;
      codings = 0;
      await new Promise((resolve) => setTimeout(resolve));
      if (!isStill()) return;
    }
  }

  /** Looks at the whole study. What is still being sorted out is not wanted any more either. */
  clear(): void {
    this.choice++;
    this.wanted.set(null);
    this.store.dispatch(ScopeActions.chosen({ scope: EVERYTHING }));
  }

  private notKnown(narrowing: Narrowing): Document[] {
    if (narrowing.isEverything) return [];
    const spoken = this.spoken();
    return Object.values(this.data()?.tables.document ?? {}).filter(
      (document) => !Object.hasOwn(spoken, document.id) && narrowing.needsSpoken(document),
    );
  }

  private async learn(documents: readonly Document[]): Promise<void> {
    const data = this.data();
    if (!data) return;
    const found = await this.analysis.spoken(
      data,
      documents.map((document) => document.id),
    );
    // of a text that cannot be read nobody is known to speak: it is not asked for again and again
    const spoken = Object.fromEntries(documents.map(({ id }) => [id, found.get(id) ?? { paragraphs: [] }]));
    if (this.study()?.id === data.study.id) this.store.dispatch(ScopeActions.spokenLearnt({ spoken }));
  }
}
