import { counted } from '@core/text/counted';
import { Writing } from '../../../ui/writing/writing';
import { Counted } from '../../../ui/counted/counted';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  HostListener,
  inject,
  type OnDestroy,
  signal,
  untracked,
  viewChildren,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { questionsOf } from '@core/commands/questions';
import { endingOf, READABLE_ENDINGS, TABLE_ENDINGS } from '@core/formats/readable-endings';
import type { Preview } from '@core/material/preview';
import type { Markers } from '@core/questions/find-questions';
import type { Id } from '@core/model/ids';
import { lineUp } from '@core/questions/line-up';
import { Notices } from '../../../state/notices';
import { Drafts } from '../../../state/drafts';
import { StudySession } from '../../../state/study-session';
import { selectCases, selectData, selectDocuments, selectFolders, selectStudy } from '../../../state/study.selectors';
import type { TablePlanSummary } from '../../../workers/files.worker';
import { FilesService } from '../../../workers/files-service';
import type { FileOutcome } from '../../../workers/read-material';
import { Icon } from '../../../ui/icon/icon';
import { BringIn } from './bring-in';
import { filesOfDrop, type ChosenFile } from './dropped-files';
import { choicesOf, newItem, withTable, withText, type IfKnown, type ImportItem } from './import-item';
import type { Decisions } from './question-decisions';
import { QuestionTable } from './question-table';
import { TableSettings } from './table-settings';
import { TextSettings } from './text-settings';

/** Paragraphs that a preview shows at first, and how many more at a time. */
const FIRST_PARAGRAPHS = 40;
const MORE_PARAGRAPHS = 200;

