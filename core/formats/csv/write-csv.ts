import { guarded } from './formula-guard';
import Papa from 'papaparse';

/**
 * Writes a table as CSV (RFC 4180: comma, CRLF, quotes doubled) with a byte order mark, so that spreadsheets
 * read it as UTF-8. A text that a spreadsheet could take for a formula gets a leading apostrophe; numbers
 * stay numbers.
 * @param rows the first row holds the headings
 */
export function writeCsv(rows: readonly (readonly (string | number | null)[])[]): string {
  const safe = rows.map((row) => row.map((cell) => (typeof cell === 'string' ? guarded(cell) : cell)));
  return `\uFEFF${Papa.unparse(safe as unknown[][], { newline: '\r\n' })}\r\n`;
}
