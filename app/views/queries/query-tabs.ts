import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { sweptByCode } from '@core/commands/sweep';
import { selectPassages } from '../../state/study.selectors';

/** The parts of Queries: passages by what they do, words in texts, and what a sweep left to be looked at. */
@Component({
  selector: 'fl-query-tabs',
  imports: [RouterLink],
  template: `
    <nav class="tabs" aria-label="Parts of the queries">
      @for (one of views; track one.view) {
        <a
          routerLink="."
          [queryParams]="one.view === 'passages' ? {} : { view: one.view }"
          [class.here]="here() === one.view"
          [attr.aria-current]="here() === one.view ? 'page' : null"
          >{{ one.name }}
          @if (one.view === 'swept' && swept() > 0) {
            <span class="second">{{ swept().toLocaleString() }}</span>
          }
        </a>
      }
    </nav>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QueryTabs {
  readonly here = input.required<'passages' | 'words' | 'swept' | 'propositions'>();
  protected readonly views = [
    { view: 'passages', name: 'Passages' },
    { view: 'words', name: 'Words' },
    { view: 'swept', name: 'Swept' },
    { view: 'propositions', name: 'Propositions' },
  ] as const;
  private readonly passages = inject(Store).selectSignal(selectPassages);
  /** Swept codings that nobody has looked at. */
  protected readonly swept = computed(() => [...sweptByCode(Object.values(this.passages())).values()].reduce((all, one) => all + one, 0));
}
