import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { shortened } from '@core/text/shortened';
import type { TableHead } from './table-head';

/** How wide names in a column are, units of the drawing. */
export const NAMES_WIDE = 250;

/** How far below each other they stand. */
export const NAMES_APART = 22;

/** Characters that have room; the whole is said on hovering. */
const LONGEST = 34;

/** A name in a column of a drawing, with the mark of its code standing on its line. */
@Component({
  // eslint-disable-next-line @angular-eslint/component-selector -- in a drawing only elements of SVG are drawn
  selector: '[flDrawnName]',
  template: `
    @if (head().code; as code) {
      <svg:text class="mark" x="14" [attr.y]="y() + 3">{{ code.mark }}</svg:text>
      <svg:line class="under" x1="4" x2="24" [attr.y1]="y() + 7" [attr.y2]="y() + 7" />
    }
    <svg:text class="name" [attr.x]="head().code ? 32 : 4" [attr.y]="y() + 4">{{ short() }}</svg:text>
  `,
  styleUrl: './drawn-names.scss',
  styles: `
    :host-context([role='button']:hover) .name {
      fill: var(--accent);
    }
  `,
  host: { '[class]': "'c' + (head().code?.colour ?? '')" },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DrawnName {
  readonly head = input.required<TableHead>();
  /** The middle of its line. */
  readonly y = input.required<number>();
  protected readonly short = computed(() => shortened(this.head().name, LONGEST));
}
