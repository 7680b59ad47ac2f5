import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ApplicationRef, ChangeDetectionStrategy, Component, computed, type ElementRef, inject, signal, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import { compareValues, showValue } from '@core/attributes/values';
import { attributesOf, setValues, type TypedValue } from '@core/change/commands/attributes';
import { addCase, deleteCases, editCase } from '@core/change/commands/cases';
import { addSet } from '@core/change/commands/sets';
import { fold } from '@core/codebook/find-codes';
import { naturalOrder } from '@core/text/natural-order';
import { together } from '@core/change/together';
import { randomId, type Id } from '@core/model/ids';
import type { Case } from '@core/model/case';
import { StudySession } from '../../../state/study-session';
import { selectData, selectStudy } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { memosAreAbout } from '../../../ui/memo/writing-desk';
import { CaseSheet } from './case-sheet';
import { inRange, rangeOf, readPasted, type Cell } from './grid-cells';

/** A date counts as due from this many days before it. */
const DUE_DAYS = 14;

/** The register of cases: a grid that is filled in place, by keyboard as in a spreadsheet. */
@Component({
  selector: 'fl-case-grid',
  imports: [CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, Icon, CaseSheet],
  templateUrl: './case-grid.html',
  styleUrl: './case-grid.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CaseGrid {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly application = inject(ApplicationRef);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  private readonly grid = viewChild<ElementRef<HTMLElement>>('grid');
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);

  protected readonly typed = signal('');
  /** A date attribute whose coming and overdue dates are shown, or null for all cases. */
  protected readonly dueBy = signal<Id | null>(null);
  protected readonly sort = signal<{ readonly by: Id | 'name'; readonly down: boolean }>({ by: 'name', down: false });
  protected readonly active = signal<Cell>({ row: 0, column: 0 });
  /** The other corner of the chosen range. */
  protected readonly anchor = signal<Cell>({ row: 0, column: 0 });
  protected readonly editing = signal<{ readonly text: string } | null>(null);
  protected readonly openId = signal<Id | null>(null);
  protected readonly trouble = signal('');

  protected readonly word = computed(() => this.study()?.caseWord ?? 'case');
  protected readonly attributes = computed(() => attributesOf(this.data()!, 'case'));
  protected readonly dateAttributes = computed(() => this.attributes().filter((attribute) => attribute.type === 'date'));
  protected readonly total = computed(() => Object.keys(this.data()!.tables.case).length);
  protected readonly rows = computed((): Case[] => {
    const typed = fold(this.typed().trim());
    const dueBy = this.dueBy();
    const limit = new Date(Date.now() + DUE_DAYS * 86_400_000).toISOString().slice(0, 10);
    const rows = Object.values(this.data()!.tables.case).filter(
      (one) =>
        (!typed || fold(one.name).includes(typed) || Object.values(one.values).some((value) => fold(showValue(value)).includes(typed))) &&
        (!dueBy || (typeof one.values[dueBy] === 'string' && one.values[dueBy] <= limit)),
    );
    const { by, down } = dueBy ? { by: dueBy, down: false } : this.sort();
    const attribute = this.attributes().find((one) => one.id === by);
    const sorted = naturalOrder(rows, (one) => one.name);
    if (attribute) sorted.sort((a, b) => compareValues(attribute, a.values[by], b.values[by]));
    return down ? sorted.reverse() : sorted;
  });
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
  protected readonly open = computed(() => this.data()!.tables.case[this.openId() ?? '']);
  protected readonly choices = computed(() => this.attributes()[this.active().column - 1]?.choices ?? []);
  private readonly today = new Date().toISOString().slice(0, 10);
  protected readonly byId = (_: number, one: Case): Id => one.id;

  constructor() {
    memosAreAbout(() => (this.chosenIds().length === 1 ? { type: 'case', id: this.chosenIds()[0]! } : null));
  }

  protected show(one: Case, column: number): string {
    const attribute = this.attributes()[column - 1];
    return attribute ? showValue(one.values[attribute.id]) : one.name;
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
    this.sort.update((sort) => ({ by, down: sort.by === by && !sort.down }));
  }

  protected choose(row: number, column: number, extend = false): void {
    if (this.editing()) this.keep();
    const cell = {
      row: Math.max(0, Math.min(this.rows().length - 1, row)),
      column: Math.max(0, Math.min(this.attributes().length, column)),
    };
    this.active.set(cell);
    if (!extend) this.anchor.set(cell);
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
      this.edit(this.show(this.rows()[row]!, column));
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      this.set(
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
    if (this.rows().length === 0) return;
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
      this.choose(row, column);
    } else if (event.key === 'Enter' || event.key === 'Tab') {
      event.preventDefault();
      if (!this.keep(value)) return;
      if (event.key === 'Enter') this.choose(row + (event.shiftKey ? -1 : 1), column);
      else this.choose(row, column + (event.shiftKey ? -1 : 1));
    }
  }

  /** Keeps what was typed. @returns false if it does not fit, and then it stays open */
  protected keep(value = this.grid()?.nativeElement.querySelector<HTMLInputElement>('input.editor')?.value): boolean {
    if (!this.editing() || value === undefined) return true;
    const done = this.set([{ ...this.active(), raw: value }]);
    if (done) this.editing.set(null);
    return done;
  }

  /** Sets cells, all or none; the first column is the name. */
  private set(cells: readonly (Cell & { raw: string })[]): boolean {
    const names = cells.filter((cell) => cell.column === 0);
    const values = cells.flatMap(({ row, column, raw }): TypedValue[] => {
      const attribute = this.attributes()[column - 1];
      const owner = this.rows()[row];
      return attribute && owner ? [{ ownerId: owner.id, attributeId: attribute.id, raw }] : [];
    });
    this.trouble.set('');
    for (const { raw } of names) if (!raw.trim()) return false;
    const owners = names.map(({ row }) => this.rows()[row]);
    const renamed = names.flatMap(({ raw }, at) => (owners[at] ? [editCase(owners[at].id, { name: raw })] : []));
    const command = together([...renamed, ...(values.length > 0 ? [setValues(values)] : [])]);
    try {
      // what does not fit is said beside the cell, not as a notice
      command(this.data()!, { coderId: '', now: 0, newId: randomId });
    } catch (error) {
      this.trouble.set(error instanceof Error ? error.message : String(error));
      return false;
    }
    this.session.run(command);
    return true;
  }

  private fillDown(): void {
    const { top, bottom, left, right } = this.range();
    const cells = this.cells().filter((cell) => cell.row > top && cell.column > 0 && cell.column >= left && cell.column <= right);
    if (bottom > top) this.set(cells.map((cell) => ({ ...cell, raw: this.show(this.rows()[top]!, cell.column) })));
  }

  protected onCopy(event: ClipboardEvent): void {
    if (this.editing()) return;
    const { top, bottom, left, right } = this.range();
    const lines = this.rows()
      .slice(top, bottom + 1)
      .map((one) => Array.from({ length: right - left + 1 }, (_, at) => this.show(one, left + at)).join('\t'));
    event.clipboardData?.setData('text/plain', lines.join('\n'));
    event.preventDefault();
  }

  protected onPaste(event: ClipboardEvent): void {
    if (this.editing()) return;
    event.preventDefault();
    const { top, left } = this.range();
    const pasted = readPasted(event.clipboardData?.getData('text/plain') ?? '', { row: top, column: left });
    this.set(pasted.filter((cell) => cell.row < this.rows().length && cell.column <= this.attributes().length));
  }

  protected async add(): Promise<void> {
    const name = await this.ask.text(`New ${this.word()}`, 'Name', '', 'Add');
    if (!name) return;
    const id = randomId();
    if (!this.session.run(addCase(name, id))) return;
    this.typed.set('');
    const row = this.rows().findIndex((one) => one.id === id);
    if (row >= 0) this.choose(row, 0);
  }

  protected async remove(): Promise<void> {
    const ids = this.chosenIds();
    const names = this.rows().filter((one) => ids.includes(one.id));
    const goOn = await this.ask.confirm({
      title: ids.length === 1 ? `Delete “${names[0]!.name}”?` : `Delete ${ids.length} ${this.word()}s?`,
      lines: ['Their values go. Documents, passages and memos stay, and belong to nobody. It can be undone.'],
      yes: 'Delete',
      danger: true,
    });
    if (goOn) this.session.run(deleteCases(ids));
    this.openId.set(null);
  }

  protected async newSet(): Promise<void> {
    const name = await this.ask.text(`New set of ${this.chosenIds().length} ${this.word()}s`, 'Name', '', 'Make the set');
    if (name) this.session.run(addSet('case', name, this.chosenIds()));
  }
}

const ROW = 27;
const clamp = (value: number, most: number): number => Math.max(0, Math.min(most, value));
