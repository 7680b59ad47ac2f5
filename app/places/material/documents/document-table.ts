import { quoted } from '@core/text/quoted';
import { standingOn } from '@core/integrity/standing-on';
import { mayGo } from '../../../ui/dialogs/may-go';
import { counted } from '@core/text/counted';
import { parseValue } from '@core/attributes/values';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { strToU8, zip } from 'fflate';
import { attributesOf, setValues } from '@core/commands/attributes';
import { ownDocuments } from '@core/commands/cases';
import {
  addFolder,
  deleteDocuments,
  documentToll,
  editDocument,
  moveDocuments,
  removeFolder,
  renameFolder,
  setKindOf,
} from '@core/commands/documents';
import { addSet, changeMembers } from '@core/commands/sets';
import { joinDocuments } from '@core/commands/split-join';
import { fold } from '@core/codebook/find-codes';
import { listed } from '@core/text/listed';
import { naturalOrder } from '@core/text/natural-order';
import { DOCUMENT_KINDS, type Document, type DocumentKind } from '@core/model/document';
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
  selectCoderPassages,
} from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { memosAreAbout } from '../../../ui/memo/writing-desk';
import { fileName, saveFile } from '../../../ui/save-file';
import { columnsFor, rowsOf, type Row } from './columns';

const CHOSEN_COLUMNS = 'filum-document-columns';
const USUAL: readonly string[] = ['kind', 'date', 'case', 'words', 'passages'];

/** The documents in their folders: sorted, filtered, with the columns the researcher wants, many changed at once. */
@Component({
  selector: 'fl-document-table',
  imports: [RouterLink, MatMenuModule, CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, Icon],
  templateUrl: './document-table.html',
  styleUrl: './document-table.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DocumentTable {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly router = inject(Router);
  private readonly ask = inject(Ask);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scoped = this.store.selectSignal(selectScopedDocuments);
  private readonly cases = this.store.selectSignal(selectCases);
  private readonly folderTable = this.store.selectSignal(selectFolders);

  protected readonly kinds = DOCUMENT_KINDS;
  protected readonly folderId = signal<Id | null>(null);
  protected readonly typed = signal('');
  protected readonly sort = signal<{ readonly by: string; readonly down: boolean }>({ by: 'title', down: false });
  protected readonly selected = signal<ReadonlySet<Id>>(new Set());
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

  private readonly coderPassages = this.store.selectSignal(selectCoderPassages);
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
    void this.router.navigate(['/study', this.study()!.id, 'reading', document.id]);
  }

  private ids(): Id[] {
    return this.chosen().map((document) => document.id);
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

  protected async renameDocument(document: Document): Promise<void> {
    await this.ask.keep(
      'Rename the document',
      'Title',
      document.title,
      'Rename',
      (title) => this.session.attempt(editDocument(document.id, { title })).refused,
    );
  }

  protected async describe(document: Document): Promise<void> {
    await this.ask.reply({
      title: `Describe ${quoted(document.title)}`,
      lines: [],
      label: 'Description',
      text: document.description,
      long: { what: 'description', of: document.id },
      yes: 'Keep',
      tries: (description) => this.session.attempt(editDocument(document.id, { description })).refused,
    });
  }

  protected async setDate(document: Document): Promise<void> {
    await this.ask.keep(`Date of ${quoted(document.title)}`, 'Year-month-day, or nothing', document.date ?? '', 'Set', (typed) => {
      const date = parseValue(typed, 'date');
      if (date === null) return `“${typed}” is not a day there is. Write it as 2025-01-22.`;
      return this.session.attempt(editDocument(document.id, { date: (date as string | undefined) ?? null })).refused;
    });
  }

  protected setKind(kind: DocumentKind): void {
    this.session.run(setKindOf(this.ids(), kind));
  }

  protected move(folderId: Id | null): void {
    this.session.run(moveDocuments(this.ids(), folderId));
  }

  protected giveTo(caseId: Id, owns: boolean): void {
    this.session.run(ownDocuments(caseId, this.ids(), owns));
  }

  protected async setAttribute(attributeId: Id): Promise<void> {
    const attribute = this.data()!.tables.attribute[attributeId]!;
    await this.ask.keep(
      `${attribute.name} of ${counted(this.chosen().length, 'document')}`,
      `Value (${attribute.type})`,
      '',
      'Set',
      (raw) => this.session.attempt(setValues(this.ids().map((ownerId) => ({ ownerId, attributeId, raw })))).refused,
    );
  }

  protected async newSet(): Promise<void> {
    await this.ask.keep(
      'New set',
      'Name',
      '',
      'Make the set',
      (name) => this.session.attempt(addSet('document', name, this.ids())).refused,
    );
  }

  protected putInSet(setId: Id): void {
    this.session.run(changeMembers(setId, this.ids(), true));
  }

  protected async join(): Promise<void> {
    const [first, second] = this.chosen();
    if (!first || !second) return;
    const goOn = await this.ask.confirm({
      title: `Put ${quoted(second.title)} behind ${quoted(first.title)}?`,
      lines: ['They become one document. Passages, memos and cases come along. It can be undone.'],
      yes: 'Join them',
    });
    if (!goOn) return;
    const texts = await this.session.textsOf([first.id, second.id]);
    this.session.run(
      joinDocuments(
        texts.find((text) => text.id === first.id)!,
        texts.find((text) => text.id === second.id)!,
      ),
    );
    this.selected.set(new Set());
  }

  /** The words of the chosen documents as plain text, one file each. */
  protected async exportTexts(): Promise<void> {
    const documents = this.chosen();
    const texts = await this.session.textsOf(this.ids());
    const files: Record<string, Uint8Array> = {};
    for (const document of documents) {
      const base = fileName(document.title) || 'document';
      let name = `${base}.txt`;
      for (let number = 2; name in files; number++) name = `${base} ${number}.txt`;
      files[name] = strToU8(texts.find((text) => text.id === document.id)?.text ?? '');
    }
    const bytes = await new Promise<Uint8Array>((resolve, reject) => zip(files, (error, data) => (error ? reject(error) : resolve(data))));
    saveFile('documents.zip', bytes, 'application/zip');
  }

  protected async remove(): Promise<void> {
    const documents = this.chosen();
    const ids = this.ids();
    if (ids.length === 0) return;
    const toll = documentToll(this.data()!, ids);
    const goOn = await this.ask.confirm({
      title: documents.length === 1 ? `Delete ${quoted(documents[0]!.title)}?` : `Delete ${documents.length} documents?`,
      lines: [
        ...(documents.length > 1 ? [listed(documents.map((one) => one.title))] : []),
        `This takes away ${counted(toll.passages, 'passage')} with ${counted(toll.codings, 'coding')}.`,
        ...standingOn(this.data()!, 'document', ids),
        'It can be undone.',
      ],
      yes: 'Delete',
      danger: true,
    });
    if (!goOn) return;
    this.session.run(deleteDocuments(await this.session.textsOf(ids)));
    this.selected.set(new Set());
  }
}
