import { Injectable, type OnDestroy } from '@angular/core';
import { proxy, transfer, wrap, type Remote } from 'comlink';
import type { Change } from '@core/change/change';
import type { CodebookRow } from '@core/codebook/codebook-rows';
import type { JournalEntry } from '@core/change/journal';
import type { ReadOptions } from '@core/formats/read-file';
import type { TableOptions } from '@core/formats/table/table';
import type { TextChoices } from '@core/material/compose-import';
import type { TableChoices } from '@core/material/plan-table';
import type { Preview } from '@core/material/preview';
import type { MediaToStore, TextToStore } from '@core/material/store-request';
import type { ListedMemo } from '@core/memos/exchange/listed-memo';
import type { Memo } from '@core/model/memo';
import type { StudyState } from '@core/model/study-state';
import type { Id } from '@core/model/ids';
import type { CodebookForm, CodebookOptions, CodebookRead } from '@core/filing/codebook-files';
import type { EntrySlot, TablePlanSummary } from '@core/filing/filing';
import type { LogRow } from '@core/filing/log-files';
import type { MemoForm } from '@core/filing/memo-files';
import type { FileOutcome } from '@core/filing/read-material';
import type { StudyFileOutcome, WrittenStudy } from '@core/filing/study-files';
import type { LeftOut } from '@core/formats/study-file/write-study-file';
import type { FilesWorker } from './files.worker';
import { Readers } from './readers';
import { requested } from './requested';

type Progress = (share: number) => void;

/** Reading and writing files in a worker. */
@Injectable({ providedIn: 'root' })
export class FilesService implements OnDestroy {
  private worker: Worker | null = null;
  private remote: Remote<FilesWorker> | null = null;
  private readonly readers = new Readers((port) => void this.files.keepFrom(transfer(port, [port])));

  private get files(): Remote<FilesWorker> {
    if (!this.remote) {
      this.worker = new Worker(new URL('./files.worker', import.meta.url), { type: 'module' });
      this.remote = wrap<FilesWorker>(this.worker);
    }
    return this.remote;
  }

  /**
   * Reads a file beside others and keeps what was read under a key; nothing is stored.
   * @param progress told the share that is read, where that takes long
   * @returns null if reading was stopped
   */
  read(
    key: number,
    name: string,
    file: Blob,
    options: ReadOptions & TableOptions,
    progress: (share: number) => void = () => undefined,
  ): Promise<FileOutcome | null> {
    return this.readers.read(key, name, file, options, progress);
  }

  /** Stops reading; what was read is still there. */
  stopReading(): void {
    this.readers.stop();
  }

  forget(keys: readonly number[]): void {
    if (this.remote) void this.remote.forget(keys);
  }

  /** @param paragraphs how many are shown at most */
  preview(key: number, choices: TextChoices, paragraphs: number): Promise<Preview | null> {
    return this.files.preview(key, choices, paragraphs);
  }

  words(key: number, choices: TextChoices): Promise<string> {
    return this.files.words(key, choices);
  }

  /** @param seq the last entry of the study's journal */
  plan(key: number, choices: TableChoices, state: StudyState, seq: number): Promise<TablePlanSummary | { readonly trouble: string }> {
    return this.files.plan(key, choices, withoutPassages(state), seq);
  }

  /** How many answers of documents that were there the table stored last has changed. */
  answersUpdated(): Promise<number> {
    return this.files.answersUpdated();
  }

  storeMaterial(
    place: EntrySlot,
    texts: readonly TextToStore[],
    media: readonly MediaToStore[],
    extra: Change,
    sentence: string,
  ): Promise<JournalEntry> {
    return this.withRecords(this.files.storeMaterial(place, texts, media, extra, sentence));
  }

  /** SHA-256 of a file, read bit by bit. @param signal ends it @returns null if it was ended */
  sumOf(file: Blob, progress: Progress = () => undefined, signal?: AbortSignal): Promise<string | null> {
    return this.request(signal, (id) => this.files.sumOf(id, proxy(progress), file));
  }

  storeTable(place: EntrySlot, key: number, choices: TableChoices, state: StudyState, sentence: string): Promise<JournalEntry> {
    return this.withRecords(this.files.storeTable(place, key, choices, withoutPassages(state), sentence));
  }

  /** An entry that was stored, with its records but for new texts. */
  private async withRecords(stored: Promise<JournalEntry>): Promise<JournalEntry> {
    const entry = await stored;
    const change: Change[number][] = [];
    // the next are on their way while these arrive
    for (let next = this.files.takeStored(); ;) {
      const some = await next;
      if (some.length === 0) break;
      next = this.files.takeStored();
      change.push(...some);
    }
    return { ...entry, change };
  }

  /** @param signal ends it @returns null if it was ended before anything was stored */
  openStudyFile(file: Blob, ifHere: 'ask' | 'copy', progress: Progress, signal?: AbortSignal): Promise<StudyFileOutcome | null> {
    return this.request(signal, async (id) => this.files.openStudyFile(id, proxy(progress), file, ifHere));
  }

  /** @param signal ends it @returns null if it was ended */
  writeStudyFile(studyId: Id, leave: LeftOut, progress: Progress, signal?: AbortSignal): Promise<WrittenStudy | null> {
    return this.request(signal, (id) => this.files.writeStudyFile(id, proxy(progress), studyId, leave));
  }

  /** Asks for something that can be ended while it is worked on. */
  private request<T>(signal: AbortSignal | undefined, ask: (id: number) => Promise<T>): Promise<T> {
    return requested(signal, ask, (id) => void this.files.end(id));
  }

  /** A codebook as a file names it. */
  readCodebook(name: string, file: Blob, options: CodebookOptions): Promise<CodebookRead> {
    return this.files.readCodebook(name, file, options);
  }

  writeCodebook(
    form: CodebookForm,
    title: string,
    rows: readonly CodebookRow[],
    tables: Pick<StudyState['tables'], 'code' | 'codeSet'>,
    sets: Readonly<Record<Id, readonly Id[]>>,
  ): Promise<Uint8Array> {
    return this.files.writeCodebook(form, title, rows, tables, sets);
  }

  readMemos(name: string, file: Blob): Promise<ListedMemo[]> {
    return this.files.readMemos(name, file);
  }

  writeMemos(form: MemoForm, title: string, memos: readonly Memo[], state: Pick<StudyState, 'tables' | 'passages'>): Promise<Uint8Array> {
    return this.files.writeMemos(form, title, memos, state);
  }

  writeLog(form: 'docx' | 'csv', title: string, rows: readonly LogRow[]): Promise<Uint8Array> {
    return this.files.writeLog(form, title, rows);
  }

  openDemo(): Promise<Id> {
    return this.files.openDemo();
  }

  ngOnDestroy(): void {
    this.readers.stop();
    this.worker?.terminate();
  }
}

/** Plans look at documents and cases only, and passages are most of a study. */
const withoutPassages = (state: StudyState): StudyState => ({ ...state, passages: {} });
