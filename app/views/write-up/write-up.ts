import type { LeftOut } from '@core/formats/study-file/write-study-file';
import { Counted } from '../../ui/counted/counted';
import { namesIn, scopeWords } from '@core/queries/words';
import { counted } from '@core/text/counted';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { noteExport } from '@core/commands/study';
import { codebookRows, documentsWithExamples } from '@core/codebook/codebook-rows';
import { codebookCsv } from '@core/formats/csv/codebook-csv';
import { codingsCsv } from '@core/formats/csv/codings-csv';
import { StudySession } from '../../state/study-session';
import {
  selectBackup,
  selectData,
  selectHistory,
  selectRole,
  selectScopedDocuments,
  selectScopedPassages,
  selectScope,
} from '../../state/study.selectors';
import { saveFile } from '../../ui/save-file';
import { FilesService } from '../../workers/files-service';

/** What leaves Filum: the study file, and tables for other programs. */
@Component({
  selector: 'fl-write-up',
  imports: [Counted, DatePipe],
  templateUrl: './write-up.html',
  styleUrl: './write-up.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WriteUp {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly files = inject(FilesService);
  private readonly data = this.store.selectSignal(selectData);
  private readonly role = this.store.selectSignal(selectRole);
  protected readonly documents = this.store.selectSignal(selectScopedDocuments);
  protected readonly history = this.store.selectSignal(selectHistory);
  protected readonly backup = this.store.selectSignal(selectBackup);
  protected readonly busy = signal<{ readonly what: string; readonly share: number | null } | null>(null);
  protected readonly trouble = signal<string | null>(null);
  /** Changes since the last study file. */
  protected readonly since = computed(() => this.history().seq - (this.backup()?.through ?? 0));

  protected async studyFile(leave: LeftOut = {}): Promise<void> {
    await this.work('Writing the study file', async () => {
      const { study } = this.data()!;
      await this.session.settled();
      const written = await this.files.writeStudyFile(
        study.id,
        leave,
        (share) => this.busy.update((busy) => busy && { ...busy, share }),
        this.stopping.signal,
      );
      if (!written) return;
      const { file, through, missing } = written;
      if (missing > 0 && !leave.media)
        this.trouble.set(
          `${counted(missing, 'recording or picture of this study is', 'recordings and pictures of this study are')} not in this browser, and so not in the study file. Everything else is.`,
        );
      const without = [leave.history ? 'its history' : '', leave.media ? 'its recordings and pictures' : ''].filter(Boolean).join(' and ');
      saveFile(
        `${study.title} ${today()}${leave.history ? ' without history' : ''}${leave.media ? ' without media' : ''}.filum`,
        file,
        'application/zip',
      );
      if (without) return this.note(`the study file without ${without}`);
      this.note('the study file');
      await this.session.settled();
      // the log's own note of this export is no change since it
      const { seq } = this.history();
      await this.session.noteBackup({ at: Date.now(), through: seq === through + 1 ? seq : through });
    });
  }

  /** How many recordings and pictures the study keeps: they can be left out of a study file. */
  protected readonly keptMedia = computed(
    () => Object.values(this.data()?.tables.document ?? {}).filter(({ ground }) => ground.of !== 'text' && !ground.media.outside).length,
  );

  private readonly scope = this.store.selectSignal(selectScope);
  private readonly coderPassages = this.store.selectSignal(selectScopedPassages);

  /** What of the material goes out, in words. */
  protected readonly scopeWords = computed(() => {
    const data = this.data();
    return data ? scopeWords(this.scope(), namesIn(data, this.scope().gone)) : '';
  });

  protected async codings(): Promise<void> {
    await this.work('Writing the codings', async () => {
      const data = this.data()!;
      const ids = this.documents().map((document) => document.id);
      const texts = new Map(
        (await this.session.textsOf(ids.filter((id) => Object.hasOwn(data.passages, id)))).map((text) => [text.id, text]),
      );
      saveFile(
        `${data.study.title} – codings ${today()}.csv`,
        codingsCsv({ ...data, passages: this.coderPassages() }, ids, (id) => texts.get(id) ?? null),
        'text/csv',
      );
      this.note(`the codings of ${counted(ids.length, 'document')} as CSV`);
    });
  }

  protected async codebook(): Promise<void> {
    await this.work('Writing the codebook', async () => {
      const data = this.data()!;
      const texts = new Map((await this.session.textsOf(documentsWithExamples(data))).map((text) => [text.id, text]));
      saveFile(`${data.study.title} – codebook ${today()}.csv`, codebookCsv(codebookRows(data, (id) => texts.get(id))), 'text/csv');
      this.note('the codebook as CSV');
    });
  }

  /** Ends the study file that is being written. */
  private stopping = new AbortController();

  protected cancel(): void {
    this.stopping.abort();
    this.busy.set(null);
  }

  /** What left the study is in its log, where this tab may write it. */
  private note(what: string): void {
    if (this.role() === 'writer') this.session.run(noteExport(what));
  }

  private async work(what: string, action: () => Promise<void>): Promise<void> {
    this.trouble.set(null);
    this.stopping = new AbortController();
    this.busy.set({ what, share: null });
    try {
      await action();
    } catch (error) {
      this.trouble.set(`${what} failed: ${error instanceof Error ? error.message : String(error)}. Nothing was exported.`);
    } finally {
      this.busy.set(null);
    }
  }
}

function today(): string {
  const now = new Date();
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
}
