import { Counted } from '../../../ui/counted/counted';
import { counted } from '@core/text/counted';
import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal } from '@angular/core';
import { MatMenuModule, type MatMenuTrigger } from '@angular/material/menu';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { addCodeSet } from '@core/commands/code-sets';
import {
  addGroup,
  addSorting,
  arrangeTable,
  deleteSorting,
  editGroup,
  groupsToCategories,
  layCodes,
  removeGroup,
} from '@core/commands/sortings';
import { codesOfSet } from '@core/codebook/conditions';
import { childrenOf } from '@core/codebook/tree';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { SortingGroup } from '@core/model/sorting';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectCodeSets, selectSortings, selectData } from '../../../state/study.selectors';
import { addCode } from '@core/commands/codes';
import { deleteAfterAsking } from '../delete-codes';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { Swatch } from '../../../ui/swatch/swatch';
import { CodePage } from '../page/code-page';
import { CodeCounts, howOften, inCell } from '../../../state/code-counts';

const WIDE = 224;
const ROW = 27;

/** A sorting table: codes as slips, laid into named groups or freely, until they are categories or a set. */
@Component({
  selector: 'fl-sorting',
  imports: [Counted, MatMenuModule, NgTemplateOutlet, CodePage, Icon, Swatch],
  templateUrl: './sorting.html',
  styleUrl: './sorting.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Sorting {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly router = inject(Router);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly data = this.store.selectSignal(selectData);
  protected readonly codes = this.store.selectSignal(selectCodes);
  private readonly codeCounts = inject(CodeCounts);
  protected readonly passagesOf = (id: Id): string => inCell(howOften(this.codeCounts.scoped(), 'own', id));
  private readonly setTable = this.store.selectSignal(selectCodeSets);
  private readonly sortings = this.store.selectSignal(selectSortings);
  protected readonly sets = computed(() => Object.values(this.setTable()));
  protected readonly tables = computed(() => Object.values(this.sortings()).sort((a, b) => b.createdAt - a.createdAt));
  private readonly pickedId = signal<Id | null>(null);
  protected readonly table = computed(() => this.sortings()[this.pickedId() ?? ''] ?? this.tables()[0]);
  protected readonly chosenId = signal<Id | null>(null);
  protected readonly chosen = computed(() => this.codes()[this.chosenId() ?? '']);
  protected readonly over = signal<Id | 'table' | 'tray' | null>(null);
  private dragged: { readonly codeId: Id } | { readonly groupId: Id; readonly dx: number; readonly dy: number } | null = null;

  private readonly laid = computed(() => new Map(this.table()?.slips.map((slip) => [slip.codeId, slip])));
  /** Codes on this table that have no place yet: the tray keeps them, so that none is lost. */
  protected readonly unplaced = computed((): Code[] =>
    (this.table()?.codeIds ?? []).flatMap((id) => (this.laid().has(id) ? [] : (this.codes()[id] ?? []))),
  );
  protected readonly groups = computed(() =>
    (this.table()?.groups ?? []).map((group) => ({
      group,
      codes: (this.table()?.slips ?? []).flatMap((slip) => (slip.groupId === group.id ? (this.codes()[slip.codeId] ?? []) : [])),
    })),
  );
  protected readonly free = computed(() =>
    (this.table()?.slips ?? []).flatMap((slip) =>
      slip.groupId === null && this.codes()[slip.codeId] ? [{ slip, code: this.codes()[slip.codeId]! }] : [],
    ),
  );
  /** Codes made since the table was laid out. */
  protected readonly later = computed(() => {
    const on = new Set(this.table()?.codeIds);
    return Object.keys(this.codes()).filter((id) => !on.has(id)).length;
  });
  protected readonly size = computed(() => ({
    width: Math.max(700, ...this.groups().map(({ group }) => group.x + WIDE + 40), ...this.free().map(({ slip }) => slip.x + WIDE + 20)),
    height: Math.max(
      500,
      ...this.groups().map(({ group, codes }) => group.y + codes.length * ROW + 110),
      ...this.free().map(({ slip }) => slip.y + 80),
    ),
  }));

  /** A code under the one whose page is shown. It comes onto the table only when it is put there. */
  protected async addUnder(code: Code): Promise<void> {
    await this.ask.keep(`New code under ${code.name}`, 'Name', '', 'Make the code', (name) => {
      const { done, refused } = this.session.attempt(addCode({ name, parentId: code.id }));
      const made = done?.change.find((one) => one.type === 'code');
      if (made?.after) this.chosenId.set(made.after.id);
      return refused;
    });
  }

  protected async remove(id: Id): Promise<void> {
    if (await deleteAfterAsking(this.ask, this.session, this.data()!, [id])) this.chosenId.set(null);
  }

  protected pick(id: Id): void {
    this.pickedId.set(id);
    this.chosenId.set(null);
  }

  /** @param which all codes, those at the top that hold nothing, or the id of a set */
  protected async begin(which: 'all' | 'unplaced' | Id): Promise<void> {
    const codes = this.codes();
    const inUse = Object.values(codes).filter((code) => !code.retired);
    const set = this.setTable()[which];
    const ids = set
      ? codesOfSet(this.codeCounts.factsNow(), set)
      : inUse
          .filter((code) => childrenOf(codes, code.id).length === 0 && (which === 'all' || code.parentId === null))
          .map((code) => code.id);
    await this.ask.keep(
      `Sort ${counted(ids.length, 'code')}`,
      'Name of the table',
      set?.name ?? 'A first sorting',
      'Lay them out',
      (name) => {
        const { done, refused } = this.session.attempt(addSorting(name, ids));
        if (done) this.pick(done.change[0]!.after!.id);
        return refused;
      },
    );
  }

  protected clear(): void {
    const table = this.table();
    if (table && this.session.run(deleteSorting(table.id))) this.pickedId.set(null);
  }

  protected async newGroup(codeIds: readonly Id[] = [], at?: { x: number; y: number }): Promise<void> {
    const table = this.table()!;
    const n = table.groups.length;
    const place = at ?? { x: 16 + (n % 3) * (WIDE + 16), y: 16 + Math.floor(n / 3) * 220 };
    await this.ask.keep(
      'New group',
      'Name',
      '',
      'Make the group',
      (name) => this.session.attempt(addGroup(table.id, name, place, codeIds)).refused,
    );
    if (codeIds[0]) this.focus(codeIds[0]);
  }

  protected rename(group: SortingGroup, box: HTMLInputElement): void {
    this.session.run(editGroup(this.table()!.id, group.id, { name: box.value }));
    const now = this.table()?.groups.find((one) => one.id === group.id);
    if (now) box.value = now.name;
  }

  protected dissolve(group: SortingGroup): void {
    this.session.run(removeGroup(this.table()!.id, group.id));
  }

  protected lay(codeId: Id, groupId: Id | null): void {
    this.session.run(layCodes(this.table()!.id, [codeId], groupId ? { groupId } : null));
    this.focus(codeId);
  }

  /** Groups side by side in columns, free slips under them. */
  protected tidy(): void {
    const columns = Math.max(1, Math.floor((this.host.querySelector('.table')?.clientWidth ?? 700) / (WIDE + 16)));
    const heights = new Array<number>(columns).fill(16);
    const places = new Map<Id, { x: number; y: number }>();
    const put = (id: Id, height: number): void => {
      const column = heights.indexOf(Math.min(...heights));
      places.set(id, { x: 16 + column * (WIDE + 16), y: heights[column]! });
      heights[column]! += height;
    };
    for (const { group, codes } of this.groups()) put(group.id, Math.max(2, codes.length) * ROW + 76);
    for (const { slip } of this.free()) put(slip.codeId, ROW + 6);
    this.session.run(arrangeTable(this.table()!.id, places));
  }

  protected async categories(): Promise<void> {
    const groups = this.groups().filter(({ codes }) => codes.length > 0);
    const yes = await this.ask.confirm({
      title: `Make ${groups.length === 1 ? 'a category' : `${groups.length} categories`} of the groups?`,
      lines: [
        `${groups.map(({ group, codes }) => `${group.name} (${codes.length})`).join(', ')}.`,
        'The codes move under them in the codebook; what lies under a code goes with it. One step, which can be undone. The table stays.',
      ],
      yes: 'Make categories',
    });
    if (yes && this.session.run(groupsToCategories(this.table()!.id))) void this.router.navigate([], { queryParams: {} });
  }

  protected asSet(group: SortingGroup, codes: readonly Code[]): void {
    this.session.run(
      addCodeSet(
        group.name,
        codes.map((code) => code.id),
      ),
    );
  }

  protected onKey(event: KeyboardEvent, codeId: Id, menu: MatMenuTrigger): void {
    const groups = this.groups();
    if (/^[1-9]$/.test(event.key) && groups[Number(event.key) - 1]) this.lay(codeId, groups[Number(event.key) - 1]!.group.id);
    else if (event.key === '0' || event.key === 'Delete') this.lay(codeId, null);
    else if (event.ctrlKey || event.metaKey || event.altKey) return;
    else if (event.key.toLowerCase() === 'n') void this.newGroup([codeId]);
    else if (event.key.toLowerCase() === 'g') menu.openMenu();
    else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const slips = [...this.host.querySelectorAll<HTMLElement>('.slip')];
      const at = slips.findIndex((slip) => slip.dataset['code'] === codeId);
      slips[at + (event.key === 'ArrowDown' ? 1 : -1)]?.focus();
    } else return;
    event.preventDefault();
  }

  /** Gives the slip of a code the focus, once it is where it was laid. */
  private focus(codeId: Id): void {
    setTimeout(() => this.host.querySelector<HTMLElement>(`.slip[data-code="${codeId}"]`)?.focus());
  }

  protected dragCode(event: DragEvent, code: Code): void {
    this.dragged = { codeId: code.id };
    event.dataTransfer?.setData('text/plain', code.name);
    event.stopPropagation();
  }

  protected dragGroup(event: DragEvent, group: SortingGroup): void {
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    this.dragged = { groupId: group.id, dx: event.clientX - box.left, dy: event.clientY - box.top };
    event.dataTransfer?.setData('text/plain', group.name);
  }

  protected dragOver(event: DragEvent, over: Id | 'table' | 'tray'): void {
    if (!this.dragged || ('groupId' in this.dragged && over !== 'table')) return;
    event.preventDefault();
    event.stopPropagation();
    this.over.set(over);
  }

  protected drop(event: DragEvent, on: Id | 'table' | 'tray'): void {
    event.preventDefault();
    event.stopPropagation();
    const table = this.table()!;
    const { dragged } = this;
    this.end();
    if (!dragged) return;
    const surface = this.host.querySelector('.surface')!.getBoundingClientRect();
    const at = { x: Math.max(0, Math.round(event.clientX - surface.left)), y: Math.max(0, Math.round(event.clientY - surface.top)) };
    if ('groupId' in dragged)
      this.session.run(editGroup(table.id, dragged.groupId, { x: Math.max(0, at.x - dragged.dx), y: Math.max(0, at.y - dragged.dy) }));
    else if (on === 'table') this.session.run(layCodes(table.id, [dragged.codeId], { x: at.x - 20, y: Math.max(0, at.y - 13) }));
    else this.lay(dragged.codeId, on === 'tray' ? null : on);
  }

  protected end(): void {
    this.dragged = null;
    this.over.set(null);
  }
}
