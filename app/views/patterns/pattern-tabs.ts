import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { AskedPattern } from '@core/model/pattern';

/** The patterns there are, as the address names them. */
export const PATTERN_VIEWS: readonly { readonly view: AskedPattern['pattern']; readonly name: string }[] = [
  { view: 'frequencies', name: 'Frequencies' },
  { view: 'cross-table', name: 'Cross-table' },
  { view: 'together', name: 'Together' },
  { view: 'weave', name: 'Weave' },
  { view: 'saturation', name: 'Saturation' },
  { view: 'words', name: 'Words' },
];

/** The parts of Patterns. */
@Component({
  selector: 'fl-pattern-tabs',
  imports: [RouterLink],
  template: `
    <nav class="tabs" aria-label="Parts of the patterns">
      @for (one of views; track one.view) {
        <a
          routerLink="."
          [queryParams]="{ view: one.view }"
          [class.here]="here() === one.view"
          [attr.aria-current]="here() === one.view ? 'page' : null"
          >{{ one.name }}</a
        >
      }
    </nav>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PatternTabs {
  readonly here = input.required<AskedPattern['pattern']>();
  protected readonly views = PATTERN_VIEWS;
}
