import readWorkbook from 'read-excel-file/universal';
import { UnreadableFileError } from '../reading';
import { unpackOffice } from '../xml/unpack-office';
import type { Sheet } from './read-ods';
import { MOST_CELLS, MOST_COLUMNS, MOST_ROWS } from './table';

/**
 * The sheets of an Excel workbook, with the values that its cells showed when it was saved.
 * @throws UnreadableFileError
 */
export async function readXlsx(bytes: Uint8Array): Promise<Sheet[]> {
  // the limits on archives are checked before the library unpacks anything
  const parts = unpackOffice(bytes, '.xlsx', (part) => part === 'xl/workbook.xml' || part === 'mimetype' || isSheet(part));
  if (!parts.has('xl/workbook.xml')) throw new UnreadableFileError('The name ends in .xlsx, but the archive holds no workbook.');
  for (const [part, xml] of parts) if (isSheet(part)) refuseFarCells(xml);
  try {
    const sheets = await readWorkbook(new Blob([bytes.slice()]));
    return sheets.map(({ sheet, data }) => ({ name: sheet, rows: data.map((row) => row.map(cellText)) }));
  } catch {
    throw new UnreadableFileError('The workbook is damaged inside. Open it in a spreadsheet, save it again and try once more.');
  }
}

const isSheet = (part: string): boolean => /^xl\/worksheets\/[^/]+\.xml$/i.test(part);

/**
 * Refuses a sheet with a value beyond what is read, or far from all others: the library would make a cell of every place
 * up to it, millions of them for one.
 */
function refuseFarCells(xml: Uint8Array): void {
  let [cells, rows, columns, far] = [0, 0, 0, ''];
  for (const [, letters = '', digits = ''] of new TextDecoder()
    .decode(xml)
    .matchAll(/<(?:\w{1,20}:)?c\s[^<>]{0,200}?\br="([A-Za-z]{1,4})(\d{1,9})"/g)) {
    const column = [...letters.toUpperCase()].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0);
    const row = Number(digits);
    cells++;
    if (row > rows || column > columns) far = `${letters}${digits}`;
    rows = Math.max(rows, row);
    columns = Math.max(columns, column);
  }
  const scattered = rows * columns > MOST_CELLS && rows * columns > cells * 50;
  if (rows > MOST_ROWS + 1 || columns > MOST_COLUMNS || scattered)
    throw new UnreadableFileError(
      `A value stands in cell ${far}, far from the others: tables of up to ${MOST_ROWS.toLocaleString('en')} rows and ${MOST_COLUMNS.toLocaleString('en')} columns are read. Delete what is out there and save the workbook again.`,
    );
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
