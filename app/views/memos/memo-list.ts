import { quoted } from '@core/text/quoted';
import { standingOn } from '@core/integrity/standing-on';
import { counted } from '@core/text/counted';
import { Counted } from '../../ui/counted/counted';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { noteExport } from '@core/commands/study';
import { colourKinds, deleteMemos, editMemos, renameKind } from '@core/commands/memos';
import { nameOfSubject } from '@core/memos/name-of-subject';
import { findMemos, lastWritten, MEMO_ORDERS, snippetOf, sortMemos, type MemoFilter, type MemoOrder } from '@core/memos/find-memos';
import { subjectsOf } from '@core/memos/references';
import { FAMILY_SIZE } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Memo } from '@core/model/memo';
import { FAMILY_NAMES } from '@core/model/palette';
import { StudySession } from '../../state/study-session';
import { selectCoders, selectData, selectMemos, selectRole, selectStudy } from '../../state/study.selectors';
import { Choosing } from '../../ui/choosing';
import { listed } from '@core/text/listed';
import { Ask } from '../../ui/dialogs/ask';
import { Icon } from '../../ui/icon/icon';
import { Prose } from '../../ui/memo/prose';
import { saveFile } from '../../ui/save-file';
import { choicesOf, SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { FilesService } from '../../workers/files-service';
import type { MemoForm } from '@core/filing/memo-files';
import { MemoSheet } from './memo-sheet';

const SUBJECTS = ['passage', 'code', 'document', 'case', 'query', 'nothing'] as const;
type Subject = (typeof SUBJECTS)[number] | '';
const aboutWordsOf = (about: Subject): string => `about ${!about ? 'anything' : about === 'nothing' ? about : `a ${about}`}`;
/** Days back from now, 0 for any time. */
const PERIODS: readonly Choice<number>[] = [
  { name: 'at any time', value: 0 },
  { name: 'in the last week', value: 7 },
  { name: 'in the last month', value: 31 },
  { name: 'in the last year', value: 366 },
];
const FORMS: readonly { readonly form: MemoForm; readonly name: string }[] = [
  { form: 'docx', name: 'Word' },
  { form: 'md', name: 'Markdown' },
  { form: 'html', name: 'HTML' },
  { form: 'xlsx', name: 'workbook' },
  { form: 'csv', name: 'CSV' },
];

/** All memos: filtered, sorted, chosen together, read one by one or on end. */
@Component({
  selector: 'fl-memo-list',
  imports: [
    Counted,
    CdkVirtualScrollViewport,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    DatePipe,
    Icon,
    MatMenuModule,
    MemoSheet,
    Prose,
    SentencePart,
  ],
  templateUrl: './memo-list.html',
  styleUrl: './memo-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MemoList {
  /** The memo to show first. */
  readonly memo = input<string>();
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly files = inject(FilesService);
  private readonly ask = inject(Ask);
  private readonly data = this.store.selectSignal(selectData);
  private readonly role = this.store.selectSignal(selectRole);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly table = this.store.selectSignal(selectMemos);
  protected readonly coderTable = this.store.selectSignal(selectCoders);
  protected readonly aboutWordsOf = aboutWordsOf;
  protected readonly subjectChoices = (['', ...SUBJECTS] as const).map((value): Choice<Subject> => ({ value, name: aboutWordsOf(value) }));
  protected readonly periods = PERIODS;
  protected readonly orders = choicesOf(MEMO_ORDERS);
  protected readonly forms = FORMS;
  protected readonly families = FAMILY_NAMES.map((name, at) => ({ name, colour: at * FAMILY_SIZE }));
  protected readonly last = lastWritten;

  protected readonly typed = signal('');
  protected readonly kind = signal('');
  protected readonly tag = signal('');
  protected readonly about = signal<Subject>('');
  protected readonly coderId = signal<Id | ''>('');
  protected readonly days = signal(0);
  protected readonly archived = signal(false);
  protected readonly order = signal<MemoOrder>('last written');
  private readonly chosenId = signal<Id | null>(null);
  /** The chosen memos as one text. */
  protected readonly onEnd = signal(false);

  protected readonly kinds = computed(() => [...new Set(Object.values(this.table()).map((memo) => memo.kind))].sort());
  protected readonly tags = computed(() => [...new Set(Object.values(this.table()).flatMap((memo) => memo.tags ?? []))].sort());
  protected readonly kindChoices = computed((): Choice<string>[] => [{ value: '', name: 'every kind' }, ...choicesOf(this.kinds())]);
  protected readonly tagChoices = computed((): Choice<string>[] => [{ value: '', name: 'any tag or none' }, ...choicesOf(this.tags())]);
  protected readonly coderChoices = computed((): Choice<Id | ''>[] => [
    { value: '', name: 'by anybody' },
    ...this.coders().map((one) => ({ value: one.id, name: `by ${one.name}` })),
  ]);
  protected readonly coders = computed(() => Object.values(this.coderTable()));
  protected readonly put = computed(() => Object.values(this.table()).filter((memo) => memo.archived).length);
  protected readonly periodWords = computed(() => PERIODS.find((one) => one.value === this.days())?.name ?? '');
  private readonly colours = computed(() => new Map(this.study()?.memoKinds?.map((one) => [one.name, one.colour])));
  /** All memos in their order: another filter need not sort them again. */
  private readonly ordered = computed(() => sortMemos(Object.values(this.table()), this.order()));
  protected readonly memos = computed(() => {
    const filter: MemoFilter = {
      words: this.typed(),
      kind: this.kind(),
      tag: this.tag(),
      archived: this.archived(),
      ...(this.about() && { about: this.about() as Exclude<Subject, ''> }),
      coderId: this.coderId(),
      ...(this.days() > 0 && { from: Date.now() - this.days() * 86_400_000 }),
    };
    return findMemos(this.ordered(), filter);
  });
  protected readonly chosen = computed(() => this.table()[this.chosenId() ?? ''] ?? this.memos()[0]);
  protected readonly choosing = new Choosing(
    () => this.memos().map((memo) => memo.id),
    (id) => Object.hasOwn(this.table(), id),
  );
  /** What is read on end or exported: the chosen ones, or else all that are shown, and the words say which. */
  protected readonly concerned = computed(() => {
    const ids = this.choosing.ids();
    return ids.length > 0 ? ids.map((id) => this.table()[id]!) : this.memos();
  });
  protected readonly concernedWords = computed(() => {
    const count = this.concerned().length.toLocaleString();
    return this.choosing.ids().length > 0 ? `the ${count} chosen` : `all ${count} shown`;
  });
  protected readonly byId = (_: number, memo: Memo): Id => memo.id;

  constructor() {
    effect(() => {
      const id = this.memo();
      if (id) this.chosenId.set(id);
    });
  }

  protected colourOf(kind: string): number {
    const known = this.colours().get(kind);
    if (known !== undefined) return known;
    // until the researcher chooses, kinds take the families in turn
    return (this.kinds().indexOf(kind) % FAMILY_NAMES.length) * FAMILY_SIZE;
  }

  protected snippet(memo: Memo): string {
    return snippetOf(memo, this.typed());
  }

  protected aboutWords(memo: Memo): string {
    return subjectsOf(memo)
      .map((subject) => nameOfSubject(this.data()!, subject) ?? 'something that is gone')
      .join(', ');
  }

  protected choose(id: Id): void {
    this.chosenId.set(id);
    this.onEnd.set(false);
  }

  protected onKey(event: KeyboardEvent): void {
    const at = this.memos().findIndex((memo) => memo.id === this.chosen()?.id);
    const next = this.memos()[event.key === 'ArrowDown' ? at + 1 : event.key === 'ArrowUp' ? at - 1 : -1];
    if (!next) return;
    event.preventDefault();
    this.choose(next.id);
    setTimeout(() => document.querySelector<HTMLElement>(`[data-memo="${next.id}"] .pick`)?.focus());
  }

  /** Takes every part out of the sentence: the way back from a list that nothing fits. */
  protected showAll(): void {
    for (const part of [this.typed, this.kind, this.tag, this.about, this.coderId]) part.set('');
    this.days.set(0);
    this.archived.set(false);
  }

  private chosenWords(): string {
    const ids = this.choosing.ids();
    return ids.length === 1 ? quoted(this.table()[ids[0]!]!.title) : `${ids.length.toLocaleString()} memos`;
  }

  protected async archive(archived: boolean): Promise<void> {
    const ids = this.choosing.ids();
    const goOn =
      ids.length < 2 ||
      !archived ||
      (await this.ask.confirm({
        title: `Put ${this.chosenWords()} away?`,
        lines: [listed(ids.map((id) => this.table()[id]!.title)), 'They stay in the study and can be taken out again.'],
        yes: 'Put them away',
      }));
    if (!goOn) return;
    this.session.run(editMemos(ids, { archived }));
    this.choosing.clear();
  }

  protected async setKind(): Promise<void> {
    const ids = this.choosing.ids();
    const kind = this.table()[ids[0]!]?.kind ?? '';
    await this.ask.keep(
      `Kind of ${this.chosenWords()}`,
      'Kind',
      kind,
      'Set',
      (text) => this.session.attempt(editMemos(ids, { kind: text })).refused,
    );
  }

  protected async addTag(): Promise<void> {
    const ids = this.choosing.ids();
    await this.ask.keep(`Tag ${this.chosenWords()}`, 'Tag', '', 'Tag', (text) =>
      text.trim() ? this.session.attempt(editMemos(ids, { alsoTag: text })).refused : 'A tag needs a word.',
    );
  }

  protected async remove(): Promise<void> {
    const memos = this.choosing.ids().map((id) => this.table()[id]!);
    if (memos.length === 0) return;
    const entries = memos.reduce((sum, memo) => sum + memo.entries.length, 0);
    const yes = await this.ask.confirm({
      title: `Delete ${this.chosenWords()}?`,
      lines: [
        ...(memos.length > 1 ? [listed(memos.map((memo) => memo.title))] : []),
        `This takes away ${counted(entries, 'entry', 'entries')}.`,
        ...standingOn(this.data()!, 'memo', this.choosing.ids()),
        'It can be undone.',
      ],
      yes: memos.length === 1 ? 'Delete the memo' : 'Delete the memos',
      danger: true,
    });
    if (yes) this.session.run(deleteMemos(memos.map((memo) => memo.id)));
  }

  protected colourKind(colour: number): void {
    const others = (this.study()?.memoKinds ?? []).filter((one) => one.name !== this.kind());
    this.session.run(colourKinds([...others, { name: this.kind(), colour }]));
  }

  protected async renameKind(): Promise<void> {
    await this.ask.keep('Rename the kind', 'Name', this.kind(), 'Rename', (name) => {
      const { done, refused } = this.session.attempt(renameKind(this.kind(), name));
      if (done) this.kind.set(name.trim());
      return refused;
    });
  }

  protected async export(form: MemoForm): Promise<void> {
    const data = this.data()!;
    const memos = this.concerned();
    const bytes = await this.files.writeMemos(form, data.study.title, memos, { tables: data.tables, passages: data.passages });
    saveFile(`${data.study.title} – memos.${form}`, bytes, 'application/octet-stream');
    if (this.role() === 'writer') this.session.run(noteExport(`${counted(memos.length, 'memo')} as ${form.toUpperCase()}`));
  }
}
