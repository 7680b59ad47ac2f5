import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { addCode, moveCode } from '@core/commands/codes';
import { moveCodes } from '@core/commands/codebook-work';
import { childrenOf } from '@core/codebook/tree';
import type { Id } from '@core/model/ids';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectCodeSets } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { arriving } from '../../../ui/keep-scroll/arriving';
import { KeepScroll } from '../../../ui/keep-scroll/keep-scroll';
import { memosAreAbout } from '../../../ui/memo/writing-desk';
import { choicesOf, SentencePart, type Choice } from '../../../ui/sentence/sentence-part';
import { Swatch } from '../../../ui/swatch/swatch';
import { CodeUseHere } from '../code-use-here';
import { CodePage } from '../page/code-page';
import { CodeAreas } from './code-areas';
import { CodeBars } from './code-bars';
import { CodeNames } from './code-names';
import { CodesShown } from './codes-shown';
import { ConditionParts } from './condition-parts';
import { SeveralCodes } from './several-codes';
import { COLUMNS, ORDERS, TreeSettings, WAYS, type Column } from './tree-settings';
import { CodeCounts, howOften } from '../../../state/code-counts';

/** Where dragged codes would land: before a row, or under it. */
interface Landing {
  readonly id: Id;
  readonly how: 'before' | 'under';
}

