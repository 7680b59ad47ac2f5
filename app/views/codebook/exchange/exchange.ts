import { Counted } from '../../../ui/counted/counted';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { importCodes } from '@core/commands/import-codes';
import { noteExport } from '@core/commands/study';
import { codebookRows, documentsWithExamples } from '@core/codebook/codebook-rows';
import { codesOfSet } from '@core/codebook/conditions';
import { planCodes, type Decision, type PlannedCode } from '@core/codebook/exchange/plan-codes';
import { ENCODINGS } from '@core/formats/plain-text/encoding';
import { CODE_COLUMNS, type CodeColumn } from '@core/codebook/exchange/read-code-table';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectData, selectRole } from '../../../state/study.selectors';
import { saveFile } from '../../../ui/save-file';
import { Icon } from '../../../ui/icon/icon';
import { FilesService } from '../../../workers/files-service';
import type { CodebookForm, CodebookOptions, CodebookRead } from '@core/filing/codebook-files';
import { CodeCounts } from '../../../state/code-counts';

/** Rows of the preview that are drawn; all are taken over. */
const DRAWN = 500;

/** What is being brought in. */
interface Incoming extends CodebookRead {
  readonly source: string;
}

const FORMS: readonly { readonly form: CodebookForm; readonly name: string; readonly about: string }[] = [
  { form: 'qdc', name: 'Exchange standard (.qdc)', about: 'REFI-QDA: the open standard for codebooks, with sets' },
  { form: 'xlsx', name: 'Workbook (.xlsx)', about: 'one row a code, with counts and examples' },
  { form: 'csv', name: 'Table (.csv)', about: 'the same for any program' },
  { form: 'docx', name: 'Word (.docx)', about: 'to be printed or put in an appendix, with an outline' },
  { form: 'html', name: 'Page (.html)', about: 'to be printed or sent' },
];
const TYPES: Readonly<Record<CodebookForm, string>> = {
  qdc: 'application/xml',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  csv: 'text/csv',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  html: 'text/html',
};

