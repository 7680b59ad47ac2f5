import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, type ElementRef, inject, output, signal, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import { findCodes } from '@core/codebook/find-codes';
import { fold } from '@core/text/fold';
import type { Id } from '@core/model/ids';
import { selectCodeRows, selectCodes } from '../../state/study.selectors';
import { ReaderSettings } from '../../state/reader-settings';
import { Counted } from '../../ui/counted/counted';
import { Icon } from '../../ui/icon/icon';
import { KeepScroll } from '../../ui/keep-scroll/keep-scroll';
import { Swatch } from '../../ui/swatch/swatch';
import { CODE_DRAG_TYPE } from './surface/reading-surface';
import { CodeCounts, howOften } from '../../state/code-counts';

/** The codebook beside the text: a selection is dragged onto a code, or a code onto the text; a double click codes. */
@Component({
  selector: 'fl-code-list',
  imports: [Counted, CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, Icon, KeepScroll, Swatch],
  template: `
    <input
      #find
      type="search"
      placeholder="Find a code"
      aria-label="Find a code"
      [value]="typed()"
      (input)="typed.set(find.value)"
      (keydown.enter)="useFirst()"
    />
    @if (rows().length > 0) {
      <cdk-virtual-scroll-viewport flKeepScroll itemSize="25" role="list" aria-label="Codes" tabindex="-1">
        <div
          *cdkVirtualFor="let row of rows(); trackBy: byId"
          role="listitem"
          class="row"
          [class.category]="row.hasChildren"
          [class.over]="over() === row.code.id"
          [class.pinned]="isPinned(row.code.id)"
          [style.padding-left.px]="14 + row.level * (row.level > 1 ? 12 : 2)"
          draggable="true"
          (dragstart)="onDragStart($event, row.code.id)"
          (dragover)="onDragOver($event, row.code.id)"
          (dragleave)="over.set(null)"
          (drop)="onDrop($event, row.code.id)"
        >
          <button
            (dblclick)="used.emit(row.code.id)"
            (keydown.enter)="used.emit(row.code.id)"
            [title]="row.code.definition || row.code.name"
            [attr.aria-label]="
              row.code.name + ', ' + (count(row.code.id, row.hasChildren) | counted: 'passage') + '. Enter codes the selection.'
            "
          >
            @if (!row.hasChildren) {
              <fl-swatch [mark]="row.code.mark" [colour]="row.code.colour" />
            }
            <span class="name">{{ row.code.name }}</span>
            @if (keyOf(row.code.id); as key) {
              <kbd [title]="'The key ' + key + ' codes with it'">{{ key }}</kbd>
            }
            <span class="count">{{ count(row.code.id, row.hasChildren)?.toLocaleString() }}</span>
          </button>
          <button
            class="icon pin"
            [class.on]="isPinned(row.code.id)"
            (click)="settings.pin(row.code.id)"
            [attr.aria-pressed]="isPinned(row.code.id)"
            [attr.aria-label]="'Give ' + row.code.name + ' a number key'"
          >
            <fl-icon name="pin" />
          </button>
        </div>
      </cdk-virtual-scroll-viewport>
    } @else if (typed()) {
      <p class="none">No code has “{{ typed() }}” in its name, category or definition.</p>
    } @else {
      <p class="none">No codes yet. Select some words, press <kbd>C</kbd> and name what is going on in them.</p>
    }
  `,
  styleUrl: './code-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeList {
  private readonly store = inject(Store);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('find');
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly allRows = this.store.selectSignal(selectCodeRows);
  private readonly counts = inject(CodeCounts).scoped;
  /** The code whose row was chosen for the selection. */
  readonly used = output<Id>();
  protected readonly settings = inject(ReaderSettings);
  private readonly keys = computed(() => new Map(this.settings.byNumber().map((id, at) => [id, at + 1])));
  protected readonly typed = signal('');
  protected readonly over = signal<Id | null>(null);
  protected readonly rows = computed(() => {
    const offered = this.allRows().filter((row) => !row.code.retired);
    if (!fold(this.typed()).trim()) return offered;
    const found = new Set(findCodes(this.codes(), this.typed(), [], Infinity).map(({ code }) => code.id));
    return offered.filter((row) => found.has(row.code.id));
  });
  protected readonly byId = (_: number, row: { code: { id: Id } }): Id => row.code.id;

  focusFind(): void {
    this.box().nativeElement.focus();
    this.box().nativeElement.select();
  }

  protected keyOf(id: Id): number {
    return this.keys().get(id) ?? 0;
  }

  protected isPinned(id: Id): boolean {
    return this.settings.pinned().includes(id);
  }

  protected count(id: Id, withUnder: boolean): number | null {
    return howOften(this.counts(), withUnder ? 'withUnder' : 'own', id);
  }

  protected useFirst(): void {
    // the best of those that are shown: retired ones are not
    const shown = new Set(this.rows().map((row) => row.code.id));
    const first = findCodes(this.codes(), this.typed(), [], Infinity).find(({ code }) => shown.has(code.id));
    if (first && this.typed().trim()) this.used.emit(first.code.id);
  }

  protected onDragStart(event: DragEvent, codeId: Id): void {
    event.dataTransfer?.setData(CODE_DRAG_TYPE, codeId);
    if (event.dataTransfer) event.dataTransfer.effectAllowed = 'copy';
  }

  /** Takes text dragged from the reading surface, not codes and not files. */
  protected onDragOver(event: DragEvent, codeId: Id): void {
    const types = event.dataTransfer?.types ?? [];
    if (!types.includes('text/plain') || types.includes(CODE_DRAG_TYPE)) return;
    event.preventDefault();
    this.over.set(codeId);
  }

  protected onDrop(event: DragEvent, codeId: Id): void {
    event.preventDefault();
    this.over.set(null);
    this.used.emit(codeId);
  }
}
