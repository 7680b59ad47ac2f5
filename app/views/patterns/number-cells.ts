import { ChangeDetectionStrategy, Component, effect, ElementRef, inject, input, ViewEncapsulation } from '@angular/core';

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
 * The cells of a row that are in sight. A few of them stand together in a box: it comes and goes as a whole, and of those
 * that stay nothing is looked at again, laid out or painted, however far a table is scrolled across. They are elements
 * made by hand: hundreds of them come with a scroll, and a view for each took a third of the time that a frame has.
 */
@Component({
  selector: 'fl-number-cells',
  template: '',
  styleUrl: './number-cells.scss',
  // what is made by hand is known to no view
  encapsulation: ViewEncapsulation.None,
  host: { role: 'presentation' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NumberCells {
  readonly row = input.required<number>();
  /** The first columns of those that stand together, from left to right. */
  readonly firsts = input.required<readonly number[]>();
  /** How many columns the table has. */
  readonly of = input.required<number>();
  readonly drawn = input.required<(row: number, column: number) => DrawnCell>();
  /** The column of the cell that is open, if it is in this row. */
  readonly open = input.required<number | null>();
  /** The column of the cell that Tab leads to, if it is in this row. */
  readonly reached = input.required<number | null>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** Boxes on the screen by the first column they stand for, and the cells in them by column. */
  private readonly boxes = new Map<number, HTMLElement>();
  private readonly cells = new Map<number, HTMLElement>();
  /** What the cells were written by last. */
  private written: unknown = null;
  private writtenRow = -1;
  private count = 0;

  constructor() {
    effect(() => this.draw());
  }

  private draw(): void {
    const firsts = this.firsts();
    const staying = new Set(this.count === this.of() ? firsts : []);
    this.count = this.of();
    for (const [first, box] of this.boxes) if (!staying.has(first)) this.drop(first, box);
    if (this.written !== this.drawn() || this.writtenRow !== this.row()) {
      [this.written, this.writtenRow] = [this.drawn(), this.row()];
      // written anew where they are: the focus may be in one of them
      for (const [column, cell] of this.cells) this.write(cell, column);
    }
    // those that stay are in their order among themselves: only what is new has to find its place
    let next: HTMLElement | null = null;
    for (const first of firsts.toReversed()) {
      let box = this.boxes.get(first);
      if (!box) this.host.insertBefore((box = this.boxOf(first)), next);
      next = box;
    }
    this.mark();
  }

  private boxOf(first: number): HTMLElement {
    const box = document.createElement('span');
    const columns = columnsFrom(first, this.count, TOGETHER);
    box.className = 'together';
    box.setAttribute('role', 'presentation');
    box.style.width = `${columns.length * CELL}px`;
    for (const column of columns) box.append(this.cellOf(column));
    this.boxes.set(first, box);
    return box;
  }

  private cellOf(column: number): HTMLElement {
    const cell = document.createElement('span');
    cell.tabIndex = -1;
    cell.setAttribute('role', 'gridcell');
    cell.setAttribute('aria-colindex', String(column + 2));
    this.write(cell, column);
    this.cells.set(column, cell);
    return cell;
  }

  private write(cell: HTMLElement, column: number): void {
    const { sign, label, note, look } = this.drawn()(this.row(), column);
    cell.className = `cell ${look}`;
    cell.textContent = sign;
    cell.setAttribute('aria-label', label);
    if (note === undefined) cell.removeAttribute('title');
    else cell.title = note;
  }

  private drop(first: number, box: HTMLElement): void {
    box.remove();
    this.boxes.delete(first);
    for (const column of columnsFrom(first, Infinity, TOGETHER)) this.cells.delete(column);
  }

  private mark(): void {
    const [open, reached] = [this.open(), this.reached()];
    this.host.querySelector('.open')?.classList.remove('open');
    this.host.querySelector('[tabindex="0"]')?.setAttribute('tabindex', '-1');
    if (open !== null) this.cells.get(open)?.classList.add('open');
    if (reached !== null) this.cells.get(reached)?.setAttribute('tabindex', '0');
  }
}
