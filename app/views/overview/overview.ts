import type { ImpossibleValue } from '@core/integrity/impossible-values';
import { counted } from '@core/text/counted';
import { DatePipe } from '@angular/common';
import { afterNextRender, ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { JournalEntry } from '@core/change/journal';
import { lengthOf, type Document } from '@core/model/document';
import { passageCount } from '@core/passages/columns';
import { union } from '@core/passages/union';
import { newCodesByDocument } from '@core/patterns/new-codes';
import { editStudy, workAs } from '@core/commands/study';
import { MediaFiles } from '../../state/media-files';
import { StudySession } from '../../state/study-session';
import {
  selectBackup,
  selectCases,
  selectCoders,
  selectCodes,
  selectHistory,
  selectMemos,
  selectScopedPassages,
  selectScopedDocuments,
  selectStudy,
  selectData,
} from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { LineChart, type LinePoint } from '../../ui/charts/line-chart';
import { Ask } from '../../ui/dialogs/ask';
import { MissingFile } from '../../ui/missing-file/missing-file';

/** What is here, how far the reading is, what was done last, and when the last backup was. */
@Component({
  selector: 'fl-overview',
  imports: [RouterLink, DatePipe, LineChart, MissingFile],
  templateUrl: './overview.html',
  styleUrl: './overview.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Overview {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly files = inject(MediaFiles);
  private readonly ways = inject(Ways);
  private readonly data = this.store.selectSignal(selectData);
  protected readonly study = this.store.selectSignal(selectStudy);
  protected readonly documents = this.store.selectSignal(selectScopedDocuments);
  private readonly passages = this.store.selectSignal(selectScopedPassages);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly cases = this.store.selectSignal(selectCases);
  private readonly memos = this.store.selectSignal(selectMemos);
  protected readonly coders = this.store.selectSignal(selectCoders);
  protected readonly history = this.store.selectSignal(selectHistory);
  protected readonly backup = this.store.selectSignal(selectBackup);
  protected readonly recent = signal<readonly JournalEntry[]>([]);
  /** Documents drawn as lines; more are one click away in Material. */
  private static readonly SHOWN = 200;

  protected readonly figures = computed(() => {
    const ids = this.documents().map((document) => document.id);
    const columns = ids.map((id) => this.passages()[id]).filter((one) => one !== undefined);
    return [
      { name: 'documents', count: ids.length },
      { name: 'words', count: this.documents().reduce((sum, document) => sum + document.words, 0) },
      { name: `${this.study()?.caseWord ?? 'case'}s`, count: Object.keys(this.cases()).length },
      { name: 'codes', count: Object.keys(this.codes()).length },
      { name: 'passages', count: columns.reduce((sum, one) => sum + passageCount(one), 0) },
      { name: 'codings', count: columns.reduce((sum, one) => sum + one.codingRow.length, 0) },
      { name: 'memos', count: Object.keys(this.memos()).length },
    ];
  });

  /** Lines drawn so far: what fits a screen first, the others after it is shown. */
  private readonly atOnce = signal(40);

  /** Each document as one line with what is coded on it, in shares of its length. */
  protected readonly lines = computed(() =>
    this.documents()
      .slice(0, this.atOnce())
      .map((document) => {
        const columns = this.passages()[document.id];
        // a picture is as long as it is high
        const length = document.ground.of === 'picture' ? document.ground.height : lengthOf(document);
        const stretches = columns ? union(Array.from(columns.starts, (start, row) => ({ start, end: columns.ends[row]! }))) : [];
        const path = stretches
          .map(
            ({ start, end }) =>
              `M${((1000 * start) / length).toFixed(1)} 4H${Math.max((1000 * end) / length, (1000 * start) / length + 1).toFixed(1)}`,
          )
          .join('');
        return { document, path, passages: columns ? passageCount(columns) : 0 };
      }),
  );
  protected readonly newCodes = computed(() =>
    newCodesByDocument(
      this.passages(),
      this.documents().map((document) => document.id),
    ),
  );
  protected readonly codePoints = computed(() => {
    const titles = new Map(this.documents().map((document) => [document.id, document.title]));
    return this.newCodes().map(({ documentId, fresh, total }): LinePoint => ({
      name: titles.get(documentId) ?? '',
      value: total,
      said: `${counted(total, 'code')} so far, ${fresh.toLocaleString('en')} of them new here`,
    }));
  });
  /** How long ago the last new code came, in documents. */
  protected readonly lastNew = computed(() => {
    const since = this.newCodes().length - 1 - this.newCodes().findLastIndex((one) => one.fresh > 0);
    return since === 0 ? 'The last one still added some.' : since === 1 ? 'The last one added none.' : `The last ${since} added none.`;
  });
  protected readonly hidden = computed(() => Math.max(0, this.documents().length - Overview.SHOWN));
  protected readonly since = computed(() => this.history().seq - (this.backup()?.through ?? 0));

  /** Values that an earlier Filum, or a file, let in and no schema allows. Looked for when the place has been shown. */
  protected readonly impossible = signal<readonly ImpossibleValue[]>([]);

  private async lookForImpossible(): Promise<void> {
    const { impossibleValues } = await import('@core/integrity/impossible-values');
    const data = this.data();
    // a study of tens of thousands of records is looked through where it is read and written
    if (data && Object.values(data.tables).reduce((sum, table) => sum + Object.keys(table).length, 0) < 5_000)
      this.impossible.set(impossibleValues(data));
  }

  /** Recordings and pictures whose files are not here. */
  protected readonly missing = signal<readonly Document[]>([]);

  private async lookForMissing(): Promise<void> {
    const missing: Document[] = [];
    for (const document of Object.values(this.data()?.tables.document ?? {})) {
      const media = document.ground.of === 'text' ? document.seen?.media : document.ground.media;
      if (media && !(await this.files.isAtHand(media))) missing.push(document);
    }
    this.missing.set(missing);
  }

  constructor() {
    effect(() => {
      this.files.changes();
      const ready = this.data() !== null;
      if (ready) untracked(() => void this.lookForMissing());
    });
    afterNextRender(() => setTimeout(() => void this.lookForImpossible(), 500));
    setTimeout(() => this.atOnce.set(Overview.SHOWN), 50);
    effect(() => void this.session.journal(this.history().seq + 1, 8).then((entries) => this.recent.set(entries)));
  }

  protected readCoded(at: number): void {
    const documentId = this.newCodes()[at]?.documentId;
    if (documentId) this.ways.go(['reading', documentId]);
  }

  protected async rename(): Promise<void> {
    await this.ask.keep(
      'Rename the study',
      'Title',
      this.study()!.title,
      'Rename',
      (title) => this.session.attempt(editStudy({ title })).refused,
    );
  }

  protected async changeCoder(): Promise<void> {
    await this.ask.keep(
      'Who is working?',
      'Name, for codings and the log',
      this.coders()[this.study()!.currentCoderId]?.name ?? '',
      'Work under this name',
      (name) => this.session.attempt(workAs(name)).refused,
    );
  }
}
