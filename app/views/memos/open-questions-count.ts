import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Memo } from '@core/model/memo';
import { passagesCommented } from '@core/passages/columns';
import { selectMemos, selectPassages } from '../../state/study.selectors';

/** Questions to come back to: memos and comments that are marked so and not answered yet. */
@Injectable({ providedIn: 'root' })
export class OpenQuestionsCount {
  private readonly store = inject(Store);
  private readonly memoTable = this.store.selectSignal(selectMemos);
  private readonly passageTable = this.store.selectSignal(selectPassages);
  readonly memos = computed((): Memo[] => Object.values(this.memoTable()).filter((memo) => memo.question === 'open' && !memo.archived));
  readonly comments = computed(() => Object.values(this.passageTable()).flatMap((columns) => passagesCommented(columns, true)));
  readonly count = computed(() => this.memos().length + this.comments().length);
}
