import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Store } from '@ngrx/store';
import { sweptByCode } from '@core/commands/sweep';
import { selectPassages } from '../../state/study.selectors';
import { ViewTabs } from '../../ui/view-tabs';

/** The parts of Queries: passages by what they do, words in texts, and what a sweep left to be looked at. */
@Component({
  selector: 'fl-query-tabs',
  imports: [ViewTabs],
  template: `<fl-view-tabs label="Parts of the queries" home="passages" [views]="views()" [here]="here()" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QueryTabs {
  readonly here = input.required<'passages' | 'words' | 'swept' | 'propositions'>();
  private readonly passages = inject(Store).selectSignal(selectPassages);
  protected readonly views = computed(() => {
    // swept codings that nobody has looked at
    const swept = [...sweptByCode(Object.values(this.passages())).values()].reduce((all, one) => all + one, 0);
    return [
      { view: 'passages', name: 'Passages' },
      { view: 'words', name: 'Words' },
      { view: 'swept', name: 'Swept', count: swept || null },
      { view: 'propositions', name: 'Propositions' },
    ];
  });
}
