import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { CELL, columnsFrom } from './number-cells';
import type { TableHead } from './table-head';

/** Columns whose headings are drawn together: fewer than of the cells, since slanted words take long to paint. */
export const HEADED = 2;

/** The headings of a few columns, that come into sight and go together as their cells do. */
@Component({
  selector: 'fl-number-heads',
  template: `
    @for (column of shown(); track column) {
      @let head = columns()[column]!;
      <span
        class="head"
        role="columnheader"
        [attr.aria-colindex]="column + 2"
        [attr.aria-sort]="sorted() === head.key ? 'descending' : null"
        [class.here]="here() === column"
        [class.sorted]="sorted() === head.key"
        [style.left.px]="(column - first()) * cell"
      >
        <button (click)="picked.emit(head)" [title]="head.name + (head.note ? ': ' + head.note : '')">{{ head.name }}</button>
      </span>
    }
  `,
  styleUrl: './number-heads.scss',
  host: { role: 'presentation' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NumberHeads {
  /** Those of the whole table. */
  readonly columns = input.required<readonly TableHead[]>();
  /** The first of them that is headed. */
  readonly first = input.required<number>();
  /** The column that the keys are at, if it is one of these. */
  readonly here = input.required<number | null>();
  /** Key of the column that is ordered by. */
  readonly sorted = input.required<string | undefined>();
  readonly picked = output<TableHead>();
  protected readonly cell = CELL;
  protected readonly shown = computed(() => columnsFrom(this.first(), this.columns().length, HEADED));
}
