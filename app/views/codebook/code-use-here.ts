import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import type { CodeUse } from '@core/passages/code-use';
import { selectCases, selectCodes, selectData, selectPassages, selectScope } from '../../state/study.selectors';
import { AnalysisService } from '../../workers/analysis-service';

/** Milliseconds without a change before the use of codes is counted anew. */
const REST = 250;

/** Cases, words and last use of every code in scope, counted in the worker, and again after a change. */
@Injectable()
export class CodeUseHere {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly data = this.store.selectSignal(selectData);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly cases = this.store.selectSignal(selectCases);
  private readonly passages = this.store.selectSignal(selectPassages);
  private readonly scope = this.store.selectSignal(selectScope);
  /** Counting words reads every text, so it is done only where somebody looks. */
  readonly withWords = signal(false);
  /** By code; null before the first answer. What is shown while it is counted anew is the last answer. */
  readonly use = signal<ReadonlyMap<Id, CodeUse> | null>(null);
  /** Share done of a count that takes long; null when none is running. */
  readonly progress = signal<number | null>(null);
  readonly cased = computed(() => Object.keys(this.cases()).length > 0);

  constructor() {
    effect((onCleanup) => {
      this.codes();
      this.passages();
      this.cases();
      const scope = this.scope();
      const withWords = this.withWords();
      let gone = false;
      const timer = setTimeout(() => void this.count(scope, withWords, () => gone), untracked(this.use) ? REST : 0);
      onCleanup(() => {
        gone = true;
        clearTimeout(timer);
      });
    });
  }

  private async count(scope: Parameters<AnalysisService['codeUse']>[1], withWords: boolean, gone: () => boolean): Promise<void> {
    const data = this.data();
    if (!data) return;
    const use = await this.analysis.codeUse(data, scope, withWords, (share) => {
      if (!gone()) this.progress.set(share < 1 ? share : null);
    });
    if (!use || gone()) return;
    this.progress.set(null);
    this.use.set(use);
  }
}