/** Codebooks out and in: what would be new, changed or in conflict is shown before anything is taken over. */
@Component({
  selector: 'fl-exchange',
  imports: [Counted, Icon],
  templateUrl: './exchange.html',
  styleUrl: './exchange.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Exchange {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly files = inject(FilesService);
  private readonly router = inject(Router);
  private readonly data = this.store.selectSignal(selectData);
  private readonly counts = inject(CodeCounts);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly role = this.store.selectSignal(selectRole);
  protected readonly forms = FORMS;
  protected readonly encodings = ENCODINGS;
  private options: CodebookOptions = {};
  protected readonly columnKinds = CODE_COLUMNS;
  protected readonly drawn = DRAWN;
  protected readonly busy = signal<string | null>(null);
  protected readonly trouble = signal<string | null>(null);
  protected readonly incoming = signal<Incoming | null>(null);
  protected readonly picked = signal<File | null>(null);
  protected readonly planned = computed((): PlannedCode[] => {
    const incoming = this.incoming();
    return incoming && incoming.listed.faults.length === 0 ? planCodes(this.codes(), incoming.listed) : [];
  });
  /** What was decided otherwise than is usual, by row. */
  private readonly decided = signal<ReadonlyMap<number, Decision>>(new Map());
  protected readonly decisions = computed(() => this.planned().map((one, at) => this.decided().get(at) ?? usual(one)));
  protected readonly summary = computed(() => {
    const count = (status: PlannedCode['status']): number => this.planned().filter((one) => one.status === status).length;
    return { new: count('new'), changed: count('changed'), conflict: count('conflict'), same: count('same') };
  });
  protected readonly taken = computed(
    () => this.planned().filter((one, at) => one.status !== 'same' && this.decisions()[at] !== 'leave').length,
  );

  protected async export(form: CodebookForm): Promise<void> {
    await this.work('Writing the codebook', async () => {
      const data = this.data()!;
      const texts = new Map((await this.session.textsOf(documentsWithExamples(data))).map((text) => [text.id, text]));
      const rows = codebookRows(data, (id) => texts.get(id));
      const facts = this.counts.factsNow();
      const sets = Object.fromEntries(Object.values(data.tables.codeSet).map((set) => [set.id, codesOfSet(facts, set)]));
      const { study, tables } = data;
      const bytes = await this.files.writeCodebook(form, study.title, rows, { code: tables.code, codeSet: tables.codeSet }, sets);
      saveFile(`${study.title} – codebook.${form}`, bytes, TYPES[form]);
      if (this.role() === 'writer') this.session.run(noteExport(`the codebook as ${form.toUpperCase()}`));
    });
  }

  protected async choose(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    this.picked.set(file);
    await this.readFile(file, {});
  }

  protected async take(file: File | undefined): Promise<void> {
    if (!file) return;
    this.picked.set(file);
    await this.readFile(file, {});
  }

  private readFile(file: File, options: CodebookOptions): Promise<void> {
    return this.work(`Reading ${file.name}`, async () => {
      this.options = options;
      const read = await this.files.readCodebook(file.name, file, options);
      this.show({ source: file.name, ...read });
    });
  }

  protected async readList(text: string): Promise<void> {
    await this.work('Reading the list', async () => {
      const { readCodeList } = await import('@core/codebook/exchange/read-code-list');
      this.picked.set(null);
      this.show({ source: 'a list', listed: readCodeList(text), columns: null, encoding: null });
    });
  }

  private show(incoming: Incoming): void {
    this.decided.set(new Map());
    this.incoming.set(incoming);
  }

  /** Reads the file again, in another encoding, or with its first row taken otherwise. */
  protected readAgain(options: CodebookOptions): void {
    const file = this.picked();
    const { encoding } = { ...this.options, ...options };
    if (file) void this.readFile(file, { ...(encoding !== undefined && { encoding }), ...options });
  }

  protected setColumn(at: number, kind: string): void {
    const columns = this.incoming()?.columns?.taken;
    const file = this.picked();
    if (columns && file)
      void this.readFile(file, {
        ...this.options,
        named: this.incoming()!.columns!.named,
        columns: columns.map((one, row) => (row === at ? (kind as CodeColumn) : one === kind && kind !== 'ignored' ? 'ignored' : one)),
      });
  }

  protected decide(at: number, decision: string): void {
    this.decided.update((decided) => new Map(decided).set(at, decision as Decision));
  }

  protected differences(one: PlannedCode): string {
    return one.differences
      .map(
        ({ field, before, after }) =>
          `${WORDS[field]}: ${field === 'colour' ? 'another' : `${before || '(empty)'} → ${after || '(empty)'}`}`,
      )
      .join('\n');
  }

  protected bringIn(): void {
    const incoming = this.incoming();
    if (!incoming) return;
    const action = this.session.run(importCodes(incoming.listed, this.planned(), this.decisions(), incoming.source));
    if (!action) return;
    this.incoming.set(null);
    void this.router.navigate([], { queryParams: {} });
  }

  protected leave(): void {
    this.incoming.set(null);
  }

  private async work(what: string, action: () => Promise<void>): Promise<void> {
    this.trouble.set(null);
    this.busy.set(what);
    try {
      await action();
    } catch (error) {
      this.trouble.set(error instanceof Error ? error.message : String(error));
    } finally {
      this.busy.set(null);
    }
  }
}

/** What is done with a code unless the researcher decides otherwise: what is new and sure is taken, a conflict is left. */
const usual = (one: PlannedCode): Decision => (one.status === 'conflict' ? 'leave' : 'take');

const WORDS = {
  name: 'name',
  place: 'place',
  colour: 'colour',
  definition: 'definition',
  useWhen: 'use when',
  doNotUseWhen: 'do not use when',
  example: 'example',
  retired: 'use',
  notes: 'notes',
} as const;
