import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import {
  addFolder,
  deleteDocuments,
  documentToll,
  editDocument,
  moveDocuments,
  removeFolder,
  renameFolder,
} from '@core/change/commands/documents';
import { fold } from '@core/codebook/find-codes';
import { DOCUMENT_KINDS, type Document, type DocumentKind } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { passageCount } from '@core/passages/columns';
import { StudySession } from '../../state/study-session';
import { selectCases, selectData, selectFolders, selectPassages, selectScopedDocuments, selectStudy } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { Icon } from '../../ui/icon/icon';

type Column = 'title' | 'kind' | 'date' | 'words' | 'passages' | 'case';

interface Row {
  readonly document: Document;
  readonly passages: number;
  readonly case: string;
}

/** The documents in their folders. */
@Component({
  selector: 'fl-material',
  imports: [RouterLink, DatePipe, MatMenuModule, CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, Icon],
  templateUrl: './material.html',
  styleUrl: './material.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Material {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly router = inject(Router);
  private readonly ask = inject(Ask);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scoped = this.store.selectSignal(selectScopedDocuments);
  private readonly passages = this.store.selectSignal(selectPassages);
  private readonly cases = this.store.selectSignal(selectCases);
  private readonly folderTable = this.store.selectSignal(selectFolders);

  protected readonly kinds = DOCUMENT_KINDS;
  protected readonly columns: readonly { readonly key: Column; readonly name: string }[] = [
    { key: 'title', name: 'Title' },
    { key: 'kind', name: 'Kind' },
    { key: 'date', name: 'Date' },
    { key: 'case', name: 'Case' },
    { key: 'words', name: 'Words' },
    { key: 'passages', name: 'Passages' },
  ];
  protected readonly folderId = signal<Id | null>(null);
  protected readonly typed = signal('');
  protected readonly sort = signal<{ readonly by: Column; readonly down: boolean }>({ by: 'title', down: false });
  protected readonly selected = signal<ReadonlySet<Id>>(new Set());

  protected readonly folders = computed(() => {
    const counts = new Map<Id | null, number>();
    for (const document of this.scoped()) counts.set(document.folderId, (counts.get(document.folderId) ?? 0) + 1);
    return Object.values(this.folderTable())
      .sort((a, b) => a.name.localeCompare(b.name))
      .map((folder) => ({ folder, count: counts.get(folder.id) ?? 0 }));
  });
  protected readonly total = computed(() => this.scoped().length);

  private readonly caseNames = computed(() => {
    const names = new Map<Id, string[]>();
    for (const one of Object.values(this.cases())) for (const id of one.documentIds) names.set(id, [...(names.get(id) ?? []), one.name]);
    return names;
  });

  protected readonly rows = computed((): Row[] => {
    const typed = fold(this.typed().trim());
    const folderId = this.folderId();
    const rows = this.scoped()
      .filter((document) => (folderId === null || document.folderId === folderId) && fold(document.title).includes(typed))
      .map((document): Row => {
        const columns = this.passages()[document.id];
        return { document, passages: columns ? passageCount(columns) : 0, case: this.caseNames().get(document.id)?.join(', ') ?? '' };
      });
    const { by, down } = this.sort();
    const order = new Intl.Collator(undefined, { numeric: true });
    const value = (row: Row): string | number => (by === 'passages' ? row.passages : by === 'case' ? row.case : (row.document[by] ?? ''));
    rows.sort((a, b) => {
      const [x, y] = [value(a), value(b)];
      return typeof x === 'number' && typeof y === 'number' ? x - y : order.compare(String(x), String(y));
    });
    return down ? rows.reverse() : rows;
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
  protected readonly byId = (_: number, row: Row): Id => row.document.id;

  protected sortBy(by: Column): void {
    this.sort.update((sort) => ({ by, down: sort.by === by && !sort.down }));
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
    void this.router.navigate(['/study', this.study()!.id, 'reading', document.id]);
  }

  protected async newFolder(): Promise<void> {
    const name = await this.ask.text('New folder', 'Name', '', 'Make the folder');
    if (name) this.session.run(addFolder(name));
  }

  protected async rename(id: Id): Promise<void> {
    const name = await this.ask.text('Rename the folder', 'Name', this.folderTable()[id]!.name, 'Rename');
    if (name) this.session.run(renameFolder(id, name));
  }

  protected removeFolder(id: Id): void {
    this.session.run(removeFolder(id));
    this.folderId.set(null);
  }

  protected async renameDocument(document: Document): Promise<void> {
    const title = await this.ask.text('Rename the document', 'Title', document.title, 'Rename');
    if (title) this.session.run(editDocument(document.id, { title }));
  }

  protected setKind(kind: DocumentKind): void {
    for (const document of this.chosen()) this.session.run(editDocument(document.id, { kind }));
  }

  protected move(folderId: Id | null): void {
    this.session.run(
      moveDocuments(
        this.chosen().map((document) => document.id),
        folderId,
      ),
    );
  }

  protected async remove(): Promise<void> {
    const documents = this.chosen();
    const toll = documentToll(
      this.data()!,
      documents.map((document) => document.id),
    );
    const goOn = await this.ask.confirm({
      title: documents.length === 1 ? `Delete “${documents[0]!.title}”?` : `Delete ${documents.length} documents?`,
      lines: [
        `This takes away ${toll.passages} passages with ${toll.codings} codings.${toll.memos > 0 ? ` ${toll.memos} memos about them stay, attached to nothing.` : ''}`,
        'It can be undone.',
      ],
      yes: 'Delete',
      danger: true,
    });
    if (!goOn) return;
    this.session.run(deleteDocuments(await this.session.textsOf(documents.map((document) => document.id))));
    this.selected.set(new Set());
  }
}
