import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  type Signal,
  viewChild,
} from '@angular/core';
import { Swatch } from '../../ui/swatch/swatch';
import { aheadAfter, type Ahead } from './drawn-ahead';
import { CELL, NumberCells, TOGETHER, type DrawnCell } from './number-cells';
import { HEADED, NumberHeads } from './number-heads';
import type { TableHead } from './table-head';

/** A cell as it is shown. */
export interface TableCell {
  readonly words: string;
  /** From 0 to 7, or null without one. */
  readonly shade: number | null;
  /** Nothing was found: shown as a dash. */
  readonly empty: boolean;
  /** It is marked as expected: what was not found is missing. */
  readonly absent?: boolean;
  /** What is said of it beyond its number. */
  readonly note?: string;
  /** It stands apart: a total, or a code's own count. */
  readonly apart?: boolean;
}

export interface CellAt {
  readonly row: number;
  readonly column: number;
}

const ROW = 24;
const NAMES = 236;
const HEADS = 128;
/** How far rows and columns are drawn beyond what is seen: on each side at least, and at most where one scrolls to. */
const BEYOND = { rows: { least: 4 * ROW, most: 18 * ROW }, columns: { least: 2 * CELL, most: 12 * CELL } };

/** Tables made so far: names of their rows are found by it. */
let tables = 0;

/**
 * Numbers in rows and columns, of any size: only what is seen is drawn, and headings stay in their place. Arrow keys walk
 * the cells, Enter or a click opens one; a click on a heading orders by it.
 */
