import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { noteExport } from '@core/commands/study';
import { writeCsv } from '@core/formats/csv/write-csv';
import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { caseFinderOf } from '@core/passages/case-finder';
import { passageOf } from '@core/passages/columns';
import { answerRows } from '@core/queries/answer-rows';
import { answerHtml, type PrintedPassage } from '@core/formats/html-out/answer-html';
import { citation, placeOf, wordsOfPlace } from '@core/text/citation';
import { codeFromAnswer, codePassages } from '@core/commands/code-passages';
import type { Hit } from '@core/queries/evaluate';
import { questionWords } from '@core/queries/words';
import { counted } from '@core/text/counted';
import { StudySession } from '../../state/study-session';
import { Notices } from '../../state/notices';
import { selectData } from '../../state/study.selectors';
import { TextCache } from '../../state/text-cache';
import { saveFile } from '../../ui/save-file';
import { Ask } from '../../ui/dialogs/ask';
import { ChooseCode, wantedCodes } from '../../ui/picker/choose-code';
import { Asking } from './asking';
import { AskedHere } from '../../ui/sentence/asked-here';

/** What is done with the passages that answer a question. */
@Injectable()
export class AnswerWork {
  private readonly session = inject(StudySession);
  private readonly dialog = inject(MatDialog);
  private readonly ask = inject(Ask);
  private readonly texts = inject(TextCache);
  private readonly notices = inject(Notices);
  private readonly data = inject(Store).selectSignal(selectData);
  private readonly asking = inject(Asking);
  private readonly here = inject(AskedHere);

  /** Gives passages a code. @returns whether it was done */
  async code(hits: readonly Hit[]): Promise<boolean> {
    const chosen = await ChooseCode.open(this.dialog, { title: `Give ${counted(hits.length, 'passage')} the code…`, mayMake: true });
    const wanted = wantedCodes(chosen);
    return wanted !== null && this.session.run(codePassages(hits, wanted)) !== null;
  }

  /** Takes an answer out as a table. */
  async takeOut(hits: readonly Hit[], form: 'csv' | 'xlsx' | 'html' | 'docx'): Promise<void> {
    const data = this.data();
    if (!data) return;
    const texts = await this.textsOf(hits);
    const rows = answerRows(data, hits, caseFinderOf(data.tables.case), (id) => texts.get(id) ?? null);
    const name = `${data.study.title} – ${this.asking.kept()?.name ?? 'passages'}`;
    const asked = `passages that ${questionWords(this.asking.question(), this.here.names())}`;
    if (form === 'html') saveFile(`${name}.html`, answerHtml(name, asked, this.printed(hits, texts)), 'text/html');
    else if (form === 'docx') {
      const { answerDocx } = await import('@core/formats/docx-out/answer-docx');
      const type = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
      saveFile(`${name}.docx`, await answerDocx(name, asked, this.printed(hits, texts)), type);
    } else if (form === 'csv') saveFile(`${name}.csv`, writeCsv(rows), 'text/csv');
    else {
      const { writeXlsx } = await import('@core/formats/xlsx/write-xlsx');
      const question: [string, string][] = [
        ['what was asked', asked],
        ['passages', String(hits.length)],
      ];
      const sheets = [
        { name: 'Passages', rows, widths: [30, 20, 16, 14, 80, 30, 16, 40] },
        { name: 'Question', rows: question, widths: [20, 100] },
      ];
      saveFile(`${name}.xlsx`, await writeXlsx(sheets), 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet');
    }
    this.session.run(noteExport(`${counted(hits.length, 'passage')} that answer a query`));
  }

  private printed(hits: readonly Hit[], texts: ReadonlyMap<Id, Text>): PrintedPassage[] {
    const data = this.data()!;
    return hits.flatMap(({ documentId, passageId }) => {
      const document = data.tables.document[documentId];
      const passage = passageOf(data.passages[documentId], passageId);
      if (!document || !passage) return [];
      const text = texts.get(documentId) ?? null;
      const { speaker, position } = placeOf(document, text, passage);
      return {
        document: document.title,
        where: [speaker, position].filter(Boolean).join(', '),
        words: text?.text.slice(passage.start, passage.end) ?? '',
        codes: [...new Set(passage.codings.map(({ codeId }) => data.tables.code[codeId]?.name ?? ''))],
        comment: passage.comment,
      };
    });
  }

  /** Copies passages one under the other: with their citations, with their codes as well, or their words alone. */
  async copy(hits: readonly Hit[], form: 'cited' | 'with codes' | 'words' = 'cited'): Promise<void> {
    const data = this.data();
    const texts = await this.textsOf(hits);
    const cited = hits.flatMap((hit) => {
      const document = data?.tables.document[hit.documentId];
      const passage = passageOf(data?.passages[hit.documentId], hit.passageId);
      if (!document || !passage) return [];
      const text = texts.get(hit.documentId) ?? null;
      if (form === 'words') return wordsOfPlace(text, passage) || [];
      const codes = [...new Set(passage.codings.map(({ codeId }) => data?.tables.code[codeId]?.name ?? ''))].join(', ');
      return citation(document, text, passage) + (form === 'with codes' && codes ? ` [${codes}]` : '');
    });
    await navigator.clipboard.writeText(cited.join('\n\n'));
    this.notices.say(`Copied ${counted(cited.length, 'passage')}${form === 'words' ? '' : ' with citations'}.`);
  }

  /** Texts of the documents that hits are in. */
  async textsOf(hits: readonly Hit[]): Promise<ReadonlyMap<Id, Text>> {
    const texts = new Map<Id, Text>();
    for (const id of new Set(hits.map((hit) => hit.documentId))) {
      const text = await this.texts.get(id);
      if (text) texts.set(id, text);
    }
    return texts;
  }

  /** Makes a code of all that answers. */
  async makeCode(): Promise<void> {
    const hits = this.asking.shown()?.hits ?? [];
    const words = questionWords(this.asking.question(), this.here.names());
    const name = this.asking.kept()?.name ?? words;
    await this.ask.keep(
      'Make a code of the answer',
      'Name of the code',
      name.slice(0, 200),
      `Code ${counted(hits.length, 'passage')}`,
      (typed) => this.session.attempt(codeFromAnswer(typed, words, hits)).refused,
    );
  }
}
