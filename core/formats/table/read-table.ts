import Papa from 'papaparse';
import { counted } from '../../text/counted';
import { normaliseText, tidyLine } from '../../text/normalise';
import { decodeText } from '../plain-text/encoding';
import { LARGEST_FILE } from '../read-file';
import { endingOf, TABLE_ENDINGS } from '../readable-endings';
import { UnreadableFileError } from '../reading';
import { MOST_CELLS, MOST_COLUMNS, MOST_ROWS, type ShownRow, type Table, type TableOptions } from './table';
import { shortened } from '../../text/shortened';

/**
 * Reads a table: comma- or tab-separated text (RFC 4180, delimiter and encoding detected), Excel (`.xlsx`) or
 * OpenDocument (`.ods`). Formulas come in as the values they had when the file was saved.
 * @throws UnreadableFileError naming what is wrong, with the row where there is one
 */
export async function readTable(name: string, bytes: Uint8Array, options: TableOptions = {}): Promise<Table> {
  if (bytes.length === 0) throw new UnreadableFileError('The file is empty.');
  if (bytes.length > LARGEST_FILE) throw new UnreadableFileError('The file is larger than 100 MB. Split it and bring in the parts.');
  const ending = endingOf(name);
  if (ending === '.xlsx' || ending === '.ods') {
    // what reads workbooks is loaded where there is one
    const sheets = ending === '.xlsx' ? await (await import('./read-xlsx')).readXlsx(bytes) : (await import('./read-ods')).readOds(bytes);
    const sheet = sheets.find((one) => one.name === options.sheet) ?? sheets.find((one) => one.rows.length > 0) ?? sheets[0];
    if (!sheet) throw new UnreadableFileError('The workbook holds no sheets.');
    return tidy(
      sheet.rows,
      { sheets: sheets.map((one) => one.name), sheet: sheet.name, encoding: null, encodings: [], delimiter: null },
      options,
    );
  }
  if (ending !== '' && !(TABLE_ENDINGS as readonly string[]).includes(ending))
    throw new UnreadableFileError(`Files ending in ${ending} cannot be read as tables. These can: ${TABLE_ENDINGS.join(', ')}.`);
  return readDelimited(bytes, options);
}

function readDelimited(bytes: Uint8Array, options: TableOptions): Table {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b)
    throw new UnreadableFileError('The name says it is text, but this is a workbook or an archive. Give it its right ending.');
  const { text, encoding, guesses } = decodeText(bytes, options.encoding);
  const words = text.replace(/^\uFEFF/, '');
  // what divides the cells is told by rows that are not empty; those that are count as rows of the file
  const { delimiter } = Papa.parse<string[]>(words, {
    delimiter: options.delimiter ?? '',
    delimitersToGuess: [',', ';', '\t', '|'],
    skipEmptyLines: 'greedy',
    preview: 50,
  }).meta;
  const result = Papa.parse<string[]>(words, { delimiter });
  const broken = result.errors.find((error) => error.type === 'Quotes');
  if (broken)
    throw new UnreadableFileError(
      `Row ${(broken.row ?? 0) + 1} has a quotation mark that is opened and not closed, or the other way round. Mend that row, or choose another delimiter.`,
    );
  // the line end after the last row begins no other
  if (result.data.at(-1)?.join('') === '') result.data.pop();
  return tidy(result.data, { sheets: ['table'], sheet: 'table', encoding, encodings: guesses, delimiter }, options);
}

