import { Counted } from '../../ui/counted/counted';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal, viewChild } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { addLogEntry, deleteLogEntry, editLogEntry } from '@core/commands/log-entries';
import { noteExport } from '@core/commands/study';
import { dayOf, endOfDay, groupSentence, kindOf, LOG_KINDS, numbersBefore, type StudyNumbers } from '@core/log/group-log';
import type { Id } from '@core/model/ids';
import type { LogEntry } from '@core/model/log-entry';
import { passageCount } from '@core/passages/columns';
import { Drafts } from '../../state/drafts';
import { StudySession } from '../../state/study-session';
import {
  selectCoders,
  selectCodes,
  selectData,
  selectDocuments,
  selectHistory,
  selectLogEntries,
  selectRole,
  selectSortedDocuments,
  selectStudy,
} from '../../state/study.selectors';
import { Icon } from '../../ui/icon/icon';
import { ChooseCode } from '../../ui/picker/choose-code';
import { Glossary } from '../../ui/glossary/glossary';
import { saveFile } from '../../ui/save-file';
import { SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { FilesService } from '../../workers/files-service';
import type { LogRow } from '@core/filing/log-files';
import { EntryForm, type EntryDraft } from './entry-form';
import { LogShown, type Kind } from './log-shown';
import { MemoTabs } from './memo-tabs';

/** Days back, this one included; 0 for any time. */
const PERIODS: readonly Choice<number>[] = [
  { name: 'at any time', value: 0 },
  { name: 'today', value: 1 },
  { name: 'in the last week', value: 7 },
  { name: 'in the last month', value: 31 },
];
const kindName = (kind: Kind): string => (kind === '' ? 'of every kind' : kind === 'own' ? 'own entries' : kind);
/** Documents that are offered; with more, a code or words lead further. */
const OFFERED = 300;

/** The study's audit trail: its life as sentences by day, with the researcher's own entries among them. */
@Component({
  selector: 'fl-log',
  imports: [Counted, DatePipe, EntryForm, Icon, MatMenuModule, MemoTabs, RouterLink, SentencePart],
  providers: [LogShown],
  templateUrl: './log.html',
  styleUrl: './log.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Log {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly files = inject(FilesService);
  private readonly dialog = inject(MatDialog);
  private readonly data = this.store.selectSignal(selectData);
  private readonly role = this.store.selectSignal(selectRole);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly documentTable = this.store.selectSignal(selectDocuments);
  private readonly own = this.store.selectSignal(selectLogEntries);
  /** What is asked of the log, and what is shown of it. */
  protected readonly log = inject(LogShown);
  protected readonly study = this.store.selectSignal(selectStudy);
  protected readonly history = this.store.selectSignal(selectHistory);
  protected readonly coders = this.store.selectSignal(selectCoders);
  private readonly documents = this.store.selectSignal(selectSortedDocuments);
  protected readonly kindName = kindName;
  protected readonly kindChoices = (['', ...LOG_KINDS, 'own'] as const).map((value): Choice<Kind> => ({ value, name: kindName(value) }));
  protected readonly periods = PERIODS;

  protected readonly coderChoices = computed((): Choice<Id | ''>[] => [
    { value: '', name: 'anybody' },
    ...Object.values(this.coders()).map((one) => ({ value: one.id, name: one.name })),
  ]);
  protected readonly documentChoices = computed((): Choice<Id | ''>[] => [
    { value: '', name: 'any document' },
    ...this.documents()
      .slice(0, OFFERED)
      .map((one) => ({ value: one.id, name: one.title })),
  ]);
  protected readonly codeName = computed(() => this.codes()[this.log.codeId()]?.name ?? 'any code');
  protected readonly documentName = computed(() => this.documentTable()[this.log.documentId()]?.title ?? 'any document');
  protected readonly periodWords = computed(() => PERIODS.find((one) => one.value === this.log.days())?.name ?? '');

  protected readonly opened = signal<ReadonlySet<number>>(new Set());
  /** An entry of the researcher's own that is being written; its id where it is there already. */
  protected readonly writing = signal<{ readonly id: Id | null; readonly draft: EntryDraft } | null>(null);
  protected readonly refusal = signal<string | null>(null);
  private readonly form = viewChild(EntryForm);
  private readonly kept = inject(Drafts);
  private readonly drafts = signal(0);
  /** Entries that were begun and neither kept nor dropped: their ids, or `new`. */
  protected readonly begun = computed(() => {
    this.drafts();
    return this.writing() || !this.study() ? [] : this.kept.all('log entry').filter((of) => of === 'new' || Object.hasOwn(this.own(), of));
  });
  protected readonly then = signal<{ readonly day: string; readonly numbers: StudyNumbers } | null>(null);

  protected readonly now = computed((): StudyNumbers => {
    const { tables, passages } = this.data()!;
    const columns = Object.values(passages);
    return {
      documents: Object.keys(tables.document).length,
      codes: Object.keys(tables.code).length,
      memos: Object.keys(tables.memo).length,
      cases: Object.keys(tables.case).length,
      passages: columns.reduce((sum, one) => sum + passageCount(one), 0),
      codings: columns.reduce((sum, one) => sum + one.codingRow.length, 0),
    };
  });
  protected readonly sentence = groupSentence;

  constructor() {
    let here = true;
    inject(DestroyRef).onDestroy(() => (here = false));
    // after the first page, which is what the reader waits for
    setTimeout(() => void this.session.digestJournal(() => here), 1_000);
  }

  protected toggle(seq: number): void {
    this.opened.update((opened) => {
      const next = new Set(opened);
      if (!next.delete(seq)) next.add(seq);
      return next;
    });
  }

  protected async chooseCode(): Promise<void> {
    const chosen = await ChooseCode.open(this.dialog, { title: 'What was done with…', top: 'any code' });
    if (chosen) this.log.codeId.set('codeId' in chosen ? chosen.codeId : '');
  }

  /** Goes on with an entry that was begun and not kept. */
  protected goOn(of: string): void {
    this.write(this.own()[of] ?? null);
  }

  protected write(entry: LogEntry | null): void {
    this.writing.set(
      entry
        ? { id: entry.id, draft: { day: entry.day, text: entry.text, tags: entry.tags.join(', ') } }
        : { id: null, draft: { day: dayOf(Date.now()), text: '', tags: '' } },
    );
  }

  protected keep({ day, text, tags }: EntryDraft): void {
    const { id } = this.writing()!;
    const list = tags.split(',');
    const { refused } = this.session.attempt(id ? editLogEntry(id, day, text, list) : addLogEntry(day, text, list));
    this.refusal.set(refused);
    if (refused === null) this.leaveEntry();
  }

  /** The form goes, and with it what was typed in it. */
  protected leaveEntry(): void {
    this.form()?.drop();
    this.writing.set(null);
    this.refusal.set(null);
    this.drafts.update((version) => version + 1);
  }

  protected remove(id: Id): void {
    this.session.run(deleteLogEntry(id));
    this.leaveEntry();
  }

  /** What the study was at the end of a day. */
  protected async lookAt(day: string): Promise<void> {
    if (!/^\d{4}-\d{2}-\d{2}$/.test(day)) return this.then.set(null);
    const end = endOfDay(new Date(`${day}T00:00:00`).getTime());
    this.then.set({ day, numbers: numbersBefore(this.now(), await this.session.since(end)) });
  }

  protected glossary(): void {
    void Glossary.open(this.dialog, '');
  }

  /** The audit trail as it is filtered, all of it. */
  protected async export(form: 'docx' | 'csv'): Promise<void> {
    const entries = await this.log.all();
    const name = (id: Id): string => this.coders()[id]?.name ?? '';
    const rows: LogRow[] = [
      ...entries.map((entry) => ({
        day: dayOf(entry.at),
        at: entry.at,
        coder: name(entry.coderId),
        kind: kindOf(entry),
        text: entry.sentence,
        tags: '',
      })),
      ...this.log.ownEntries().map((entry) => ({
        day: entry.day,
        at: entry.createdAt,
        coder: name(entry.coderId),
        kind: 'own entry',
        text: entry.text,
        tags: entry.tags.join(', '),
      })),
    ].sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.at - b.at));
    saveFile(
      `${this.study()!.title} – log.${form}`,
      await this.files.writeLog(form, this.study()!.title, rows),
      'application/octet-stream',
    );
    if (this.role() === 'writer') this.session.run(noteExport(`the log as ${form.toUpperCase()}`));
  }
}
