import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { selectHistory, selectMemos, selectStudy } from '../../state/study.selectors';
import { OpenQuestionsCount } from './open-questions-count';

/** The parts of the place: memos, what to come back to, the log. */
@Component({
  selector: 'fl-memo-tabs',
  imports: [RouterLink],
  template: `
    <nav class="tabs" aria-label="Memos and log">
      @for (one of tabs(); track one.part) {
        <a
          [routerLink]="['/study', study()!.id, one.part === 'log' ? 'log' : 'memos']"
          [queryParams]="one.part === 'todo' ? { view: 'todo' } : {}"
          [class.here]="here() === one.part"
          [attr.aria-current]="here() === one.part ? 'page' : null"
          >{{ one.name }} <span class="second">{{ one.count ? one.count.toLocaleString() : '' }}</span></a
        >
      }
    </nav>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MemoTabs {
  /** The part that is shown; none of them while memos are brought in. */
  readonly here = input.required<string>();
  private readonly store = inject(Store);
  private readonly open = inject(OpenQuestionsCount);
  private readonly memos = this.store.selectSignal(selectMemos);
  private readonly history = this.store.selectSignal(selectHistory);
  protected readonly study = this.store.selectSignal(selectStudy);
  protected readonly tabs = computed(() => [
    { part: 'memos', name: 'All memos', count: Object.keys(this.memos()).length },
    { part: 'todo', name: 'To come back to', count: this.open.count() },
    { part: 'log', name: 'Log', count: this.here() === 'log' ? this.history().seq : 0 },
  ]);
}