/** Brings files in: each is read and shown first, settings can be changed at any time, and then all go in as one step. */
@Component({
  selector: 'fl-import',
  imports: [
    Writing,
    Counted,
    RouterLink,
    CdkVirtualScrollViewport,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    Icon,
    TextSettings,
    TableSettings,
    QuestionTable,
  ],
  providers: [BringIn],
  templateUrl: './import.html',
  styleUrl: './import.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Import implements OnDestroy {
  /** Whether another place is shown by now. */
  /** A window with files that were looked through and not stored asks before it closes. */
  private readonly unwatch = inject(Drafts).watch(() => this.items().length > 0);
  private readonly files = inject(FilesService);
  private readonly bringer = inject(BringIn);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  private readonly data = this.store.selectSignal(selectData);
  private readonly documents = this.store.selectSignal(selectDocuments);
  private readonly cases = this.store.selectSignal(selectCases);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly folders = this.store.selectSignal(selectFolders);
  protected readonly endings = [...READABLE_ENDINGS, ...TABLE_ENDINGS].join(',');

  private readonly list = signal<readonly ImportItem[]>([]);
  protected readonly items = this.list.asReadonly();
  protected readonly currentKey = signal<number | null>(null);
  protected readonly folderId = signal<Id | null>(null);
  protected readonly pasting = signal(false);
  private readonly pasted = viewChildren(Writing);
  protected readonly dragging = signal(false);
  protected readonly storing = signal(false);
  /** Folders of a chosen folder become folders; where a file lay and when it was changed become attributes. */
  protected readonly subfolders = signal(true);
  protected readonly asAttributes = signal(false);
  protected readonly decisions = signal<Decisions>(new Map());
  private nextKey = 1;
  /** The share that is read of files that take long. */
  protected readonly shares = signal<ReadonlyMap<number, number>>(new Map());
  /** Files that were read and are not shown yet. */
  private readonly outcomes = new Map<number, FileOutcome>();
  private readonly bySum = computed(
    () => new Map(Object.values(this.documents()).flatMap((one) => (one.source ? [[one.source.sha256, one] as const] : []))),
  );

  protected readonly current = computed(() => this.items().find((item) => item.key === this.currentKey()) ?? this.items()[0]);
  protected readonly wanted = computed(() => this.items().filter((item) => item.state === 'read' && item.wanted));
  protected readonly reading = computed(() => this.items().filter((item) => item.state === 'reading').length);
  protected readonly hasPaths = computed(() => this.items().some((item) => item.path));
  protected readonly folderList = computed(() => Object.values(this.folders()).sort((a, b) => a.name.localeCompare(b.name)));
  /** Kinds of file among those chosen, with how many are wanted, where there is more than one kind. */
  protected readonly fileKinds = computed(() => {
    const kinds = [...Map.groupBy(this.items(), (item) => endingOf(item.fileName) || 'no ending')];
    return kinds.length < 2 ? [] : kinds.map(([ending, some]) => ({ ending, count: some.length, on: some.some((item) => item.wanted) }));
  });

  /** Structured texts that come in, and their questions lined up. */
  protected readonly structured = computed(() => this.wanted().filter((item) => item.text && item.markers));
  /** Of what the questions of each file were listed. */
  private readonly listed = new Map<number, Pick<ImportItem, 'text' | 'markers'>>();
  private readonly wordings = signal<ReadonlyMap<number, readonly string[]>>(new Map());
  protected readonly linedUp = computed(() => {
    const data = this.data();
    const known = data ? questionsOf(data).map((question) => question.text) : [];
    return lineUp(
      this.structured().map((item) => this.wordings().get(item.key) ?? []),
      known,
    );
  });
  protected readonly structuredKeys = computed(() => this.structured().map((item) => item.key));
  protected readonly structuredNames = computed(() => this.structured().map((item) => item.title));

  protected readonly byKey = (_: number, item: ImportItem): number => item.key;
  protected readonly preview = signal<Preview | null>(null);
  /** Paragraphs to show of files of which more than the first were asked for. */
  private readonly previewed = signal<ReadonlyMap<number, number>>(new Map());
  protected readonly plan = signal<TablePlanSummary | { readonly trouble: string } | null>(null);

  constructor() {
    // the preview follows every setting of the file that is shown
    effect(() => {
      const item = this.current();
      if (item?.state !== 'read') return;
      if (item.text) void this.showPreview(item);
      else untracked(() => void this.showPlan(item));
    });
    effect(() => {
      for (const item of this.structured()) {
        // questions follow from the text and its markers alone: another change of the list asks for nothing
        const { text, markers } = item;
        const listed = this.listed.get(item.key);
        if (listed?.text === text && listed.markers === markers) continue;
        this.listed.set(item.key, { text, markers });
        void this.listQuestions(item);
      }
    });
  }

  ngOnDestroy(): void {
    this.unwatch();
    this.files.stopReading();
    // what is being stored goes on, and is let go when it is in
    if (!this.storing()) this.files.forget(this.items().map((item) => item.key));
  }

  @HostListener('dragover', ['$event'])
  protected onDragOver(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    this.dragging.set(true);
  }

  @HostListener('drop', ['$event'])
  protected onDrop(event: DragEvent): void {
    if (!event.dataTransfer?.files.length) return;
    event.preventDefault();
    this.dragging.set(false);
    void filesOfDrop(event.dataTransfer).then((files) => this.add(files));
  }

  protected async onPicked(input: HTMLInputElement): Promise<void> {
    const files = [...(input.files ?? [])].map((file): ChosenFile => ({
      file,
      path: file.webkitRelativePath.split('/').slice(0, -1).join('/'),
    }));
    input.value = '';
    await this.add(files);
  }

  protected async paste(title: string, text: string): Promise<void> {
    if (!text.trim()) return;
    await this.takePasted(`${title.trim() || 'Pasted text'}.txt`, text);
  }

  /** Pasting formatted text shows its preview at once; without formatting it goes into the field as any text does. */
  protected onPaste(event: ClipboardEvent, title: string, formatted: boolean): void {
    const html = event.clipboardData?.getData('text/html') ?? '';
    if (!formatted || !html.trim()) return;
    event.preventDefault();
    void this.takePasted(`${title.trim() || 'Pasted text'}.html`, html, title.trim() || 'Pasted text');
  }

  private async takePasted(name: string, content: string, title = ''): Promise<void> {
    this.pasting.set(false);
    for (const field of this.pasted()) field.done();
    const key = this.nextKey++;
    await this.take(newItem(key, name, new Blob([content]), { pasted: true }));
    if (title) this.change(key, { title });
  }

  private async add(files: readonly ChosenFile[]): Promise<void> {
    const readable = files.filter(({ file, path }) => !path || !file.name.startsWith('.'));
    const items = readable.map(({ file, path }) => newItem(this.nextKey++, file.name, file, { path }));
    this.list.update((all) => [...all, ...items]);
    this.currentKey.update((key) => key ?? items[0]?.key ?? null);
    await Promise.all(items.map(async (item) => this.arrived(item.key, await this.read(item))));
    this.showArrived();
  }

  private async read({ key, fileName, file, options }: ImportItem): Promise<FileOutcome | null> {
    const outcome = await this.files.read(key, fileName, file, options, (share) =>
      this.shares.update((all) => new Map(all).set(key, share)),
    );
    if (this.shares().has(key)) this.shares.update((all) => new Map([...all].filter(([one]) => one !== key)));
    return outcome;
  }

  /** Answers are shown some at a time: hundreds of files must not redraw the list hundreds of times. */
  private arrived(key: number, outcome: FileOutcome | null): void {
    if (!outcome) return;
    this.outcomes.set(key, outcome);
    if (this.outcomes.size === 1) setTimeout(() => this.showArrived(), 150);
  }

  private showArrived(): void {
    if (this.outcomes.size === 0) return;
    const outcomes = new Map(this.outcomes);
    this.outcomes.clear();
    this.list.update((items) => items.map((item) => (outcomes.has(item.key) ? this.withOutcome(item, outcomes.get(item.key)!) : item)));
  }

  private withOutcome(item: ImportItem, outcome: FileOutcome): ImportItem {
    if ('text' in outcome) return withText(item, outcome.text, this.knownAs(outcome.text.sha256, item.key));
    if ('table' in outcome) return withTable(item, outcome.table, this.knownAs(outcome.table.sha256, item.key));
    return { ...item, state: 'trouble', trouble: outcome.trouble, encodings: outcome.encodings };
  }

  private async take(item: ImportItem): Promise<void> {
    this.list.update((items) => [...items, item]);
    this.currentKey.set(item.key);
    await this.readAgain(item.key, {});
  }

  /** Reads a file, again if its settings have changed. */
  protected async readAgain(key: number, options: ImportItem['options']): Promise<void> {
    const item = this.items().find((one) => one.key === key);
    if (!item) return;
    const merged = { ...item.options, ...options };
    this.change(key, { options: merged, state: 'reading' });
    const outcome = await this.read({ ...item, options: merged });
    const now = this.items().find((one) => one.key === key);
    if (!outcome || now?.options !== merged) return;
    this.replace(this.withOutcome(now, outcome));
  }

  /** What has the same content, in the study or among the files here. */
  private knownAs(sha256: string, key: number): ImportItem['sameAs'] {
    const stored = this.bySum().get(sha256);
    if (stored) return { id: stored.id, title: stored.title };
    const here = this.items().find((item) => item.key < key && (item.text ?? item.table)?.sha256 === sha256);
    return here ? { id: null, title: here.title } : null;
  }

  protected change(key: number, fields: Partial<ImportItem>): void {
    this.list.update((items) => items.map((item) => (item.key === key ? { ...item, ...fields } : item)));
  }

  private replace(item: ImportItem): void {
    this.list.update((items) => items.map((one) => (one.key === item.key ? item : one)));
  }

  protected drop(key: number): void {
    this.files.forget([key]);
    this.list.update((items) => items.filter((item) => item.key !== key));
    if (this.currentKey() === key) this.currentKey.set(null);
  }

  protected setKnown(key: number, choice: string): void {
    this.change(key, { ifKnown: choice as IfKnown, wanted: choice !== 'skip' });
  }

  protected wantKind(ending: string, wanted: boolean): void {
    this.list.update((items) => items.map((item) => ((endingOf(item.fileName) || 'no ending') === ending ? { ...item, wanted } : item)));
  }

  protected showMore(key: number): void {
    this.previewed.update((known) => new Map(known).set(key, (known.get(key) ?? FIRST_PARAGRAPHS) + MORE_PARAGRAPHS));
  }

  protected toggleNobody(item: ImportItem, at: number): void {
    const nobody = item.nobody.includes(at) ? item.nobody.filter((one) => one !== at) : [...item.nobody, at];
    this.change(item.key, { nobody });
  }

  protected markersForAll(markers: Markers | null): void {
    this.list.update((items) => items.map((item) => (item.text ? { ...item, markers } : item)));
  }

  protected decide(key: string): void {
    this.decisions.update((known) => new Map(known).set(key, 'own'));
  }

  /** Ends reading: what was read stays, the rest is left out. */
  protected stop(): void {
    this.files.stopReading();
    this.showArrived();
    this.shares.set(new Map());
    const left = this.reading();
    this.list.update((items) => items.filter((item) => item.state !== 'reading'));
    this.notices.say(`Stopped. ${counted(left, 'file was', 'files were')} not read; nothing is stored yet.`);
  }

  private async showPreview(item: ImportItem): Promise<void> {
    const preview = await this.files.preview(item.key, choicesOf(item), this.previewed().get(item.key) ?? FIRST_PARAGRAPHS);
    if (this.current()?.key === item.key) this.preview.set(preview);
  }

  private async showPlan(item: ImportItem): Promise<void> {
    const data = this.data();
    if (!data) return;
    const plan = await this.files.plan(item.key, this.bringer.tableChoices(item, this.folderId()), data);
    if (this.current()?.key === item.key) this.plan.set(plan);
  }

  private async listQuestions(item: ImportItem): Promise<void> {
    const preview = await this.files.preview(item.key, choicesOf(item), 0);
    const questions = preview?.questions ?? [];
    const known = this.wordings().get(item.key) ?? [];
    if (known.join('\n') !== questions.join('\n')) this.wordings.update((all) => new Map(all).set(item.key, questions));
  }

  protected async bringIn(): Promise<void> {
    this.storing.set(true);
    const items = this.wanted();
    const left = this.items().filter((item) => !items.includes(item));
    const summary = await this.bringer.run(items, {
      folderId: this.folderId(),
      subfolders: this.subfolders(),
      asAttributes: this.asAttributes(),
      cases: this.cases(),
      lineUp: this.linedUp(),
      structuredKeys: this.structuredKeys(),
      decisions: this.decisions(),
    });
    this.storing.set(false);
    if (!summary) return;
    await this.session.settled();
    const why = left.map((item) =>
      item.state === 'trouble' ? `${item.fileName} could not be read` : item.sameAs ? `${item.fileName} was here already` : item.fileName,
    );
    this.notices.say(
      left.length > 0
        ? `${summary} Left out: ${why.slice(0, 3).join(', ')}${left.length > 3 ? ` and ${left.length - 3} more` : ''}.`
        : summary,
    );
    this.files.forget(this.items().map((item) => item.key));
    this.list.set([]);
    // whoever has gone elsewhere meanwhile, or is on the way, is not called back
    if (!this.router.url.includes('/material/import') || this.router.currentNavigation()) return;
    await this.router.navigate(['/study', this.study()!.id, 'material'], {
      queryParams: items.every((item) => item.table && item.rowsBecome === 'cases only') ? { view: 'cases' } : {},
    });
  }
}
