import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { isEverything } from '@core/model/scope';
import { selectScope } from '../state/study.selectors';

/** Says where something does not follow the scope, as long as there is one: it is of the whole study. */
@Component({
  selector: 'fl-whole-study',
  template: `@if (narrowed()) {
    <span class="second" title="This does not follow what is being looked at">of the whole study</span>
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WholeStudy {
  private readonly scope = inject(Store).selectSignal(selectScope);
  protected readonly narrowed = computed(() => !isEverything(this.scope()));
}
