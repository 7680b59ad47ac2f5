import { Writing } from '../../../ui/writing/writing';
import { Counted } from '../../../ui/counted/counted';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  HostListener,
  inject,
  type OnDestroy,
  signal,
  untracked,
  viewChild,
  viewChildren,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { questionsOf } from '@core/commands/questions';
import { READABLE_ENDINGS, TABLE_ENDINGS } from '@core/formats/readable-endings';
import { PICTURE_ENDINGS } from '@core/formats/picture/picture-endings';
import { RECORDING_ENDINGS } from '@core/formats/recording/recording-endings';
import { told, type Doubt } from '@core/material/doubts';
import type { Preview } from '@core/material/preview';
import type { Id } from '@core/model/ids';
import { lineUp } from '@core/questions/line-up';
import { quoted } from '@core/text/quoted';
import { Notices } from '../../../state/notices';
import { Drafts } from '../../../state/drafts';
import { StudySession } from '../../../state/study-session';
import { selectCases, selectData, selectFolders, selectHistory, selectStudy } from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';
import type { TablePlanSummary } from '@core/filing/filing';
import { FilesService } from '../../../workers/files-service';
import { Icon } from '../../../ui/icon/icon';
import { BringIn } from './bring-in';
import { ChosenFiles } from './chosen-files';
import { EncodingSamples } from './encoding-samples';
import { filesOfDrop, type ChosenFile } from './dropped-files';
import { choicesOf, newItem, type ImportItem } from './import-item';
import { askedOnce, type Decisions } from './question-decisions';
import { PictureSettings } from './picture-settings';
import { QuestionTable } from './question-table';
import { RecordingSettings } from './recording-settings';
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
    EncodingSamples,
    PictureSettings,
    RecordingSettings,
    TextSettings,
    TableSettings,
    QuestionTable,
  ],
  providers: [BringIn, ChosenFiles],
  templateUrl: './import.html',
  styleUrl: './import.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Import implements OnDestroy {
  /** A window with files that were looked through and not stored asks before it closes. */
  private readonly unwatch = inject(Drafts).watch(() => this.items().length > 0);
  private readonly files = inject(FilesService);
  private readonly bringer = inject(BringIn);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly ways = inject(Ways);
  private readonly store = inject(Store);
  private readonly data = this.store.selectSignal(selectData);
  private readonly history = this.store.selectSignal(selectHistory);
  private readonly cases = this.store.selectSignal(selectCases);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly folders = this.store.selectSignal(selectFolders);
  protected readonly endings = [...READABLE_ENDINGS, ...TABLE_ENDINGS, ...RECORDING_ENDINGS, ...PICTURE_ENDINGS].join(',');

  protected readonly chosen = inject(ChosenFiles);
  protected readonly items = this.chosen.items;
  protected readonly current = this.chosen.current;
  protected readonly wanted = this.chosen.wanted;
  protected readonly reading = this.chosen.reading;
  protected readonly shares = this.chosen.shares;
  protected readonly folderId = signal<Id | null>(null);
  protected readonly pasting = signal(false);
  private readonly pasted = viewChildren(Writing);
  private readonly password = viewChild<ElementRef<HTMLInputElement>>('password');
  protected readonly dragging = signal(false);
  protected readonly storing = signal(false);
  /** Folders of a chosen folder become folders; where a file lay and when it was changed become attributes. */
  protected readonly subfolders = signal(true);
  protected readonly asAttributes = signal(false);
  /** Names of what files say of themselves that does not come in, the same for all files. */
  protected readonly factsLeft = signal<ReadonlySet<string>>(new Set());
  protected readonly decisions = signal<Decisions>(new Map());
  protected readonly hasPaths = computed(() => this.items().some((item) => item.path));
  protected readonly folderList = computed(() => Object.values(this.folders()).sort((a, b) => a.name.localeCompare(b.name)));
  /** Structured texts that come in, and their questions lined up. */
  protected readonly structured = computed(() => this.wanted().filter((item) => item.text && item.markers));
  /** Of what the questions of each file were listed. */
  private readonly listed = new Map<number, Pick<ImportItem, 'text' | 'markers'>>();
  private readonly wordings = signal<ReadonlyMap<number, readonly string[]>>(new Map());
  private readonly knownQuestions = computed(() => {
    const data = this.data();
    return data ? questionsOf(data).map((question) => question.text) : [];
  });
  protected readonly linedUp = computed(() =>
    lineUp(
      this.structured().map((item) => this.wordings().get(item.key) ?? []),
      this.knownQuestions(),
    ),
  );
  protected readonly structuredKeys = computed(() => this.structured().map((item) => item.key));
  protected readonly structuredNames = computed(() => this.structured().map((item) => item.title));

  /** Other texts that were read, which could take over what was decided for this one. */
  protected readonly otherTexts = computed(() => this.items().filter((item) => item.text && item !== this.current()).length);
  private readonly askedOnce = computed(() =>
    askedOnce(this.linedUp(), this.structuredKeys(), this.decisions(), this.knownQuestions().length),
  );
  /** What looks wrong in the file that is shown. */
  protected readonly doubts = computed((): readonly Doubt[] => {
    const once = this.askedOnce().get(this.current()?.key ?? -1) ?? [];
    return [
      ...(this.preview()?.doubts ?? []),
      ...told(once, (wording) => `${quoted(wording.slice(0, 90))} is asked in this file only: a question, or something else?`),
    ];
  });

  protected readonly byKey = (_: number, item: ImportItem): number => item.key;
  /** What was made ready to be shown last, and of which file: that of another file is not shown in its place. */
  private readonly previewOf = signal<{ readonly key: number; readonly preview: Preview | null } | null>(null);
  private readonly planOf = signal<{ readonly key: number; readonly plan: TablePlanSummary | { readonly trouble: string } } | null>(null);
  protected readonly preview = computed(() => (this.previewOf()?.key === this.current()?.key ? (this.previewOf()?.preview ?? null) : null));
  protected readonly plan = computed(() => (this.planOf()?.key === this.current()?.key ? (this.planOf()?.plan ?? null) : null));
  /** Paragraphs to show of files of which more than the first were asked for. */
  private readonly previewed = signal<ReadonlyMap<number, number>>(new Map());

  constructor() {
    // the preview follows every setting of the file that is shown
    effect(() => {
      const item = this.current();
      if (item?.state !== 'read') return;
      if (item.text) void this.showPreview(item);
      else if (item.table) untracked(() => void this.showPlan(item));
    });
    // a password that was not the one is typed again
    effect(() => {
      if (this.current()?.remedy.password === 'wrong') this.password()?.nativeElement.focus();
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
    if (!this.storing()) this.chosen.clear();
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
    void filesOfDrop(event.dataTransfer).then((files) => this.chosen.add(files));
  }

  /** The browser's own way to choose, where it has one: it can find the files again in another session. */
  protected async choose(picker: HTMLInputElement): Promise<void> {
    if (!window.showOpenFilePicker) return picker.click();
    // nothing chosen is no fault
    const handles = await window.showOpenFilePicker({ multiple: true }).catch(() => []);
    await this.chosen.add(await Promise.all(handles.map(async (handle) => ({ file: await handle.getFile(), path: '', handle }))));
  }

  protected async onPicked(input: HTMLInputElement): Promise<void> {
    const files = [...(input.files ?? [])].map((file): ChosenFile => ({
      file,
      path: file.webkitRelativePath.split('/').slice(0, -1).join('/'),
    }));
    input.value = '';
    await this.chosen.add(files);
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
    const key = this.chosen.newKey();
    await this.chosen.take(newItem(key, name, new Blob([content]), { pasted: true }));
    if (title) this.chosen.change(key, { title });
  }

  /** Titles of the texts that come in as transcripts of a recording. */
  protected transcriptsOf({ key }: ImportItem): string[] {
    return this.wanted().flatMap((item) => (this.chosen.originalOf(item) === `file ${key}` ? [item.title] : []));
  }

  protected showMore(key: number): void {
    this.previewed.update((known) => new Map(known).set(key, (known.get(key) ?? FIRST_PARAGRAPHS) + MORE_PARAGRAPHS));
  }

  /** Opens a locked file. */
  protected unlock(item: ImportItem, password: string): void {
    if (password) void this.chosen.readAgain(item.key, { password });
  }

  protected wantFact(name: string, wanted: boolean): void {
    this.factsLeft.update((left) => new Set(wanted ? [...left].filter((one) => one !== name) : [...left, name]));
  }

  protected decide(key: string): void {
    this.decisions.update((known) => new Map(known).set(key, 'own'));
  }

  private async showPreview(item: ImportItem): Promise<void> {
    const preview = await this.files.preview(item.key, choicesOf(item), this.previewed().get(item.key) ?? FIRST_PARAGRAPHS);
    if (this.current()?.key === item.key) this.previewOf.set({ key: item.key, preview });
  }

  private async showPlan(item: ImportItem): Promise<void> {
    const data = this.data();
    if (!data) return;
    const plan = await this.files.plan(item.key, this.bringer.tableChoices(item, this.folderId()), data, this.history().seq);
    if (this.current()?.key === item.key) this.planOf.set({ key: item.key, plan });
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
      factsLeft: this.factsLeft(),
      cases: this.cases(),
      lineUp: this.linedUp(),
      structuredKeys: this.structuredKeys(),
      decisions: this.decisions(),
      originalOf: (item) => this.chosen.originalOf(item),
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
    this.chosen.clear();
    // whoever has gone elsewhere meanwhile, or is on the way, is not called back
    if (!this.router.url.includes('/material/import') || this.router.currentNavigation()) return;
    this.ways.go(['material'], {
      queryParams: items.every((item) => item.table && item.rowsBecome === 'cases only') ? { view: 'cases' } : {},
    });
  }
}