function tidy(
  raw: readonly (readonly string[])[],
  about: Pick<Table, 'sheets' | 'sheet' | 'encoding' | 'encodings' | 'delimiter'>,
  options: TableOptions,
): Table {
  if (raw.length > MOST_ROWS + 1)
    throw new UnreadableFileError(
      `The table has ${raw.length.toLocaleString('en')} rows, more than the ${MOST_ROWS.toLocaleString('en')} that are read. Split it.`,
    );
  let cells = 0;
  for (const row of raw) cells += row.length;
  if (cells > MOST_CELLS)
    throw new UnreadableFileError(
      `The table has ${cells.toLocaleString('en')} cells, more than the ${MOST_CELLS.toLocaleString('en')} that are read. Split it, or delete columns that are not needed.`,
    );
  const filled = raw
    .map((row, at) => ({ row: row.map((cell) => normaliseText(cell).trim()), number: at + 1 }))
    .filter(({ row }) => row.some(Boolean));
  if (filled.length === 0) throw new UnreadableFileError('The table is empty.');
  const at = headerAt(filled, options.headerRow);
  const body = filled.slice(at + 1);
  const width = filled.slice(Math.max(0, at)).reduce((most, { row }) => Math.max(most, row.findLastIndex(Boolean) + 1), 0);
  if (width > MOST_COLUMNS) throw new UnreadableFileError(`The table has ${width} columns, more than the ${MOST_COLUMNS} that are read.`);
  const names = filled[at]?.row ?? [];
  const header = uniqueNames(Array.from({ length: width }, (_, column) => tidyLine(names[column] ?? '') || `Column ${column + 1}`));
  if (body.length === 0) throw new UnreadableFileError('The table has a header and no rows under it.');
  const notes: string[] = [];
  const ragged = body.filter(({ row }) => row.findLastIndex(Boolean) >= (at >= 0 ? names.length : width)).length;
  if (ragged > 0) notes.push(`${ragged} ${ragged === 1 ? 'row has' : 'rows have'} more cells than the header`);
  if (raw.length > filled.length) notes.push(`${counted(raw.length - filled.length, 'empty row')} left out`);
  return {
    ...about,
    header,
    rows: body.map(({ row }) => Array.from({ length: width }, (_, column) => row[column] ?? '')),
    rowNumbers: body.map(({ number }) => number),
    headerRow: filled[at]?.number ?? null,
    above: filled.slice(0, Math.min(SHOWN, Math.max(0, at))).map(shownRow),
    heads: filled.slice(0, SHOWN).map(shownRow),
    notes,
  };
}

/** A row that is not empty, with its place in the file. */
interface FilledRow {
  readonly row: readonly string[];
  readonly number: number;
}

/** Rows that are shown to choose the names of columns from. */
const SHOWN = 40;
/** A row is full enough to name the columns from this share of the cells that rows usually have. */
const FULL = 0.6;
/** A title and notes take no more rows than this. */
const MOST_ABOVE = 30;

const shownRow = ({ row, number }: FilledRow): ShownRow => ({
  number,
  words: row
    .filter(Boolean)
    .map((cell) => shortened(cell, 40))
    .join(' · ')
    .slice(0, 200),
});

/**
 * Where the row stands that names the columns: the first that is as full as the rows of the table are, if it looks like
 * a header; a title and notes above fill a cell or two.
 * @returns its place among the filled rows, or -1 where none names them
 */
function headerAt(filled: readonly FilledRow[], chosen: TableOptions['headerRow']): number {
  if (chosen === null) return -1;
  if (chosen === 'first') return 0;
  if (chosen !== undefined) return filled.findIndex(({ number }) => number === chosen);
  const full = ({ row }: FilledRow): number => row.filter(Boolean).length;
  const sizes = filled
    .slice(0, 200)
    .map(full)
    .sort((a, b) => a - b);
  const usual = sizes[Math.floor(sizes.length / 2)]!;
  const first = filled.slice(0, MOST_ABOVE).findIndex((row) => full(row) >= usual * FULL);
  const at = Math.max(0, first);
  return looksLikeHeader(filled.slice(at).map(({ row }) => row)) ? at : -1;
}

/** The first row is a header if its cells are filled, are no numbers or dates, and mostly do not recur below. */
function looksLikeHeader(rows: readonly (readonly string[])[]): boolean {
  const [first = [], ...rest] = rows;
  const cells = first.filter(Boolean);
  if (rest.length === 0 || cells.length < Math.max(1, first.length - 1)) return false;
  if (cells.some((cell) => /^[-+]?[\d.,:/ -]+$/.test(cell))) return false;
  const recurring = first.filter((cell, at) => cell && rest.slice(0, 200).some((row) => row[at] === cell)).length;
  return recurring * 3 <= cells.length;
}

function uniqueNames(names: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((name) => {
    const count = (seen.get(name) ?? 0) + 1;
    seen.set(name, count);
    return count === 1 ? name : `${name} (${count})`;
  });
}
