import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** How a code is drawn, everywhere the same: its mark standing on a short line in its colour. */
@Component({
  selector: 'fl-swatch',
  template: `{{ mark() }}`,
  styles: `
    :host {
      display: inline-block;
      flex: none;
      min-width: 22px;
      padding: 0 2px;
      text-align: center;
      color: var(--c-ink);
      border-bottom: 2px solid var(--c);
      font: 700 11px / 14px var(--face-ui);
      letter-spacing: 0.01em;
    }
  `,
  host: { '[class]': "'c' + colour()", 'aria-hidden': 'true' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Swatch {
  readonly mark = input.required<string>();
  readonly colour = input.required<number>();
}
