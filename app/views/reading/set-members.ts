import { computed, effect, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { codesOfSet } from '@core/codebook/conditions';
import type { CodeSet } from '@core/model/code-set';
import type { Id } from '@core/model/ids';
import { EVERYTHING } from '@core/model/scope';
import type { CodeUse } from '@core/passages/code-use';
import { selectCases, selectCodeSets, selectData, selectPassages } from '../../state/study.selectors';
import { AnalysisService } from '../../workers/analysis-service';
import { CodeCounts } from '../../state/code-counts';

/** Milliseconds without a change before cases are counted anew. */
const REST = 300;

/** Whether the members of a set depend on how many cases have a code: for that texts are read, which the worker does. */
const asksForCases = (set: CodeSet | undefined): boolean => set?.conditions?.some((one) => one.about === 'cases fewer than') ?? false;

/** The codes of one set, kept up to date while somebody looks at them. */
@Injectable()
export class SetMembers {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly data = this.store.selectSignal(selectData);
  private readonly facts = inject(CodeCounts).facts;
  private readonly sets = this.store.selectSignal(selectCodeSets);
  private readonly passages = this.store.selectSignal(selectPassages);
  private readonly caseTable = this.store.selectSignal(selectCases);
  private readonly cases = signal<ReadonlyMap<Id, CodeUse> | null>(null);
  /** The set whose members are wanted. */
  readonly wanted = signal<Id | null>(null);
  private readonly set = computed(() => this.sets()[this.wanted() ?? '']);
  /** Its codes; null where there is no such set, or cases are not counted yet. */
  readonly members = computed((): ReadonlySet<Id> | null => {
    const [set, facts, cases] = [this.set(), this.facts(), this.cases()];
    if (!set || !facts || (asksForCases(set) && !cases)) return null;
    return new Set(codesOfSet({ ...facts, cases }, set));
  });

  constructor() {
    effect((onCleanup) => {
      if (!asksForCases(this.set())) return;
      this.passages();
      this.caseTable();
      let gone = false;
      const count = async (): Promise<void> => {
        const data = this.data();
        if (gone || !data) return;
        const use = await this.analysis.codeUse(data, EVERYTHING, false, () => undefined);
        if (gone) return;
        // another asked in between, and the worker answers the last
        if (!use) timer = setTimeout(() => void count(), REST);
        else this.cases.set(use);
      };
      let timer = setTimeout(() => void count(), REST);
      onCleanup(() => {
        gone = true;
        clearTimeout(timer);
      });
    });
  }
}
