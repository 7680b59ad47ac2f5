import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Memo } from '@core/model/memo';
import type { Passage } from '@core/model/passage';
import { passagesInRows } from '@core/passages/columns';
import { selectMemos, selectPassages } from '../../state/study.selectors';

/** Questions to come back to: memos and comments that are marked so and not answered yet. */
@Injectable({ providedIn: 'root' })
export class OpenQuestionsCount {
  private readonly store = inject(Store);
  private readonly memoTable = this.store.selectSignal(selectMemos);
  private readonly passageTable = this.store.selectSignal(selectPassages);
  readonly memos = computed((): Memo[] => Object.values(this.memoTable()).filter((memo) => memo.question === 'open' && !memo.archived));
  readonly comments = computed((): Passage[] =>
    Object.values(this.passageTable()).flatMap((columns) => {
      const rows = new Set(columns.comments.filter((comment) => comment.open).map((comment) => comment.row));
      return rows.size > 0 ? passagesInRows(columns, (row) => rows.has(row)) : [];
    }),
  );
  readonly count = computed(() => this.memos().length + this.comments().length);
}
