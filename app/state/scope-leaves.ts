import { computed, effect, inject, Injectable, resource, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Leaves } from '@core/analysis/messages';
import { isEverything } from '@core/model/scope';
import { passageCount } from '@core/passages/columns';
import { counted } from '@core/text/counted';
import { AnalysisService } from '../workers/analysis-service';
import { selectData, selectScope, selectScopedDocuments } from './study.selectors';

/** Milliseconds for which nothing must change before it is counted anew. */
const REST = 250;

/** How much the scope leaves of the study, as a whole and each of its parts by itself. */
@Injectable({ providedIn: 'root' })
export class ScopeLeaves {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scope = this.store.selectSignal(selectScope);
  private readonly documents = this.store.selectSignal(selectScopedDocuments);
  readonly narrowed = computed(() => !isEverything(this.scope()));
  /** Whether the parts are to be counted each by itself as well: they are being looked at. */
  readonly eachPart = signal(false);
  private readonly counted = resource({
    params: () => {
      const [data, scope] = [this.data(), this.scope()];
      if (!data || !this.narrowed()) return undefined;
      const parts = this.eachPart() ? scope.parts.map((part) => ({ parts: [part] })) : [];
      const given = this.eachPart() && scope.given ? [{ parts: [], given: scope.given }] : [];
      return { data, scope, scopes: [scope, ...parts, ...given] };
    },
    loader: async ({ params: { data, scope, scopes }, abortSignal }) => {
      await new Promise((resolve) => setTimeout(resolve, this.last()?.scope === scope ? REST : 0));
      if (abortSignal.aborted) return null;
      const leaves = await this.analysis.leaves(data, scopes, abortSignal);
      return leaves && { scope, leaves };
    },
  });
  /** What was counted last: it stays while the same scope is counted anew. */
  private readonly last = signal<{ readonly scope: object; readonly leaves: readonly Leaves[] } | null>(null);
  private readonly known = computed(() => (this.last()?.scope === this.scope() ? this.last()!.leaves : null));
  /** What the whole scope leaves; null while it is not known. */
  readonly all = computed(() => this.known()?.[0] ?? null);
  /** What each part leaves by itself, and last, where there is such a thing, the codings that are looked at. */
  readonly parts = computed((): readonly Leaves[] => this.known()?.slice(1) ?? []);
  /** What there is in the whole study. */
  readonly of = computed((): Leaves => {
    const data = this.data();
    return {
      documents: Object.keys(data?.tables.document ?? {}).length,
      cases: Object.keys(data?.tables.case ?? {}).length,
      passages: Object.values(data?.passages ?? {}).reduce((sum, columns) => sum + passageCount(columns), 0),
    };
  });

  constructor() {
    effect(() => {
      const counted = this.counted.hasValue() ? this.counted.value() : null;
      if (counted) this.last.set(counted);
    });
  }

  /** “12 of 24 documents · 9 of 19 participants · 412 of 995 passages” */
  sentence(caseWord: string): string {
    const [of, all] = [this.of(), this.all()];
    const share = (count: number | undefined, total: number, word: string): string =>
      `${count?.toLocaleString('en') ?? '…'} of ${counted(total, word)}`;
    const documents = share(this.documents().length, of.documents, 'document');
    if (!this.narrowed()) return documents;
    return [
      documents,
      ...(of.cases > 0 ? [share(all?.cases, of.cases, caseWord)] : []),
      ...(of.passages > 0 ? [share(all?.passages, of.passages, 'passage')] : []),
    ].join(' · ');
  }
}