/** The tree of codes with its columns and filters, and the page of the chosen one beside it. */
@Component({
  selector: 'fl-code-tree',
  imports: [
    CdkVirtualScrollViewport,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CodeAreas,
    CodeBars,
    CodeNames,
    CodePage,
    ConditionParts,
    Icon,
    KeepScroll,
    MatMenuModule,
    SentencePart,
    SeveralCodes,
    Swatch,
  ],
  providers: [CodeUseHere, CodesShown],
  templateUrl: './code-tree.html',
  styleUrl: './code-tree.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeTree {
  /** From the address: the code whose page is shown first. */
  readonly code = input<string>();
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly application = inject(ApplicationRef);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly list = viewChild(CdkVirtualScrollViewport);
  private readonly several = viewChild(SeveralCodes);
  protected readonly settings = inject(TreeSettings);
  protected readonly shown = inject(CodesShown);
  protected readonly useHere = inject(CodeUseHere);
  protected readonly codes = this.store.selectSignal(selectCodes);
  private readonly counts = inject(CodeCounts).scoped;
  private readonly setTable = this.store.selectSignal(selectCodeSets);
  protected readonly sets = computed(() => Object.values(this.setTable()).sort((a, b) => a.name.localeCompare(b.name)));
  protected readonly setChoices = computed((): Choice<Id | null>[] => [
    { value: null, name: 'all codes' },
    ...this.sets().map((set) => ({ value: set.id, name: set.name })),
  ]);
  protected readonly setName = computed(() => this.setTable()[this.settings.setId() ?? '']?.name);
  protected readonly ways = choicesOf(WAYS);
  protected readonly orders = choicesOf(ORDERS);
  protected readonly allColumns = COLUMNS;
  protected readonly numbers = computed(() => this.settings.columns().filter((one) => one !== 'definition'));
  protected readonly columnWords = computed(() => this.settings.columns().join(', ') || 'names only');
  protected readonly total = computed(() => Object.keys(this.codes()).length);
  protected readonly chosenId = signal<Id | null>(null);
  /** Chosen together; the last one is the one whose page is shown. */
  protected readonly chosenIds = signal<ReadonlySet<Id>>(new Set());
  protected readonly landing = signal<Landing | null>(null);
  private anchor: Id | null = null;
  /** The tree is shown before the page beside it. */
  protected readonly arriving = arriving();
  private dragged: readonly Id[] = [];

  protected readonly rows = this.shown.rows;
  protected readonly chosen = computed(() => this.codes()[this.chosenId() ?? ''] ?? this.rows()[0]?.code);
  /** Those of them that are shown: what a filter or a folded category hides is chosen no longer, as far as commands go. */
  protected readonly chosenTogether = computed(() => {
    const chosen = this.chosenIds();
    return chosen.size === 0 ? [] : this.rows().flatMap((row) => (chosen.has(row.code.id) ? [row.code.id] : []));
  });
  private readonly madeNarrowedId = signal<Id | null>(null);
  /** The code that was made last and is chosen, where it was made under a filter that leaves it out: else nobody would know where it is. */
  protected readonly notAmong = computed(() => {
    const code = this.codes()[this.madeNarrowedId() ?? ''];
    const left = code && code.id === this.chosenId() && this.shown.narrowed() && !this.rows().some((row) => row.code.id === code.id);
    return left ? code : null;
  });
  protected readonly byId = (_: number, row: { code: { id: Id } }): Id => row.code.id;

  constructor() {
    effect(() => {
      const code = this.code();
      if (code) untracked(() => this.focusRow(code));
    });
    memosAreAbout(() => (this.chosen() ? { type: 'code', id: this.chosen()!.id } : null));
    effect(() => this.useHere.withWords.set(this.settings.columns().includes('words')));
  }

  protected isStructure(id: Id): boolean {
    // while it is being counted nothing is said of it
    return howOften(this.counts(), 'own', id) === 0;
  }

  protected onClick(event: MouseEvent, id: Id): void {
    if (event.shiftKey && this.anchor) this.chooseTo(id);
    else if (event.ctrlKey || event.metaKey) {
      this.chosenIds.update((ids) => {
        // the first one further: the one that was chosen alone is one of them
        if (ids.size === 0) return new Set([this.chosenId() ?? id, id]);
        const next = new Set(ids);
        if (!next.delete(id)) next.add(id);
        return next;
      });
      this.anchor = id;
    } else this.chooseOne(id);
    this.chosenId.set(id);
  }

  private chooseOne(id: Id): void {
    this.anchor = id;
    this.chosenIds.set(new Set());
    this.chosenId.set(id);
  }

  private chooseTo(id: Id): void {
    const ids = this.rows().map((row) => row.code.id);
    const [from, to] = [ids.indexOf(this.anchor!), ids.indexOf(id)].sort((a, b) => a - b) as [number, number];
    this.chosenIds.set(new Set(ids.slice(Math.max(0, from), to + 1)));
    this.chosenId.set(id);
  }

  protected leaveSeveral(): void {
    this.chosenIds.set(new Set());
  }

  protected async add(beside: Id | null, under = false): Promise<void> {
    const code = beside ? this.codes()[beside] : undefined;
    const parentId = under ? beside : (code?.parentId ?? null);
    let madeId: Id | undefined;
    await this.ask.keep(parentId ? `New code under ${this.codes()[parentId]!.name}` : 'New code', 'Name', '', 'Make the code', (name) => {
      const { done, refused } = this.session.attempt(addCode({ name, parentId }));
      const made = done?.change.find((one) => one.type === 'code');
      madeId = made?.after?.id;
      return refused;
    });
    if (madeId === undefined) return;
    if (parentId) this.settings.toggleFold(parentId, false);
    this.madeNarrowedId.set(this.shown.narrowed() ? madeId : null);
    this.chooseOne(madeId);
    this.focusRow(madeId);
  }

  protected onKey(event: KeyboardEvent, id: Id): void {
    const rows = this.rows();
    const at = rows.findIndex((row) => row.code.id === id);
    const command = event.ctrlKey || event.metaKey;
    const letter = event.key.toLowerCase();
    const to = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      Home: 0,
      End: rows.length - 1,
      PageDown: Math.min(rows.length - 1, at + 15),
      PageUp: Math.max(0, at - 15),
    }[event.key];
    if (event.altKey && event.key.startsWith('Arrow')) this.moveBy(event.key, id);
    else if (to !== undefined && rows[to]) {
      if (event.shiftKey) {
        this.anchor ??= id;
        this.chooseTo(rows[to].code.id);
      } else if (!command) this.chooseOne(rows[to].code.id);
      // going on without choosing: the one that was chosen alone is the first of several
      else if (this.chosenIds().size === 0) this.chosenIds.set(new Set([id]));
      this.focusRow(rows[to].code.id);
    } else if (event.key === 'ArrowRight' && rows[at]?.hasChildren && this.settings.folded().has(id)) this.settings.toggleFold(id, false);
    else if (event.key === 'ArrowLeft' && rows[at]?.hasChildren && !this.settings.folded().has(id)) this.settings.toggleFold(id, true);
    else if (event.key === 'ArrowLeft' && this.codes()[id]?.parentId) this.focusRow(this.codes()[id]!.parentId!);
    else if (event.key === ' ' && event.target === event.currentTarget) this.onClick(new MouseEvent('click', { ctrlKey: true }), id);
    else if (command && event.key === 'a') this.chosenIds.set(new Set(rows.map((row) => row.code.id)));
    else if (event.key === 'Escape' && this.chosenIds().size > 0) this.leaveSeveral();
    else if (event.key === 'Delete') this.about(id, () => void this.remove());
    else if (command) return;
    else if (letter === 'n') void this.add(id);
    else if (letter === 'j') this.about(id, () => void this.several()?.join());
    else if (letter === 'u') this.about(id, () => void this.several()?.move());
    else if (event.key === 'F2') this.about(id, () => this.host.querySelector<HTMLInputElement>('fl-code-page input[name=name]')?.select());
    else return;
    event.preventDefault();
  }

  /** Does something about those chosen together; with none chosen, about the row that has the focus. */
  private about(id: Id, action: () => void): void {
    if (this.chosenTogether().length === 0) {
      this.chooseOne(id);
      this.application.tick();
    }
    action();
  }

  /** The codes a command is about: those chosen together, else the one. */
  protected readonly concerned = computed((): readonly Id[] => {
    const together = this.chosenTogether();
    return together.length > 0 ? together : this.chosen() ? [this.chosen()!.id] : [];
  });

  protected async remove(): Promise<void> {
    const at = this.rows().findIndex((row) => row.code.id === this.chosenId());
    if (!(await this.several()?.remove())) return;
    this.leaveSeveral();
    const next = this.rows()[Math.max(0, Math.min(at, this.rows().length - 1))];
    if (next) this.focusRow(next.code.id);
  }

  protected showAll(id: Id): void {
    this.settings.leaveNoneOut();
    this.show(id);
  }

  /** After a join the code that stays is shown. */
  protected show(id: Id): void {
    this.leaveSeveral();
    this.focusRow(id);
  }

  private moveBy(key: string, id: Id): void {
    const codes = this.codes();
    const code = codes[id]!;
    const siblings = childrenOf(codes, code.parentId);
    const at = siblings.findIndex((sibling) => sibling.id === id);
    const parent = code.parentId ? codes[code.parentId] : undefined;
    if (key === 'ArrowUp' && at > 0) this.session.run(moveCode(id, code.parentId, at - 1));
    if (key === 'ArrowDown' && at < siblings.length - 1) this.session.run(moveCode(id, code.parentId, at + 1));
    if (key === 'ArrowRight' && at > 0) {
      this.settings.toggleFold(siblings[at - 1]!.id, false);
      this.session.run(moveCode(id, siblings[at - 1]!.id, Infinity));
    }
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
    this.dragged = this.chosenIds().has(id) ? this.chosenTogether() : [id];
    event.dataTransfer?.setData('text/plain', this.dragged.map((one) => this.codes()[one]!.name).join('\n'));
  }

  protected onDragOver(event: DragEvent, id: Id): void {
    if (this.dragged.length === 0 || this.dragged.includes(id)) return;
    event.preventDefault();
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const byHand = this.settings.order() === 'by hand' && this.dragged.length === 1;
    this.landing.set({ id, how: byHand && event.clientY - box.top < box.height * 0.3 ? 'before' : 'under' });
  }

  protected onDrop(event: DragEvent): void {
    event.preventDefault();
    const landing = this.landing();
    const target = this.codes()[landing?.id ?? ''];
    const [first] = this.dragged;
    if (first && landing && target) {
      const siblings = childrenOf(this.codes(), target.parentId).filter((sibling) => sibling.id !== first);
      if (this.dragged.length > 1) this.session.run(moveCodes(this.dragged, target.id));
      else if (landing.how === 'under') this.session.run(moveCode(first, target.id, Infinity));
      else this.session.run(moveCode(first, target.parentId, siblings.indexOf(target)));
      this.settings.toggleFold(landing.how === 'under' ? target.id : first, false);
      this.focusRow(first);
    }
    this.endDrag();
  }

  protected endDrag(): void {
    this.dragged = [];
    this.landing.set(null);
  }

  protected isShown(column: Column): boolean {
    return this.settings.columns().includes(column);
  }
}
