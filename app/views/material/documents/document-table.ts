import { quoted } from '@core/text/quoted';
import { mayGo } from '../../../ui/dialogs/may-go';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { attributesOf } from '@core/commands/attributes';
import { addFolder, removeFolder, renameFolder } from '@core/commands/documents';
import { fold } from '@core/text/fold';
import { naturalOrder } from '@core/text/natural-order';
import { TEXT_KINDS, type Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { isWords, keptSignal } from '../../../state/kept-signal';
import { lastPlaces } from '../../../state/last-places';
import { StudySession } from '../../../state/study-session';
import {
  selectCases,
  selectData,
  selectFolders,
  selectScopedDocuments,
  selectStudy,
  selectScopedPassages,
} from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { memosAreAbout } from '../../../ui/memo/writing-desk';
import { columnsFor, rowsOf, type Row } from './columns';
import { DocumentWork } from './document-work';

const CHOSEN_COLUMNS = 'filum-document-columns';
const USUAL: readonly string[] = ['kind', 'date', 'case', 'words', 'passages'];

/** The documents in their folders: sorted, filtered, with the columns the researcher wants, many changed at once. */
@Component({
  selector: 'fl-document-table',
  imports: [RouterLink, MatMenuModule, CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, Icon],
  providers: [DocumentWork],
  templateUrl: './document-table.html',
  styleUrl: './document-table.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DocumentTable {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ways = inject(Ways);
  private readonly ask = inject(Ask);
  protected readonly work = inject(DocumentWork);
  protected readonly selected = this.work.selected;
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scoped = this.store.selectSignal(selectScopedDocuments);
  private readonly cases = this.store.selectSignal(selectCases);
  private readonly folderTable = this.store.selectSignal(selectFolders);

  protected readonly kinds = TEXT_KINDS;
  protected readonly folderId = signal<Id | null>(null);
  protected readonly typed = signal('');
  protected readonly sort = signal<{ readonly by: string; readonly down: boolean }>({ by: 'title', down: false });
  private readonly columnKeys = keptSignal(CHOSEN_COLUMNS, USUAL, isWords);

  protected readonly allColumns = computed(() => columnsFor(this.data()!, this.caseHeading()));
  protected readonly columns = computed(() => this.allColumns().filter((column) => this.columnKeys().includes(column.key)));
  protected readonly template = computed(
    () =>
      `34px minmax(180px, 1fr) ${this.columns()
        .map((column) => column.width)
        .join(' ')}`,
  );

  protected readonly folders = computed(() => {
    const counts = new Map<Id | null, number>();
    for (const document of this.scoped()) counts.set(document.folderId, (counts.get(document.folderId) ?? 0) + 1);
    const byParent = Map.groupBy(Object.values(this.folderTable()), (folder) => folder.parentId);
    const rows: { folder: typeof byParent extends Map<unknown, (infer F)[]> ? F : never; count: number; level: number }[] = [];
    const list = (parentId: Id | null, level: number): void => {
      for (const folder of (byParent.get(parentId) ?? []).sort((a, b) => a.name.localeCompare(b.name))) {
        rows.push({ folder, count: counts.get(folder.id) ?? 0, level });
        if (level < 30) list(folder.id, level + 1);
      }
    };
    list(null, 0);
    return rows;
  });
  protected readonly total = computed(() => this.scoped().length);

  private readonly coderPassages = this.store.selectSignal(selectScopedPassages);
  private readonly allRows = computed(() =>
    rowsOf({ ...this.data()!, passages: this.coderPassages() }, this.scoped(), (id) => lastPlaces.readAt(id)),
  );
  protected readonly rows = computed((): Row[] => {
    const typed = fold(this.typed().trim());
    const folderId = this.folderId();
    const shown = this.columns();
    const rows = this.allRows().filter(
      (row) =>
        (folderId === null || row.document.folderId === folderId) &&
        (!typed || fold(row.document.title).includes(typed) || shown.some((column) => fold(column.text(row)).includes(typed))),
    );
    const { by, down } = this.sort();
    const column = this.allColumns().find((one) => one.key === by);
    // they come by folder and title already; sorting keeps that order among equals
    const sorted = column ? rows.sort(column.compare) : naturalOrder(rows, (row) => row.document.title);
    return down ? sorted.reverse() : sorted;
  });
  protected readonly chosen = computed(() =>
    this.rows()
      .filter((row) => this.selected().has(row.document.id))
      .map((row) => row.document),
  );
  protected readonly caseHeading = computed(() => {
    const word = this.study()?.caseWord ?? 'case';
    return word.charAt(0).toLocaleUpperCase() + word.slice(1);
  });
  protected readonly caseList = computed(() => naturalOrder(Object.values(this.cases()), (one) => one.name));
  protected readonly sets = computed(() => Object.values(this.data()!.tables.set).filter((set) => set.of === 'document' && !set.condition));
  protected readonly attributes = computed(() => attributesOf(this.data()!, 'document'));
  protected readonly byId = (_: number, row: Row): Id => row.document.id;

  constructor() {
    this.work.of = this.chosen;
    memosAreAbout(() => (this.chosen().length === 1 ? { type: 'document', id: this.chosen()[0]!.id } : null));
  }

  protected sortBy(by: string): void {
    this.sort.update((sort) => ({ by, down: sort.by === by && !sort.down }));
  }

  protected showColumn(key: string, on: boolean): void {
    this.columnKeys.update((keys) => (on ? [...keys, key] : keys.filter((one) => one !== key)));
  }

  protected isShown(key: string): boolean {
    return this.columnKeys().includes(key);
  }

  protected toggle(id: Id, on: boolean): void {
    const next = new Set(this.selected());
    if (on) next.add(id);
    else next.delete(id);
    this.selected.set(next);
  }

  protected toggleAll(on: boolean): void {
    this.selected.set(new Set(on ? this.rows().map((row) => row.document.id) : []));
  }

  protected read(document: Document): void {
    this.ways.go(['reading', document.id]);
  }

  protected async newFolder(): Promise<void> {
    await this.ask.keep(
      'New folder',
      'Name',
      '',
      'Make the folder',
      (name) => this.session.attempt(addFolder(name, this.folderId())).refused,
    );
  }

  protected async rename(id: Id): Promise<void> {
    await this.ask.keep(
      'Rename the folder',
      'Name',
      this.folderTable()[id]!.name,
      'Rename',
      (name) => this.session.attempt(renameFolder(id, name)).refused,
    );
  }

  protected async removeFolder(id: Id): Promise<void> {
    const title = `Take away the folder ${quoted(this.folderTable()[id]!.name)}? What lies in it moves up`;
    if (!(await mayGo(this.ask, this.data()!, 'folder', id, title))) return;
    this.session.run(removeFolder(id));
    this.folderId.set(null);
  }
}
