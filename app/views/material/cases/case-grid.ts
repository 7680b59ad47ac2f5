import { quoted } from '@core/text/quoted';
import { standingOn } from '@core/integrity/standing-on';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  afterNextRender,
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  Injector,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { Store } from '@ngrx/store';
import { addCase, deleteCases } from '@core/commands/cases';
import { addSet } from '@core/commands/sets';
import { listed } from '@core/text/listed';
import { randomId, type Id } from '@core/model/ids';
import type { Case } from '@core/model/case';
import { StudySession } from '../../../state/study-session';
import { selectData, selectStudy } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { memosAreAbout } from '../../../ui/memo/writing-desk';
import { CaseCells } from './case-cells';
import { CaseRows } from './case-rows';
import { CaseSheet } from './case-sheet';
import { inRange, rangeOf, readPasted, type Cell } from './grid-cells';
import { WrongValues } from './wrong-values';

/** A cell by the case it is of; null for the first row, whichever it is. */
interface CellOf {
  readonly caseId: Id | null;
  readonly column: number;
}

/** The register of cases: a grid that is filled in place, by keyboard as in a spreadsheet. */
@Component({
  selector: 'fl-case-grid',
  imports: [CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, Icon, CaseSheet],
  providers: [CaseRows, WrongValues, CaseCells],
  templateUrl: './case-grid.html',
  styleUrl: './case-grid.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CaseGrid {
  /** A case to be chosen when the register comes up. */
  readonly shown = input<Id>();
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  protected readonly values = inject(CaseCells);
  private readonly application = inject(ApplicationRef);
  private readonly injector = inject(Injector);
  private readonly findBox = viewChild<ElementRef<HTMLInputElement>>('find');
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  private readonly grid = viewChild<ElementRef<HTMLElement>>('grid');
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);

  private readonly list = inject(CaseRows);
  protected readonly sort = this.list.sort;
  protected readonly dueBy = this.list.dueBy;
  protected readonly rows = this.list.rows;
  protected readonly attributes = this.list.attributes;
  protected readonly total = this.list.total;
  /** The chosen cell by the case it is of, so that it stays on its case wherever the rows move; null: the first row. */
  private readonly chosenCell = signal<CellOf>({ caseId: null, column: 0 });
  /** The other corner of the chosen range. */
  private readonly otherCorner = signal<CellOf>({ caseId: null, column: 0 });
  protected readonly editing = signal<{ readonly text: string } | null>(null);
  protected readonly openId = signal<Id | null>(null);

  protected readonly word = this.values.word;
  protected readonly dateAttributes = computed(() => this.attributes().filter((attribute) => attribute.type === 'date'));
  protected readonly active = computed((): Cell => this.place(this.chosenCell()));
  protected readonly anchor = computed((): Cell => this.place(this.otherCorner()));
  protected readonly template = computed(
    () =>
      `minmax(150px, 220px) ${this.attributes()
        .map((one) => (one.type === 'number' || one.type === 'yes/no' ? '92px' : '128px'))
        .join(' ')}`,
  );
  protected readonly range = computed(() => rangeOf(this.active(), this.anchor()));
  protected readonly chosenIds = computed(() => {
    const { top, bottom } = this.range();
    return this.rows()
      .slice(top, bottom + 1)
      .map((one) => one.id);
  });
  /** Those chosen, in words: one by its name, more by their number. */
  protected readonly chosenWords = computed(() => {
    const ids = this.chosenIds();
    return ids.length === 1 ? this.data()!.tables.case[ids[0]!]!.name : `${ids.length.toLocaleString()} ${this.word()}s`;
  });
  protected readonly open = computed(() => this.data()!.tables.case[this.openId() ?? '']);
  protected readonly choices = computed(() => this.attributes()[this.active().column - 1]?.choices ?? []);
  private readonly today = new Date().toISOString().slice(0, 10);
  protected readonly byId = (_: number, one: Case): Id => one.id;

  constructor() {
    effect(() => {
      const id = this.shown();
      // choosing draws anew, which cannot be done while this is being drawn
      if (id) afterNextRender(() => queueMicrotask(() => this.chooseCase(id)), { injector: this.injector });
    });
    memosAreAbout(() => (this.chosenIds().length === 1 ? { type: 'case', id: this.chosenIds()[0]! } : null));
  }

  private chooseCase(id: Id): void {
    const row = this.list.rowOf().get(id);
    if (row !== undefined) this.choose(row, 0);
  }

  /** Where a chosen cell is now. One whose case is filtered away or gone stands at the first row, alone. */
  private place({ caseId, column }: CellOf): Cell {
    const row = this.list.rowOf().get(caseId ?? '');
    return { row: row ?? 0, column: Math.min(column, this.attributes().length) };
  }

  protected findIn(typed: string): void {
    this.leaveEditor();
    this.list.release();
    this.list.typed.set(typed);
    this.gather();
  }

  protected showDue(by: Id | null): void {
    this.leaveEditor();
    this.list.release();
    this.list.dueBy.set(by);
    this.gather();
  }

  /** Where a filter took one corner of a range away, the range is the cell alone: nothing is chosen that was not. */
  private gather(): void {
    const there = this.list.rowOf();
    if (!there.has(this.otherCorner().caseId ?? '') || !there.has(this.chosenCell().caseId ?? '')) this.otherCorner.set(this.chosenCell());
  }

  protected isOverdue(one: Case, attributeId: Id): boolean {
    const value = one.values[attributeId];
    return this.dueBy() === attributeId && typeof value === 'string' && value < this.today;
  }

  protected inRange(row: number, column: number): boolean {
    return inRange(this.range(), { row, column });
  }

  protected isActive(row: number, column: number): boolean {
    return this.active().row === row && this.active().column === column;
  }

  protected sortBy(by: Id | 'name'): void {
    this.leaveEditor();
    this.list.release();
    this.sort.update((sort) => ({ by, down: sort.by === by && !sort.down }));
    this.otherCorner.set(this.chosenCell());
  }

  protected choose(row: number, column: number, extend = false): void {
    this.leaveEditor();
    const cell = {
      row: Math.max(0, Math.min(this.rows().length - 1, row)),
      column: Math.max(0, Math.min(this.attributes().length, column)),
    };
    const chosen: CellOf = { caseId: this.rows()[cell.row]?.id ?? null, column: cell.column };
    this.chosenCell.set(chosen);
    if (!extend) this.otherCorner.set(chosen);
    this.application.tick();
    this.reveal(cell);
  }

  /** Brings a cell into view and the focus to it, also where its row was not drawn yet. */
  private reveal({ row, column }: Cell): void {
    const viewport = this.viewport();
    const grid = this.grid()?.nativeElement;
    if (!viewport || !grid) return;
    const top = viewport.measureScrollOffset('top');
    const height = viewport.getViewportSize();
    if (row * ROW < top) viewport.scrollToOffset(row * ROW);
    else if ((row + 1) * ROW > top + height) viewport.scrollToOffset((row + 1) * ROW - height);
    const focus = (): boolean => {
      const cell = grid.querySelector<HTMLElement>(`[data-cell="${row},${column}"]`);
      cell?.focus({ preventScroll: true });
      cell?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
      return cell !== null;
    };
    if (!focus()) requestAnimationFrame(() => setTimeout(focus));
  }

  protected onKey(event: KeyboardEvent): void {
    if (this.editing()) return;
    const { row, column } = this.active();
    const far = event.ctrlKey || event.metaKey;
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ArrowUp: [far ? -Infinity : -1, 0],
      ArrowDown: [far ? Infinity : 1, 0],
      ArrowLeft: [0, far ? -Infinity : -1],
      ArrowRight: [0, far ? Infinity : 1],
      PageUp: [-15, 0],
      PageDown: [15, 0],
      Home: [far ? -Infinity : 0, -Infinity],
      End: [far ? Infinity : 0, Infinity],
    };
    const move = moves[event.key];
    if (move) {
      event.preventDefault();
      this.choose(clamp(row + move[0], this.rows().length - 1), clamp(column + move[1], this.attributes().length), event.shiftKey);
    } else if (event.key === 'Enter' || event.key === 'F2') {
      event.preventDefault();
      const one = this.rows()[row];
      if (one) this.edit(this.values.wrong(one, column)?.raw ?? this.values.show(one, column));
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      this.values.set(
        this.cells()
          .filter((cell) => cell.column > 0)
          .map((cell) => ({ ...cell, raw: '' })),
      );
    } else if (far && event.key.toLowerCase() === 'd') {
      event.preventDefault();
      this.fillDown();
    } else if (event.key.length === 1 && !far && !event.altKey) {
      event.preventDefault();
      event.stopPropagation();
      this.edit(event.key);
    }
  }

  private cells(): Cell[] {
    const { top, bottom, left, right } = this.range();
    const cells: Cell[] = [];
    for (let row = top; row <= bottom; row++) for (let column = left; column <= right; column++) cells.push({ row, column });
    return cells;
  }

  protected edit(text: string): void {
    const one = this.rows()[this.active().row];
    if (!one) return;
    // the first row counts as chosen until another is: from now on it is this very case
    this.chosenCell.update(({ column }) => ({ caseId: one.id, column }));
    this.editing.set({ text });
    this.application.tick();
    const input = this.grid()?.nativeElement.querySelector<HTMLInputElement>('input.editor');
    input?.focus();
    input?.setSelectionRange(text.length, text.length);
  }

  protected onEditorKey(event: KeyboardEvent, value: string): void {
    const { row, column } = this.active();
    event.stopPropagation();
    if (event.key === 'Escape') {
      event.preventDefault();
      this.editing.set(null);
      const one = this.rows()[row];
      if (one) this.values.dropWrong(one, column);
      this.choose(row, column);
    } else if (event.key === 'Enter' || event.key === 'Tab') {
      event.preventDefault();
      if (!this.keep(value)) return;
      if (event.key === 'Enter') this.choose(row + (event.shiftKey ? -1 : 1), column);
      else this.choose(row, column + (event.shiftKey ? -1 : 1));
    }
  }

  /** Keeps what was typed. @returns false if it does not fit, and then it stays open */
  protected keep(value = this.editorValue()): boolean {
    if (!this.editing() || value === undefined) return true;
    const done = this.values.set([{ ...this.active(), raw: value }]);
    if (done) this.editing.set(null);
    return done;
  }

  private editorValue(): string | undefined {
    return this.grid()?.nativeElement.querySelector<HTMLInputElement>('input.editor')?.value;
  }

  /** The hand goes elsewhere: what was typed is kept, or stays in its cell, said to be wrong. */
  protected leaveEditor(): void {
    const raw = this.editorValue();
    if (!this.editing() || raw === undefined || this.keep(raw)) return;
    const one = this.rows()[this.active().row];
    if (one) this.values.keepWrong(one, this.active().column, raw);
    this.editing.set(null);
  }

  private fillDown(): void {
    const { top, bottom, left, right } = this.range();
    const cells = this.cells().filter((cell) => cell.row > top && cell.column > 0 && cell.column >= left && cell.column <= right);
    if (bottom > top) this.values.set(cells.map((cell) => ({ ...cell, raw: this.values.show(this.rows()[top]!, cell.column) })));
  }

  protected onCopy(event: ClipboardEvent): void {
    if (this.editing()) return;
    const { top, bottom, left, right } = this.range();
    const lines = this.rows()
      .slice(top, bottom + 1)
      .map((one) => Array.from({ length: right - left + 1 }, (_, at) => this.values.show(one, left + at)).join('\t'));
    event.clipboardData?.setData('text/plain', lines.join('\n'));
    event.preventDefault();
  }

  protected onPaste(event: ClipboardEvent): void {
    if (this.editing()) return;
    event.preventDefault();
    const { top, left } = this.range();
    void this.values.paste(readPasted(event.clipboardData?.getData('text/plain') ?? '', { row: top, column: left }));
  }

  protected async add(): Promise<void> {
    const id = randomId();
    const name = await this.ask.keep(`New ${this.word()}`, 'Name', '', 'Add', (text) => this.session.attempt(addCase(text, id)).refused);
    if (name === null) return;
    this.findIn('');
    const box = this.findBox()?.nativeElement;
    if (box) box.value = '';
    this.chooseCase(id);
  }

  protected async remove(): Promise<void> {
    const ids = this.chosenIds();
    if (ids.length === 0) return;
    const names = ids.map((id) => this.data()!.tables.case[id]!.name);
    const goOn = await this.ask.confirm({
      title: ids.length === 1 ? `Delete ${quoted(names[0]!)}?` : `Delete ${ids.length} ${this.word()}s?`,
      lines: [
        ...(ids.length > 1 ? [listed(names)] : []),
        'Their values go. Documents and passages stay, and belong to nobody.',
        ...standingOn(this.data()!, 'case', ids),
        'It can be undone.',
      ],
      yes: 'Delete',
      danger: true,
    });
    if (!goOn) return;
    const { row, column } = this.active();
    this.list.release();
    this.session.run(deleteCases(ids));
    this.openId.set(null);
    // the focus stays where it was in the list, also after the last row
    if (this.rows().length > 0) this.choose(Math.min(row, this.rows().length - 1), column);
  }

  protected async newSet(): Promise<void> {
    const ids = this.chosenIds();
    if (ids.length === 0) return;
    await this.ask.keep(
      `New set of ${this.chosenWords()}`,
      'Name',
      '',
      'Make the set',
      (name) => this.session.attempt(addSet('case', name, ids)).refused,
    );
  }
}

const ROW = 27;
const clamp = (value: number, most: number): number => Math.max(0, Math.min(most, value));
