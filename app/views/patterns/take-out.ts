import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { noteExport } from '@core/commands/study';
import { writeCsv } from '@core/formats/csv/write-csv';
import { scopeWords } from '@core/queries/words';
import { Notices } from '../../state/notices';
import { StudySession } from '../../state/study-session';
import { selectScope, selectStudy } from '../../state/study.selectors';
import { saveFile } from '../../ui/save-file';
import { Ask } from '../../ui/dialogs/ask';
import { AskedHere } from '../../ui/sentence/asked-here';
import { pixelsOf, svgOf, type Drawn } from './picture-out';

const PICTURE_WIDTH = 1_600;
const MOST_WIDE = 10_000;

type Row = readonly (string | number)[];

export interface Sheet {
  readonly name: string;
  readonly rows: readonly Row[];
}

/** A pattern as tables that leave the study. */
export interface TableOut {
  readonly name: string;
  /** Written when they are taken out, and not before: a table can be large. The first is what is shown. */
  readonly sheets: () => readonly Sheet[];
  /** What the numbers mean, in a sentence. */
  readonly said: string;
  /** Draws it, where what is on the screen is no drawing; null where it is too large for one. */
  readonly drawing?: (() => SVGSVGElement) | null;
}

/** Takes patterns out as tables, with their settings. */
@Injectable()
export class TakeOut {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly here = inject(AskedHere);
  private readonly ask = inject(Ask);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly scope = this.store.selectSignal(selectScope);

  csv(table: TableOut): void {
    saveFile(`${this.nameOf(table)}.csv`, writeCsv(table.sheets()[0]!.rows), 'text/csv');
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
      ...table.sheets().map(({ name, rows }) => ({ name, rows, widths: [36] })),
      { name: 'Settings', rows: settings, widths: [20, 100] },
    ];
    saveFile(`${this.nameOf(table)}.xlsx`, await writeXlsx(sheets), 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet');
    this.note(table);
  }

  /** As a table that a text or a sheet takes in. */
  async copy(table: TableOut): Promise<void> {
    const clean = (cell: string): string => cell.replace(/[\t\n]/g, ' ');
    await navigator.clipboard.writeText(
      table
        .sheets()[0]!
        .rows.map((row) => row.map((cell) => clean(String(cell))).join('\t'))
        .join('\n'),
    );
    this.notices.say('The table is copied.');
  }

  /** As a picture, as wide as the researcher says. */
  async png(table: TableOut, drawn: () => Drawn): Promise<void> {
    await this.sized('As a picture in pixels', async (width) => {
      saveFile(`${this.nameOf(table)}.png`, await pixelsOf(drawn(), this.ground(), width), 'image/png');
      this.note(table);
    });
  }

  async svg(table: TableOut, drawn: () => SVGSVGElement): Promise<void> {
    await this.sized('As a drawing', (width) => {
      saveFile(`${this.nameOf(table)}.svg`, svgOf(drawn(), this.ground(), width), 'image/svg+xml');
      this.note(table);
    });
  }

  async copyPicture(drawn: () => Drawn): Promise<void> {
    const png = pixelsOf(drawn(), this.ground(), PICTURE_WIDTH);
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': png })]);
    this.notices.say('The picture is copied.');
  }

  /** Asks how wide, and takes the picture out. */
  private async sized(title: string, take: (width: number) => void | Promise<void>): Promise<void> {
    let width = PICTURE_WIDTH;
    const asked = await this.ask.keep(title, 'Width in pixels', String(PICTURE_WIDTH), 'Take it out', (typed) => {
      width = Number(typed);
      return Number.isInteger(width) && width >= 100 && width <= MOST_WIDE
        ? null
        : `Type a whole number from 100 to ${MOST_WIDE.toLocaleString()}.`;
    });
    if (asked === null) return;
    try {
      await take(width);
    } catch (error) {
      this.notices.refuse(error instanceof Error ? error.message : String(error));
    }
  }

  /** The paper of the theme: a picture looks as it does here. */
  private ground(): string {
    return getComputedStyle(document.documentElement).getPropertyValue('--surface').trim() || '#fff';
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
