import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** A cell as it is drawn. */
export interface DrawnCell {
  /** What stands in it. */
  readonly sign: string;
  /** What it is called. */
  readonly label: string;
  /** What is said of it beyond its number. */
  readonly note?: string;
  /** How it looks, as names of classes. */
  readonly look: string;
}

/** Columns that are drawn together. */
export const TOGETHER = 4;

/** How wide a column is, px. */
export const CELL = 38;

/**
 * Those that are drawn together.
 * @param first the first of them; below 0 where the table begins amid them
 * @param count how many columns the table has
 */
export const columnsFrom = (first: number, count: number, together: number): number[] => {
  const from = Math.max(0, first);
  return Array.from({ length: Math.max(0, Math.min(first + together, count) - from) }, (_, at) => from + at);
};

/**
 * A few cells of a row that come into sight and go together: of those that stay nothing is looked at again, laid out or
 * painted, however far a table is scrolled across.
 */
@Component({
  selector: 'fl-number-cells',
  template: `
    @for (column of columns(); track column) {
      @let cell = drawn()(row(), column);
      <span
        class="cell"
        role="gridcell"
        [attr.aria-colindex]="column + 2"
        [class]="cell.look"
        [class.open]="open() === column"
        [attr.tabindex]="reached() === column ? 0 : -1"
        [attr.aria-label]="cell.label"
        [attr.title]="cell.note ?? null"
        >{{ cell.sign }}</span
      >
    }
  `,
  styleUrl: './number-cells.scss',
  host: { role: 'presentation', '[style.width.px]': 'columns().length * cell' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NumberCells {
  readonly row = input.required<number>();
  /** The first of them. */
  readonly first = input.required<number>();
  /** How many columns the table has. */
  readonly of = input.required<number>();
  readonly drawn = input.required<(row: number, column: number) => DrawnCell>();
  /** The column of the cell that is open, if it is one of these. */
  readonly open = input.required<number | null>();
  /** The column of the cell that Tab leads to, if it is one of these. */
  readonly reached = input.required<number | null>();
  protected readonly cell = CELL;
  protected readonly columns = computed(() => columnsFrom(this.first(), this.of(), TOGETHER));
}
