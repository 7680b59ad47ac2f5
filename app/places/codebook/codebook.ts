import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal, viewChild } from '@angular/core';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { Store } from '@ngrx/store';
import { addCode, deleteCode, deletionToll, moveCode } from '@core/change/commands/codes';
import { childrenOf } from '@core/codebook/tree';
import { findCodes, fold } from '@core/codebook/find-codes';
import type { Id } from '@core/model/ids';
import { StudySession } from '../../state/study-session';
import { selectCodeCounts, selectCodeRows, selectCodes, selectData } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { Icon } from '../../ui/icon/icon';
import { Swatch } from '../../ui/swatch/swatch';
import { CodeSheet } from './code-sheet';

/** Where a dragged code would land: before a row, or under it. */
interface Landing {
  readonly id: Id;
  readonly how: 'before' | 'under';
}

/** The codebook: the tree with counts, and one code's description beside it. */
@Component({
  selector: 'fl-codebook',
  imports: [CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, CodeSheet, Icon, Swatch],
  templateUrl: './codebook.html',
  styleUrl: './codebook.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Codebook {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly list = viewChild(CdkVirtualScrollViewport);
  private readonly data = this.store.selectSignal(selectData);
  protected readonly codes = this.store.selectSignal(selectCodes);
  private readonly allRows = this.store.selectSignal(selectCodeRows);
  protected readonly counts = this.store.selectSignal(selectCodeCounts);
  protected readonly typed = signal('');
  protected readonly chosenId = signal<Id | null>(null);
  protected readonly landing = signal<Landing | null>(null);
  private dragged: Id | null = null;

  protected readonly rows = computed(() => {
    if (!fold(this.typed()).trim()) return this.allRows();
    const found = new Set(findCodes(this.codes(), this.typed(), [], Infinity).map(({ code }) => code.id));
    return this.allRows().filter((row) => found.has(row.code.id));
  });
  protected readonly chosen = computed(() => this.codes()[this.chosenId() ?? ''] ?? this.rows()[0]?.code);
  protected readonly total = computed(() => this.allRows().length);
  protected readonly byId = (_: number, row: { code: { id: Id } }): Id => row.code.id;

  protected choose(id: Id): void {
    this.chosenId.set(id);
  }

  protected async add(beside: Id | null, under = false): Promise<void> {
    const code = beside ? this.codes()[beside] : undefined;
    const parentId = under ? beside : (code?.parentId ?? null);
    const name = await this.ask.text(parentId ? `New code under ${this.codes()[parentId]!.name}` : 'New code', 'Name', '', 'Make the code');
    if (name === null) return;
    const done = this.session.run(addCode({ name, parentId }));
    const made = done?.change.find((one) => one.type === 'code');
    if (made?.type === 'code' && made.after) this.focusRow(made.after.id);
  }

  protected async remove(id: Id): Promise<void> {
    const code = this.codes()[id]!;
    const toll = deletionToll(this.data()!, id);
    const words = (count: number, one: string): string => `${count.toLocaleString()} ${one}${count === 1 ? '' : 's'}`;
    const goOn = await this.ask.confirm({
      title: `Delete “${code.name}”?`,
      lines: [
        toll.codes > 1 ? `With it go the ${words(toll.codes - 1, 'code')} under it.` : 'No code lies under it.',
        `This takes away ${words(toll.codings, 'coding')} in ${words(toll.documents, 'document')}${toll.passages > 0 ? `; ${words(toll.passages, 'passage')} carrying nothing else ${toll.passages === 1 ? 'goes' : 'go'} too` : ''}.`,
        toll.memos > 0
          ? `${words(toll.memos, 'memo')} about ${toll.codes > 1 ? 'them' : 'it'} will stay, attached to nothing. It can be undone.`
          : 'It can be undone.',
      ],
      yes: 'Delete the code',
      danger: true,
    });
    if (!goOn) return;
    const at = this.rows().findIndex((row) => row.code.id === id);
    this.session.run(deleteCode(id));
    const next = this.rows()[Math.min(at, this.rows().length - 1)];
    if (next) this.focusRow(next.code.id);
  }

  protected onKey(event: KeyboardEvent, id: Id): void {
    const rows = this.rows();
    const at = rows.findIndex((row) => row.code.id === id);
    if (event.altKey && event.key.startsWith('Arrow')) this.moveBy(event.key, id);
    else if (event.key === 'ArrowDown' && rows[at + 1]) this.focusRow(rows[at + 1]!.code.id);
    else if (event.key === 'ArrowUp' && rows[at - 1]) this.focusRow(rows[at - 1]!.code.id);
    else if (event.key === 'Home') this.focusRow(rows[0]!.code.id);
    else if (event.key === 'End') this.focusRow(rows.at(-1)!.code.id);
    else if (event.key === 'Delete') void this.remove(id);
    else if (event.key === 'n' && !event.ctrlKey && !event.metaKey) void this.add(id);
    else return;
    event.preventDefault();
  }

  private moveBy(key: string, id: Id): void {
    const codes = this.codes();
    const code = codes[id]!;
    const siblings = childrenOf(codes, code.parentId);
    const at = siblings.findIndex((sibling) => sibling.id === id);
    const parent = code.parentId ? codes[code.parentId] : undefined;
    if (key === 'ArrowUp' && at > 0) this.session.run(moveCode(id, code.parentId, at - 1));
    if (key === 'ArrowDown' && at < siblings.length - 1) this.session.run(moveCode(id, code.parentId, at + 1));
    if (key === 'ArrowRight' && at > 0) this.session.run(moveCode(id, siblings[at - 1]!.id, Infinity));
    if (key === 'ArrowLeft' && parent)
      this.session.run(moveCode(id, parent.parentId, childrenOf(codes, parent.parentId).indexOf(parent) + 1));
    this.focusRow(id);
  }

  /** Chooses a row and, once it is drawn, gives it the focus. */
  private focusRow(id: Id): void {
    this.chosenId.set(id);
    // a row far away is not drawn before the list has been scrolled to it, which takes some frames
    const focus = (framesLeft: number): void => {
      const row = this.host.querySelector<HTMLElement>(`[data-code="${id}"]`);
      row?.focus();
      if (document.activeElement === row || framesLeft === 0) return;
      if (!row) this.list()?.scrollToIndex(Math.max(0, this.rows().findIndex((one) => one.code.id === id) - 3));
      requestAnimationFrame(() => focus(framesLeft - 1));
    };
    requestAnimationFrame(() => focus(30));
  }

  protected onDragStart(event: DragEvent, id: Id): void {
    this.dragged = id;
    event.dataTransfer?.setData('text/plain', this.codes()[id]!.name);
  }

  protected onDragOver(event: DragEvent, id: Id): void {
    if (!this.dragged || this.dragged === id) return;
    event.preventDefault();
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    this.landing.set({ id, how: event.clientY - box.top < box.height * 0.3 ? 'before' : 'under' });
  }

  protected onDrop(event: DragEvent): void {
    event.preventDefault();
    const landing = this.landing();
    const target = this.codes()[landing?.id ?? ''];
    if (this.dragged && landing && target) {
      const siblings = childrenOf(this.codes(), target.parentId).filter((sibling) => sibling.id !== this.dragged);
      if (landing.how === 'under') this.session.run(moveCode(this.dragged, target.id, Infinity));
      else this.session.run(moveCode(this.dragged, target.parentId, siblings.indexOf(target)));
      this.focusRow(this.dragged);
    }
    this.endDrag();
  }

  protected endDrag(): void {
    this.dragged = null;
    this.landing.set(null);
  }
}