@Component({
  selector: 'fl-number-table',
  imports: [NumberCells, NumberHeads, Swatch],
  templateUrl: './number-table.html',
  styleUrl: './number-table.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NumberTable {
  readonly label = input.required<string>();
  readonly rows = input.required<readonly TableHead[]>();
  readonly columns = input.required<readonly TableHead[]>();
  readonly cellOf = input.required<(row: number, column: number) => TableCell>();
  /** The cell that is open. */
  readonly open = input<CellAt | null>(null);
  /** The row and the column that are ordered by. */
  readonly sortedBy = input<{ readonly row?: string; readonly column?: string }>({});
  readonly opened = output<CellAt>();
  readonly rowPicked = output<TableHead>();
  readonly columnPicked = output<TableHead>();

  private readonly id = `number-table-${tables++}`;
  private readonly view = viewChild.required<ElementRef<HTMLElement>>('view');
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly size = { row: ROW, cell: CELL, names: NAMES, heads: HEADS, headed: HEADED };
  protected readonly seen = signal({ top: 0, left: 0, width: 1_000, height: 600 });
  private readonly ahead = signal<{ readonly rows: Ahead; readonly columns: Ahead }>({
    rows: { before: BEYOND.rows.least, after: BEYOND.rows.least },
    columns: { before: BEYOND.columns.least, after: BEYOND.columns.least },
  });
  /** The cell that the keys are at. */
  protected readonly at = signal<CellAt>({ row: 0, column: 0 });
  protected readonly width = computed(() => NAMES + this.columns().length * CELL + 80);
  protected readonly height = computed(() => HEADS + this.rows().length * ROW);
  protected readonly shownRows = computed(() =>
    windowOf(this.seen().top, this.seen().height - HEADS, ROW, this.rows().length, this.ahead().rows),
  );
  protected readonly shownColumns = computed(() =>
    windowOf(this.seen().left, this.seen().width - NAMES, CELL, this.columns().length, this.ahead().columns),
  );

  /**
   * The first columns of the cells that are drawn together, by row: those of the next row begin a column earlier, and so
   * on. So each step across draws some cells in some rows, and not now and then many in all.
   */
  private readonly blocks = Array.from({ length: TOGETHER }, (_, shift) => this.firstsOf(TOGETHER, shift));
  /** The first columns of the headings that are drawn together. */
  protected readonly headed = this.firstsOf(HEADED, 0);
  protected readonly drawn = computed(() => {
    const [cellOf, rows, columns] = [this.cellOf(), this.rows(), this.columns()];
    return (row: number, column: number): DrawnCell => drawnCell(cellOf(row, column), rows[row]!, columns[column]!);
  });
  /** The cell that Tab leads to: the one that the keys are at, or, where that was scrolled out of sight, one near it. */
  protected readonly reached = computed<CellAt>(() => {
    const { row, column } = this.at();
    const near = (at: number, shown: readonly number[]): number => Math.max(shown[0] ?? 0, Math.min(at, shown.at(-1) ?? 0));
    return { row: near(row, this.shownRows()), column: near(column, this.shownColumns()) };
  });

  constructor() {
    effect((onCleanup) => {
      const element = this.view().nativeElement;
      const observer = new ResizeObserver(() => this.keepInSight());
      observer.observe(element);
      onCleanup(() => observer.disconnect());
    });
    effect(() => {
      const [rows, columns] = [this.rows().length, this.columns().length];
      const { row, column } = untracked(this.at);
      this.at.set({ row: Math.max(0, Math.min(row, rows - 1)), column: Math.max(0, Math.min(column, columns - 1)) });
      this.look();
    });
  }

  /** Where what stands behind a cell takes room from the table, the cell stays in sight. */
  private keepInSight(): void {
    const isAtCell = document.activeElement?.matches('.cell') && this.host.contains(document.activeElement);
    if (isAtCell) void this.goTo(this.at());
    else this.look();
  }

  protected look(): void {
    const { scrollTop: top, scrollLeft: left, clientWidth: width, clientHeight: height } = this.view().nativeElement;
    const before = untracked(this.seen);
    if (before.top === top && before.left === left && before.width === width && before.height === height) return;
    this.seen.set({ top, left, width, height });
    this.ahead.update(({ rows, columns }) => ({
      rows: aheadAfter(rows, top - before.top, BEYOND.rows),
      columns: aheadAfter(columns, left - before.left, BEYOND.columns),
    }));
  }

  /** @param shift how many columns before the table they begin */
  private firstsOf(together: number, shift: number): Signal<readonly number[]> {
    return computed(
      () => {
        const shown = this.shownColumns();
        if (shown.length === 0) return [];
        const [first, last] = [Math.floor((shown[0]! + shift) / together), Math.floor((shown.at(-1)! + shift) / together)];
        return Array.from({ length: last - first + 1 }, (_, at) => (first + at) * together - shift);
      },
      { equal: (a, b) => a.length === b.length && a[0] === b[0] },
    );
  }

  /** What the name of a row is found by: it stands in the column of names, and belongs to its row. */
  protected nameId(row: number): string {
    return `${this.id}-${row}`;
  }

  protected blocksOf(row: number): readonly number[] {
    return this.blocks[row % TOGETHER]!();
  }

  /** How wide what stands before the columns that are drawn of a row is: the names, and the columns that are not drawn; px. */
  protected before(row: number): number {
    return NAMES + Math.max(0, this.blocksOf(row)[0] ?? 0) * CELL;
  }

  /** The column of a cell, if it is one of those that are drawn together. */
  protected columnIn({ column }: CellAt, first: number, together: number): number | null {
    return column >= first && column < first + together ? column : null;
  }

  // what happens to any cell is heard in one place: cells come and go with every scroll, and listeners of their own with them
  protected onClick(event: Event): void {
    const at = cellUnder(event);
    if (at) this.openAt(at);
  }

  protected onFocus(event: Event): void {
    const at = cellUnder(event);
    if (at) this.at.set(at);
  }

  private openAt(at: CellAt): void {
    this.at.set(at);
    this.opened.emit(at);
  }

  protected onKey(event: KeyboardEvent): void {
    if (!cellUnder(event)) return;
    if (event.key === 'Enter' || event.key === ' ') {
      this.openAt(this.at());
      event.preventDefault();
      return;
    }
    const { row, column } = this.at();
    const [rows, columns] = [this.rows().length - 1, this.columns().length - 1];
    const page = Math.max(1, Math.floor((this.seen().height - HEADS) / ROW) - 1);
    const steps: Readonly<Record<string, CellAt>> = {
      ArrowUp: { row: row - 1, column },
      ArrowDown: { row: row + 1, column },
      ArrowLeft: { row, column: column - 1 },
      ArrowRight: { row, column: column + 1 },
      PageUp: { row: row - page, column },
      PageDown: { row: row + page, column },
      Home: { row: event.ctrlKey ? 0 : row, column: 0 },
      End: { row: event.ctrlKey ? rows : row, column: columns },
    };
    const next = steps[event.key];
    if (!next) return;
    void this.goTo({ row: Math.max(0, Math.min(rows, next.row)), column: Math.max(0, Math.min(columns, next.column)) });
    event.preventDefault();
    event.stopPropagation();
  }

  /** Brings a cell into view and the focus to it. */
  private async goTo(at: CellAt): Promise<void> {
    this.at.set(at);
    const element = this.view().nativeElement;
    const { clientWidth, clientHeight } = element;
    const [top, left] = [at.row * ROW, at.column * CELL];
    if (top < element.scrollTop) element.scrollTop = top;
    else if (top + ROW > element.scrollTop + clientHeight - HEADS) element.scrollTop = top + ROW - clientHeight + HEADS;
    if (left < element.scrollLeft) element.scrollLeft = left;
    else if (left + CELL > element.scrollLeft + clientWidth - NAMES) element.scrollLeft = left + CELL - clientWidth + NAMES;
    this.look();
    await new Promise((resolve) => setTimeout(resolve));
    this.host.querySelector<HTMLElement>('.cell[tabindex="0"]')?.focus({ preventScroll: true });
  }
}

function drawnCell(cell: TableCell, row: TableHead, column: TableHead): DrawnCell {
  const { absent, apart, empty, words, note, shade } = cell;
  const found = absent ? 'expected, not found' : empty ? 'none' : words;
  return {
    ...(note !== undefined && { note }),
    sign: absent ? '∅' : empty ? '–' : words,
    label: `${row.name}, ${column.name}: ${found}${note ? `, ${note}` : ''}`,
    look: [shade !== null && `shade-${shade}`, empty && 'none', absent && 'absent', apart && 'apart'].filter(Boolean).join(' '),
  };
}

/** Which of many are in sight, or ahead of it. @param each how large one is, px */
function windowOf(from: number, length: number, each: number, count: number, ahead: Ahead): number[] {
  const first = Math.max(0, Math.floor((from - ahead.before) / each));
  const last = Math.min(count, Math.ceil((from + Math.max(0, length) + ahead.after) / each));
  return Array.from({ length: Math.max(0, last - first) }, (_, at) => first + at);
}

/** The cell that something happened to, if it was one. */
function cellUnder({ target }: Event): CellAt | null {
  const cell = (target as HTMLElement).closest('.cell');
  // headings are the first row and column, and are counted from one
  const placeOf = (element: Element | null | undefined, name: string): number => Number(element?.getAttribute(name)) - 2;
  return cell && { row: placeOf(cell.closest('[role=row]'), 'aria-rowindex'), column: placeOf(cell, 'aria-colindex') };
}
