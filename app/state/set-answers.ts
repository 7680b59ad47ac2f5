import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import type { StudyState } from '@core/model/study-state';
import { setsAskQueries } from '@core/sets/asked-queries';
import { AnalysisService } from '../workers/analysis-service';
import { Notices } from './notices';
import { ScopeActions } from './study.actions';
import { selectAnswered, selectData } from './study.selectors';

/** Milliseconds for which nothing must change before it is asked anew. */
const REST = 150;

/**
 * Keeps known what kept queries find that live sets ask for: it depends on all passages and on texts, so the analysis is
 * asked whenever the study has changed. Where no live set asks for a query, nothing is done.
 */
@Injectable({ providedIn: 'root' })
export class SetAnswers {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly notices = inject(Notices);
  private readonly data = this.store.selectSignal(selectData);
  private readonly answered = this.store.selectSignal(selectAnswered);
  /** The study that was asked of last: one that could not be answered is not asked again and again. */
  private readonly askedOf = signal<StudyState | null>(null);
  private readonly wanted = computed(() => {
    const data = this.data();
    return data && data !== this.answered().of && data !== this.askedOf() && setsAskQueries(data.tables) ? data : null;
  });

  constructor() {
    effect((onCleanup) => {
      const data = this.wanted();
      if (!data) return;
      // the first time at once: nothing is known of such a set yet
      const rest = untracked(() => this.answered().of?.study.id === data.study.id) ? REST : 0;
      const timer = setTimeout(() => void this.learn(data), rest);
      onCleanup(() => clearTimeout(timer));
    });
  }

  private async learn(data: StudyState): Promise<void> {
    this.askedOf.set(data);
    try {
      const answers = await this.analysis.setAnswers(data, this.answered().sign);
      if (!answers || this.data()?.study.id !== data.study.id) return;
      const found = answers.found ?? this.answered().found;
      this.store.dispatch(ScopeActions.setsAnswered({ answered: { of: data, sign: answers.sign, found } }));
    } catch (error) {
      this.notices.refuse(`What is in some live sets could not be worked out: ${(error as Error).message}`);
    }
  }
}
