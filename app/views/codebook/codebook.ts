import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Store } from '@ngrx/store';
import { selectCodes, selectCodeSets, selectSortings } from '../../state/study.selectors';
import { ViewTabs, type ViewTab } from '../../ui/view-tabs';
import { WholeStudy } from '../../ui/whole-study';
import { Checks } from './checks/checks';
import { CodeTree } from './tree/code-tree';
import { CodeSets } from './sets/code-sets';
import { Exchange } from './exchange/exchange';
import { Sorting } from './sorting/sorting';
import { Versions } from './versions/versions';
import { Frozen } from './frozen';

const VIEWS = [
  { view: 'codes', name: 'Codes' },
  { view: 'sorting', name: 'Sorting' },
  { view: 'sets', name: 'Sets' },
  { view: 'checks', name: 'Checks' },
  { view: 'versions', name: 'Then and now' },
  { view: 'exchange', name: 'In and out' },
] as const;
type View = (typeof VIEWS)[number]['view'];

/** The codebook: its tree and pages, sorting tables, sets, checks, what it was before, and its ways in and out. */
@Component({
  selector: 'fl-codebook',
  imports: [Checks, CodeTree, CodeSets, Exchange, Frozen, Sorting, Versions, ViewTabs, WholeStudy],
  template: `
    <div class="place">
      <header class="place-head">
        <h1>Codebook</h1>
        <fl-view-tabs label="Parts of the codebook" home="codes" [views]="views()" [here]="shown()" />
        @if (shown() !== 'codes') {
          <fl-whole-study />
        }
        <fl-frozen class="end" />
      </header>
      @switch (shown()) {
        @case ('sorting') {
          @defer (on immediate) {
            <fl-sorting />
          }
        }
        @case ('sets') {
          @defer (on immediate) {
            <fl-code-sets />
          }
        }
        @case ('checks') {
          @defer (on immediate) {
            <fl-checks />
          }
        }
        @case ('versions') {
          @defer (on immediate) {
            <fl-versions />
          }
        }
        @case ('exchange') {
          @defer (on immediate) {
            <fl-exchange />
          }
        }
        @default {
          <fl-code-tree [code]="code()" />
        }
      }
    </div>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Codebook {
  /** From the address: which part is shown. */
  readonly view = input<string>();
  /** From the address: the code whose page is shown. */
  readonly code = input<string>();
  private readonly store = inject(Store);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly sets = this.store.selectSignal(selectCodeSets);
  private readonly sortings = this.store.selectSignal(selectSortings);
  protected readonly shown = computed((): View => VIEWS.find((one) => one.view === this.view())?.view ?? 'codes');
  protected readonly views = computed((): ViewTab[] => {
    const counts: Partial<Record<View, number>> = {
      codes: Object.keys(this.codes()).length,
      sorting: Object.keys(this.sortings()).length,
      sets: Object.keys(this.sets()).length,
    };
    // what there is none of has no number
    return VIEWS.map((one) => ({ ...one, count: counts[one.view] || null }));
  });
}
