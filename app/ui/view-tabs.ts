import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink } from '@angular/router';

/** A part of a place, as the address names it. */
export interface ViewTab {
  readonly view: string;
  readonly name: string;
  /** How many there are; absent where that is not said. */
  readonly count?: number | null;
}

/** The parts of a place, one of which is shown: the address says which. */
@Component({
  selector: 'fl-view-tabs',
  imports: [RouterLink],
  template: `
    <nav class="tabs" [attr.aria-label]="label()">
      @for (one of views(); track one.view) {
        <a
          routerLink="."
          [queryParams]="one.view === home() ? {} : { view: one.view }"
          [class.here]="here() === one.view"
          [attr.aria-current]="here() === one.view ? 'page' : null"
          >{{ one.name }}
          @if (one.count !== undefined && one.count !== null) {
            <span class="second">{{ one.count.toLocaleString() }}</span>
          }
        </a>
      }
    </nav>
  `,
  styles: `
    :host {
      display: block;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ViewTabs {
  readonly label = input.required<string>();
  readonly views = input.required<readonly ViewTab[]>();
  readonly here = input.required<string>();
  /** The part that is shown where the address names none. */
  readonly home = input<string>();
}
