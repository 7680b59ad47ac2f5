import { UnreadableFileError } from '../reading';
import { unpackOffice } from '../xml/unpack-office';
import { walkXml } from '../xml/walk-xml';
import { MOST_COLUMNS, MOST_ROWS } from './table';

/** A sheet of a workbook, every cell as text. */
export interface Sheet {
  readonly name: string;
  readonly rows: readonly (readonly string[])[];
}

/**
 * Reads an OpenDocument spreadsheet (ISO/IEC 26300, `.ods`). Cells and rows that are written once and said to
 * repeat are repeated only as far as anything stands in them, so that a few bytes cannot ask for a million rows.
 * @throws UnreadableFileError
 */
export function readOds(bytes: Uint8Array): Sheet[] {
  const content = unpackOffice(bytes, '.ods', ['content.xml', 'META-INF/manifest.xml']).get('content.xml');
  if (!content) throw new UnreadableFileError('The name ends in .ods, but the archive holds no OpenDocument spreadsheet.');
  const sheets: { name: string; rows: string[][] }[] = [];
  let row: string[] = [];
  let cell: { text: string[]; value: string; repeat: number } | null = null;
  let rowRepeat = 1;
  let skipping = 0;
  let emptyRows = 0;
  const times = (raw: string | undefined): number => Math.max(1, Math.floor(Number(raw)) || 1);
  let isSpreadsheet = false;
  walkXml(
    content,
    {
      open(name, attributes) {
        if (name === 'office:spreadsheet') isSpreadsheet = true;
        if (name === 'table:table') {
          sheets.push({ name: attributes['table:name'] ?? `Sheet ${sheets.length + 1}`, rows: [] });
          emptyRows = 0;
        } else if (name === 'table:table-row') {
          row = [];
          rowRepeat = times(attributes['table:number-rows-repeated']);
        } else if (name === 'table:table-cell' || name === 'table:covered-table-cell') {
          cell = { text: [], value: valueOf(attributes), repeat: times(attributes['table:number-columns-repeated']) };
        } else if (name === 'office:annotation') skipping++;
        else if (name === 'text:p' && cell && skipping === 0) cell.text.push('');
        else if (name === 'text:s' && cell?.text.length) cell.text[cell.text.length - 1] += ' ';
        else if (name === 'text:line-break' && cell?.text.length) cell.text.push('');
      },
      text(text) {
        if (cell?.text.length && skipping === 0) cell.text[cell.text.length - 1] += text;
      },
      close(name) {
        if (name === 'office:annotation') skipping--;
        else if ((name === 'table:table-cell' || name === 'table:covered-table-cell') && cell) {
          const shown = cell.value || cell.text.join('\n');
          // a run of empty cells up to the right edge is not worth anything
          const repeat = Math.min(cell.repeat, shown ? MOST_COLUMNS + 1 : MOST_COLUMNS);
          if (shown || row.length + repeat <= MOST_COLUMNS) for (let at = 0; at < repeat; at++) row.push(shown);
          if (row.length > MOST_COLUMNS * 2)
            throw new UnreadableFileError(`A row has more than the ${MOST_COLUMNS} columns that are read.`);
          cell = null;
        } else if (name === 'table:table-row') {
          const sheet = sheets.at(-1);
          if (!sheet) return;
          if (!row.some(Boolean)) emptyRows += rowRepeat;
          else {
            for (let at = 0; at < Math.min(emptyRows, 1_000); at++) sheet.rows.push([]);
            emptyRows = 0;
            for (let at = 0; at < rowRepeat; at++) {
              if (sheet.rows.length > MOST_ROWS)
                throw new UnreadableFileError(
                  `The sheet has more than the ${MOST_ROWS.toLocaleString('en')} rows that are read. Split it.`,
                );
              sheet.rows.push(row);
            }
          }
        }
      },
    },
    'The spreadsheet',
  );
  if (!isSpreadsheet)
    throw new UnreadableFileError('This is an OpenDocument file, but not a spreadsheet. Save it as a spreadsheet (.ods).');
  return sheets;
}

/** Dates and numbers as they are stored, not as they are shown; everything else by its text. */
function valueOf(attributes: Readonly<Record<string, string>>): string {
  switch (attributes['office:value-type']) {
    case 'float':
    case 'percentage':
    case 'currency':
      return attributes['office:value'] ?? '';
    case 'date':
      return (attributes['office:date-value'] ?? '')
        .replace('T', ' ')
        .replace(/ 00:00:00(\.0+)?$/, '')
        .replace(/\.\d+$/, '');
    case 'boolean':
      return attributes['office:boolean-value'] === 'true' ? 'yes' : 'no';
    default:
      return '';
  }
}
