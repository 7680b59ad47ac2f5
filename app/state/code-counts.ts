import { computed, inject, Injectable, signal, type Signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { CodeFacts } from '@core/codebook/conditions';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { PassageColumns } from '@core/model/passage-columns';
import type { Table } from '@core/model/study-state';
import { Tallying, type CodebookCounts, type Tally } from '@core/passages/counting';
import { selectCodes, selectData, selectNarrowing, selectPassages, selectScope, selectScopedPassages } from './study.selectors';

/**
 * Codings that are looked at between two frames: a few milliseconds. What is less is counted at once. A worker would
 * not be quicker: to hand it the passages of a large study takes as long as to count them.
 */
const AT_ONCE = 10_000;

/** How often codes occur, as far as it is known. */
export interface CountsNow extends CodebookCounts {
  /** False while a large study is being counted: what is here is from before, or nothing. */
  readonly known: boolean;
}

const NONE: CodebookCounts = { own: new Map(), withUnder: new Map(), documents: new Map(), documentsWithUnder: new Map() };

/** A count as a cell shows it: a dash for none, dots for one that is not known. */
export const inCell = (count: number | null | undefined): string => (count === 0 ? '–' : (count?.toLocaleString() ?? '…'));

/** A count for a code; null while it is not known. */
export const howOften = (counts: CountsNow, of: keyof CodebookCounts, id: Id): number | null =>
  counts[of].get(id) ?? (counts.known ? 0 : null);

/** What is to be counted. */
interface Asked {
  readonly studyId: Id;
  readonly documents: readonly PassageColumns[];
  readonly codes: Table<Code>;
  /** What is looked at; numbers of another scope are not shown in its place. */
  readonly scope: object | null;
}

const looksAtTheSame = (one: Asked, other: Asked): boolean => one.studyId === other.studyId && one.scope === other.scope;

/** Counts again and again: after a change only what has changed, and where that is much, between the frames. */
class Recount {
  private last: { readonly tally: Tally; readonly asked: Asked } | null = null;
  private running: { readonly work: Tallying; readonly asked: Asked } | null = null;
  private readonly ended = signal(0);

  /** The counts as they are now, or as they were while they are being counted. Read in a computed signal, it is told of the end. */
  of(asked: Asked): CountsNow {
    this.ended();
    // a count that is under way is finished first: what changed meanwhile is little beside it
    if (!this.running || !looksAtTheSame(this.running.asked, asked)) {
      const work = this.work(asked);
      if (work.size <= AT_ONCE) return this.keep(asked, work.result());
      this.running = { work, asked };
      this.goOn();
    }
    return { ...(this.last && looksAtTheSame(this.last.asked, asked) ? this.last.tally.counts : NONE), known: false };
  }

  /** The counts as they are now, counted here and now if need be. */
  exact(asked: Asked): CodebookCounts {
    return this.work(asked).result().counts;
  }

  private work({ studyId, documents, codes }: Asked): Tallying {
    return new Tallying(documents, codes, this.last?.asked.studyId === studyId ? this.last.tally : undefined);
  }

  private keep(asked: Asked, tally: Tally): CountsNow {
    this.running = null;
    this.last = { tally, asked };
    return { ...tally.counts, known: true };
  }

  private goOn(): void {
    const { running } = this;
    setTimeout(() => {
      // another study or scope is asked for by now
      if (!running || this.running !== running) return;
      if (running.work.step(AT_ONCE)) return this.goOn();
      this.keep(running.asked, running.work.result());
      this.ended.update((times) => times + 1);
    });
  }
}

/** How often codes occur in the open study: for everything that shows a number beside a code. */
@Injectable({ providedIn: 'root' })
export class CodeCounts {
  private readonly store = inject(Store);
  private readonly data = this.store.selectSignal(selectData);
  private readonly passages = this.store.selectSignal(selectPassages);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly scope = this.store.selectSignal(selectScope);
  private readonly narrowing = this.store.selectSignal(selectNarrowing);
  private readonly scopedPassages = this.store.selectSignal(selectScopedPassages);
  private readonly studyId = computed(() => this.data()?.study.id ?? '');
  private readonly recounts = { all: new Recount(), scoped: new Recount() };

  private readonly everything = computed((): Asked => ({
    studyId: this.studyId(),
    documents: Object.values(this.passages()),
    codes: this.codes(),
    scope: null,
  }));
  private readonly narrow = computed((): Asked => ({
    studyId: this.studyId(),
    documents: Object.values(this.scopedPassages()),
    codes: this.codes(),
    scope: this.scope(),
  }));

  /** Passages by code in the whole study, by everybody. */
  readonly all: Signal<CountsNow> = computed(() => this.recounts.all.of(this.everything()));
  /** Passages by code, in scope. A scope that leaves nothing out is not counted beside the whole. */
  readonly scoped: Signal<CountsNow> = computed(() =>
    this.narrowing().isEverything ? this.all() : this.recounts.scoped.of(this.narrow()),
  );

  /**
   * What conditions on codes are held against; without cases, for which texts have to be read. Null where no study is
   * open, and while a large one is being counted.
   */
  readonly facts = computed((): CodeFacts | null => {
    const [state, counts] = [this.data(), this.all()];
    return state && counts.known ? { state, counts, cases: null, now: Date.now() } : null;
  });

  /** {@link facts} as they are at this moment, for what is done with them: not to be waited for. @throws Error if no study is open */
  factsNow(): CodeFacts {
    const state = this.data();
    if (!state) throw new Error('No study is open.');
    return { state, counts: this.recounts.all.exact(this.everything()), cases: null, now: Date.now() };
  }
}
