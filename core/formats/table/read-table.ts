import Papa from 'papaparse';
import readWorkbook from 'read-excel-file/universal';
import { normaliseText, tidyLine } from '../../text/normalise';
import { decodeText } from '../plain-text/encoding';
import { LARGEST_FILE } from '../read-file';
import { endingOf, TABLE_ENDINGS } from '../readable-endings';
import { UnreadableFileError } from '../reading';
import { unpackOffice } from '../xml/unpack-office';
import { readOds, type Sheet } from './read-ods';
import { MOST_COLUMNS, MOST_ROWS, type Table, type TableOptions } from './table';

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
    const sheets = ending === '.xlsx' ? await readXlsx(bytes) : readOds(bytes);
    const sheet = sheets.find((one) => one.name === options.sheet) ?? sheets.find((one) => one.rows.length > 0) ?? sheets[0];
    if (!sheet) throw new UnreadableFileError('The workbook holds no sheets.');
    return tidy(sheet.rows, { sheets: sheets.map((one) => one.name), sheet: sheet.name, encoding: null, delimiter: null }, options);
  }
  if (ending !== '' && !(TABLE_ENDINGS as readonly string[]).includes(ending))
    throw new UnreadableFileError(`Files ending in ${ending} cannot be read as tables. These can: ${TABLE_ENDINGS.join(', ')}.`);
  return readDelimited(bytes, options);
}

function readDelimited(bytes: Uint8Array, options: TableOptions): Table {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b)
    throw new UnreadableFileError('The name says it is text, but this is a workbook or an archive. Give it its right ending.');
  const { text, encoding } = decodeText(bytes, options.encoding);
  const result = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    delimiter: options.delimiter ?? '',
    delimitersToGuess: [',', ';', '\t', '|'],
    skipEmptyLines: 'greedy',
  });
  const broken = result.errors.find((error) => error.type === 'Quotes');
  if (broken)
    throw new UnreadableFileError(
      `Row ${(broken.row ?? 0) + 1} has a quotation mark that is opened and not closed, or the other way round. Mend that row, or choose another delimiter.`,
    );
  return tidy(result.data, { sheets: ['table'], sheet: 'table', encoding, delimiter: result.meta.delimiter }, options);
}

async function readXlsx(bytes: Uint8Array): Promise<Sheet[]> {
  // the limits on archives are checked before the library unpacks anything
  const parts = unpackOffice(bytes, '.xlsx', ['xl/workbook.xml', 'mimetype']);
  if (!parts.has('xl/workbook.xml')) throw new UnreadableFileError('The name ends in .xlsx, but the archive holds no workbook.');
  try {
    const sheets = await readWorkbook(new Blob([bytes.slice()]));
    return sheets.map(({ sheet, data }) => ({ name: sheet, rows: data.map((row) => row.map(cellText)) }));
  } catch (error) {
    throw new UnreadableFileError(
      `The workbook is damaged inside (${error instanceof Error ? error.message : String(error)}). Open it in a spreadsheet, save it again and try once more.`,
    );
  }
}

/** What a cell shows: days without a time where it is midnight, yes and no, numbers as they are. */
function cellText(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) {
    // spreadsheets count in fractions of a day, which are off by a millisecond at times
    const whole = new Date(Math.round(value.getTime() / 1000) * 1000).toISOString();
    return whole.endsWith('T00:00:00.000Z') ? whole.slice(0, 10) : whole.slice(0, 19).replace('T', ' ');
  }
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
}

function tidy(
  raw: readonly (readonly string[])[],
  about: Pick<Table, 'sheets' | 'sheet' | 'encoding' | 'delimiter'>,
  options: TableOptions,
): Table {
  if (raw.length > MOST_ROWS + 1)
    throw new UnreadableFileError(
      `The table has ${raw.length.toLocaleString('en')} rows, more than the ${MOST_ROWS.toLocaleString('en')} that are read. Split it.`,
    );
  const filled = raw
    .map((row, at) => ({ row: row.map((cell) => normaliseText(cell).trim()), number: at + 1 }))
    .filter(({ row }) => row.some(Boolean));
  const width = filled.reduce((most, { row }) => Math.max(most, row.findLastIndex(Boolean) + 1), 0);
  if (width === 0) throw new UnreadableFileError('The table is empty.');
  if (width > MOST_COLUMNS) throw new UnreadableFileError(`The table has ${width} columns, more than the ${MOST_COLUMNS} that are read.`);
  const hasHeader = options.hasHeader ?? looksLikeHeader(filled.map(({ row }) => row));
  const names = hasHeader ? filled[0]!.row : [];
  const header = uniqueNames(Array.from({ length: width }, (_, at) => tidyLine(names[at] ?? '') || `Column ${at + 1}`));
  const body = hasHeader ? filled.slice(1) : filled;
  if (body.length === 0) throw new UnreadableFileError('The table has a header and no rows under it.');
  const notes: string[] = [];
  const ragged = body.filter(({ row }) => row.findLastIndex(Boolean) >= (hasHeader ? names.length : width)).length;
  if (ragged > 0) notes.push(`${ragged} ${ragged === 1 ? 'row has' : 'rows have'} more cells than the header`);
  if (raw.length > filled.length) notes.push(`${raw.length - filled.length} empty rows left out`);
  return {
    ...about,
    header,
    rows: body.map(({ row }) => Array.from({ length: width }, (_, at) => row[at] ?? '')),
    rowNumbers: body.map(({ number }) => number),
    hasHeader,
    notes,
  };
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
