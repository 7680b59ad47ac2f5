import writeWorkbook from 'write-excel-file/universal';
import { forXml } from '../xml/xml-text';
import { shortened } from '../../text/shortened';

/** A sheet of a workbook: headings first. Texts are stored as texts, so that none of them can run as a formula. */
export interface SheetToWrite {
  /** At most 31 characters, without : \\ / ? * [ ] */
  readonly name: string;
  readonly rows: readonly (readonly (string | number)[])[];
  /** Widths of the columns in characters. */
  readonly widths?: readonly number[];
}

/** What a cell of a workbook has room for, in characters (ECMA-376). */
const LONGEST_CELL = 32_767;

/** Writes a workbook (Office Open XML, `.xlsx`). Longer texts than a cell has room for are cut, and end in …. */
export async function writeXlsx(sheets: readonly SheetToWrite[]): Promise<Uint8Array> {
  const file = writeWorkbook(
    sheets.map(({ name, rows, widths }) => ({
      sheet: name,
      stickyRowsCount: 1,
      ...(widths && { columns: widths.map((width) => ({ width })) }),
      data: rows.map((row, at) =>
        row.map((value) =>
          typeof value === 'number'
            ? { value, type: Number }
            : {
                value: cut(value),
                type: String,
                wrap: true,
                alignVertical: 'top' as const,
                ...(at === 0 && { fontWeight: 'bold' as const }),
              },
        ),
      ),
    })),
  );
  return new Uint8Array(await (await file.toBlob()).arrayBuffer());
}

const cut = (text: string): string => forXml(shortened(text, LONGEST_CELL));
