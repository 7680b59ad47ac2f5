import { writeCsv } from '../formats/csv/write-csv';

/** A line of the log as it is taken out. */
export interface LogRow {
  readonly day: string;
  /** ms since 1970. */
  readonly at: number;
  readonly coder: string;
  readonly kind: string;
  readonly text: string;
  readonly tags: string;
}

/** Writes the log, the oldest first, as the audit trail for an appendix. */
export async function writeLog(form: 'docx' | 'csv', title: string, rows: readonly LogRow[]): Promise<Uint8Array> {
  if (form === 'csv') {
    const table = rows.map((row) => [row.day, new Date(row.at).toISOString(), row.coder, row.kind, row.text, row.tags]);
    return new TextEncoder().encode(writeCsv([['day', 'time', 'coder', 'kind', 'what', 'tags'], ...table]));
  }
  const { logDocx } = await import('../formats/docx-out/log-docx');
  return logDocx(title, rows);
}
