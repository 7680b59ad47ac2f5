import { computed, effect, inject, Injectable, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { EVERYTHING, type Scope } from '@core/model/scope';
import type { Document } from '@core/model/document';
import type { Narrowing } from '@core/queries/narrowing';
import { AnalysisService } from '../workers/analysis-service';
import { narrowingOf } from './narrowing-here';
import { ScopeActions } from './study.actions';
import { selectData, selectNarrowing, selectPassages, selectScope, selectSpoken, selectStudy } from './study.selectors';

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
  readonly scope = this.store.selectSignal(selectScope);
  private choice = 0;
  /** Documents of which it should be known who speaks where, and is not. */
  private readonly unknown = computed((): readonly Document[] => this.notKnown(this.narrowing()));

  constructor() {
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
    const narrowing = narrowingOf(scope, data.tables, data.tables.document);
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
    this.store.dispatch(ScopeActions.chosen({ scope }));
  }

  /** Looks at the whole study. What is still being sorted out is not wanted any more either. */
  clear(): void {
    this.choice++;
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
    if (this.study()?.id === data.study.id) this.store.dispatch(ScopeActions.spokenLearnt({ spoken: Object.fromEntries(found) }));
  }
}
