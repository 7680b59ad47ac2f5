import type { CodebookRow } from '../codebook/codebook-rows';
import type { ListedCodebook } from '../codebook/exchange/listed-code';
import { readCodeList } from '../codebook/exchange/read-code-list';
import { columnsWithoutNames, guessCodeColumns, namesColumns, readCodeTable, type CodeColumn } from '../codebook/exchange/read-code-table';
import { codebookCsv, codebookTable } from '../formats/csv/codebook-csv';
import { codebookHtml } from '../formats/html-out/codebook-html';
import { decodeText } from '../formats/plain-text/encoding';
import { endingOf } from '../formats/readable-endings';
import { UnreadableFileError } from '../formats/reading';
import { readTable } from '../formats/table/read-table';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';

/** Forms in which a codebook can be taken out. */
export type CodebookForm = 'qdc' | 'xlsx' | 'csv' | 'docx' | 'html';

/** A codebook as a file names it; of a table its headings and what they are taken for as well. */
export interface CodebookRead {
  readonly listed: ListedCodebook;
  readonly columns: CodeTableColumns | null;
  /** Which encoding the file was read in; null for workbooks and the exchange standard. */
  readonly encoding: string | null;
}

/** The columns of a table of codes. */
export interface CodeTableColumns {
  readonly header: readonly string[];
  readonly taken: readonly CodeColumn[];
  /** Whether the first row names the columns. */
  readonly named: boolean;
}

/** How a file is to be read, where the guess is not right. */
export interface CodebookOptions {
  /** What a table's columns hold. */
  readonly columns?: readonly CodeColumn[];
  readonly named?: boolean;
  readonly encoding?: string;
}

/** The largest file that can be a codebook, in bytes. */
const LARGEST = 30_000_000;

/** Reads a codebook. @throws UnreadableFileError */
export async function readCodebook(name: string, file: Blob, options: CodebookOptions): Promise<CodebookRead> {
  if (file.size > LARGEST) throw new UnreadableFileError('The file is larger than 30 MB, which no codebook is.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  const ending = endingOf(name);
  if (ending === '.qdc' || ending === '.xml') {
    const { readQdc } = await import('../formats/qdc/read-qdc');
    return { listed: readQdc(bytes), columns: null, encoding: null };
  }
  if (ending === '.txt') {
    const { text, encoding } = decodeText(bytes, options.encoding);
    return { listed: readCodeList(text), columns: null, encoding };
  }
  const encoding = options.encoding === undefined ? {} : { encoding: options.encoding };
  const headed = await readTable(name, bytes, { ...encoding, headerRow: 'first' }).catch(() => null);
  const named = options.named ?? (headed !== null && namesColumns(headed.header));
  const table = named && headed ? headed : await readTable(name, bytes, { ...encoding, headerRow: named ? 'first' : null });
  const taken = options.columns ?? (named ? guessCodeColumns(table.header) : columnsWithoutNames(table.header.length));
  return { listed: readCodeTable(table, taken), columns: { header: table.header, taken, named }, encoding: table.encoding };
}

/** Writes a codebook. @param sets codes of each set, live ones as they are filled at present */
export async function writeCodebook(
  form: CodebookForm,
  title: string,
  rows: readonly CodebookRow[],
  tables: Pick<StudyState['tables'], 'code' | 'codeSet'>,
  sets: Readonly<Record<Id, readonly Id[]>>,
): Promise<Uint8Array> {
  const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
  switch (form) {
    case 'qdc': {
      const { writeQdc } = await import('../formats/qdc/write-qdc');
      return utf8(writeQdc({ tables }, (id) => sets[id] ?? []));
    }
    case 'csv':
      return utf8(codebookCsv(rows));
    case 'html':
      return utf8(codebookHtml(title, rows));
    case 'xlsx': {
      const { writeXlsx } = await import('../formats/xlsx/write-xlsx');
      return writeXlsx([{ name: 'Codebook', rows: codebookTable(rows), widths: [32, 26, 7, 7, 50, 40, 40, 40, 30, 50, 10, 12, 12, 9] }]);
    }
    case 'docx': {
      const { codebookDocx } = await import('../formats/docx-out/codebook-docx');
      return codebookDocx(title, rows);
    }
  }
}
