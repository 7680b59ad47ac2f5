import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { noteExport } from '@core/commands/study';
import { writeCsv } from '@core/formats/csv/write-csv';
import { scopeWords } from '@core/queries/words';
import { Notices } from '../../state/notices';
import { StudySession } from '../../state/study-session';
import { selectScope, selectStudy } from '../../state/study.selectors';
import { saveFile } from '../../ui/save-file';
import { AskedHere } from '../../ui/sentence/asked-here';

type Row = readonly (string | number)[];

/** A pattern as tables that leave the study. */
export interface TableOut {
  readonly name: string;
  /** The first is what is shown. */
  readonly sheets: readonly { readonly name: string; readonly rows: readonly Row[] }[];
  /** What the numbers mean, in a sentence. */
  readonly said: string;
}

/** Takes patterns out as tables, with their settings. */
@Injectable()
export class TakeOut {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly here = inject(AskedHere);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly scope = this.store.selectSignal(selectScope);

  csv(table: TableOut): void {
    saveFile(`${this.nameOf(table)}.csv`, writeCsv(table.sheets[0]!.rows), 'text/csv');
    this.note(table);
  }

  async xlsx(table: TableOut): Promise<void> {
    const { writeXlsx } = await import('@core/formats/xlsx/write-xlsx');
    const settings: string[][] = [
      ['pattern', table.name],
      ['what it says', table.said],
      ['looking at', this.scopeWords()],
    ];
    const sheets = [
      ...table.sheets.map(({ name, rows }) => ({ name, rows, widths: [36] })),
      { name: 'Settings', rows: settings, widths: [20, 100] },
    ];
    saveFile(`${this.nameOf(table)}.xlsx`, await writeXlsx(sheets), 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet');
    this.note(table);
  }

  /** As a table that a text or a sheet takes in. */
  async copy(table: TableOut): Promise<void> {
    const clean = (cell: string): string => cell.replace(/[\t\n]/g, ' ');
    await navigator.clipboard.writeText(table.sheets[0]!.rows.map((row) => row.map((cell) => clean(String(cell))).join('\t')).join('\n'));
    this.notices.say('The table is copied.');
  }

  /** A line of method for a paper. */
  async copyMethod(table: TableOut): Promise<void> {
    await navigator.clipboard.writeText(`${table.name}. ${table.said} Looked at: ${this.scopeWords()}. Counted with Filum.`);
    this.notices.say('A line on how this was counted is copied.');
  }

  private scopeWords(): string {
    return scopeWords(this.scope(), this.here.names());
  }

  private nameOf({ name }: TableOut): string {
    return `${this.study()?.title ?? 'Study'} – ${name}`;
  }

  private note({ name }: TableOut): void {
    this.session.run(noteExport(`the pattern ${name}`));
  }
}
