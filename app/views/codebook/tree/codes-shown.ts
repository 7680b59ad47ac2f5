import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { codesMeeting, codesOfSet, type CodeFacts } from '@core/codebook/conditions';
import { findCodes } from '@core/codebook/find-codes';
import { fold } from '@core/text/fold';
import { inTreeOrder, type TreeRow } from '@core/codebook/tree';
import { subjectsOf } from '@core/memos/references';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import { selectCodes, selectCodeSets, selectMemos } from '../../../state/study.selectors';
import { CodeUseHere } from '../code-use-here';
import { TreeSettings, type Column } from './tree-settings';
import { CodeCounts, howOften, inCell } from '../../../state/code-counts';

const DATE = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: '2-digit' });
const COLLATOR = new Intl.Collator(undefined, { numeric: true });

/** The codes that are shown, in their order, and what the columns say of them. */
@Injectable()
export class CodesShown {
  private readonly store = inject(Store);
  private readonly settings = inject(TreeSettings);
  private readonly useHere = inject(CodeUseHere);
  private readonly codeCounts = inject(CodeCounts);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly sets = this.store.selectSignal(selectCodeSets);
  private readonly memos = this.store.selectSignal(selectMemos);
  private readonly counts = this.codeCounts.scoped;
  private readonly memoCounts = computed(() => {
    const counts = new Map<Id, number>();
    for (const memo of Object.values(this.memos()))
      for (const subject of subjectsOf(memo)) if (subject.type === 'code') counts.set(subject.id, (counts.get(subject.id) ?? 0) + 1);
    return counts;
  });

  /** What conditions look at: all of the study, whatever the scope. Null while a large study is being counted. */
  readonly facts = computed((): CodeFacts | null => {
    const facts = this.codeCounts.facts();
    return facts && { ...facts, cases: this.useHere.use() };
  });

  private readonly filtered = computed((): ReadonlySet<Id> | null => {
    const set = this.sets()[this.settings.setId() ?? ''];
    const conditions = this.settings.conditions();
    const typed = this.settings.typed();
    if (!set && conditions.length === 0 && !fold(typed).trim()) return null;
    const facts = this.facts();
    // what meets a condition is not known yet: nothing is shown that may not
    if (!facts && (set || conditions.length > 0)) return new Set();
    let ids = fold(typed).trim() ? findCodes(this.codes(), typed, [], Infinity).map(({ code }) => code.id) : Object.keys(this.codes());
    if (facts && conditions.length > 0) {
      const meeting = new Set(codesMeeting(facts, conditions));
      ids = ids.filter((id) => meeting.has(id));
    }
    if (facts && set) {
      const members = new Set(codesOfSet(facts, set));
      ids = ids.filter((id) => members.has(id));
    }
    return new Set(ids);
  });

  private readonly compare = computed((): ((a: Code, b: Code) => number) | undefined => {
    const { withUnder } = this.counts();
    const use = this.useHere.use();
    switch (this.settings.order()) {
      case 'by hand':
        return undefined;
      case 'by name':
        return (a, b) => COLLATOR.compare(a.name, b.name);
      case 'by passages':
        return (a, b) => (withUnder.get(b.id) ?? 0) - (withUnder.get(a.id) ?? 0) || COLLATOR.compare(a.name, b.name);
      case 'by when it was made':
        return (a, b) => b.createdAt - a.createdAt || COLLATOR.compare(a.name, b.name);
      case 'by last use':
        return (a, b) => (use?.get(b.id)?.lastUsed ?? 0) - (use?.get(a.id)?.lastUsed ?? 0) || COLLATOR.compare(a.name, b.name);
    }
  });

  readonly narrowed = computed(() => this.filtered() !== null);
  readonly rows = computed((): readonly TreeRow[] => {
    const filtered = this.filtered();
    if (!filtered) return inTreeOrder(this.codes(), this.compare(), this.settings.folded());
    return inTreeOrder(this.codes(), this.compare()).filter((row) => filtered.has(row.code.id));
  });

  /** Passages of a code in scope, as the numbers are set to count. */
  passagesOf(id: Id): number | null {
    return howOften(this.counts(), this.settings.withUnder() ? 'withUnder' : 'own', id);
  }

  /** What a column says of a code. */
  cell(column: Column, code: Code): string {
    const under = this.settings.withUnder();
    const counts = this.counts();
    const use = this.useHere.use()?.get(code.id);
    switch (column) {
      case 'passages':
        return inCell(this.passagesOf(code.id));
      case 'documents':
        return inCell(howOften(counts, under ? 'documentsWithUnder' : 'documents', code.id));
      case 'cases':
        return this.useHere.use() ? inCell((under ? use?.casesWithUnder : use?.cases) ?? 0) : '…';
      case 'words':
        return this.useHere.use() ? inCell(use ? (under ? use.wordsWithUnder : use.words) : 0) : '…';
      case 'seconds':
        return this.useHere.use() ? inCell(Math.round(((under ? use?.millisecondsWithUnder : use?.milliseconds) ?? 0) / 1000)) : '…';
      case 'area':
        return this.useHere.use() ? shareInCell((under ? use?.areaWithUnder : use?.area) ?? null) : '…';
      case 'memos':
        return inCell(this.memoCounts().get(code.id) ?? 0);
      case 'last used':
        return this.useHere.use() ? (use?.lastUsed ? DATE.format(use.lastUsed) : '–') : '…';
      case 'made':
        return DATE.format(code.createdAt);
      case 'definition':
        return code.definition;
    }
  }
}

/** A share of pictures; what covers less than a tenth of a percent is still something. */
function shareInCell(share: number | null): string {
  if (share === null) return '–';
  const percent = share * 100;
  return percent > 0 && percent < 0.1 ? '< 0.1 %' : `${percent.toLocaleString(undefined, { maximumFractionDigits: 1 })} %`;
}
