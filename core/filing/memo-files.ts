import { writeCsv } from '../formats/csv/write-csv';
import { safe } from '../formats/html-out/escape';
import { decodeText } from '../formats/plain-text/encoding';
import { endingOf } from '../formats/readable-endings';
import { UnreadableFileError } from '../formats/reading';
import { readTable } from '../formats/table/read-table';
import type { ListedMemo } from '../memos/exchange/listed-memo';
import { memosFromMarkdown, memosMarkdown } from '../memos/exchange/memo-markdown';
import { memosFromTable, memoTable } from '../memos/exchange/memo-table';
import type { Memo } from '../model/memo';
import type { StudyState } from '../model/study-state';

/** Forms in which memos can be taken out. */
export type MemoForm = 'docx' | 'md' | 'html' | 'xlsx' | 'csv';

/** The largest file of memos, in bytes. */
const LARGEST = 50_000_000;

/** Reads memos from a table or a Markdown file. @throws UnreadableFileError, RangeError */
export async function readMemos(name: string, file: Blob): Promise<ListedMemo[]> {
  if (file.size > LARGEST) throw new UnreadableFileError('The file is larger than 50 MB. Split it and bring in the parts.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (['.md', '.txt'].includes(endingOf(name))) {
    const { text } = decodeText(bytes);
    if (!text.trim()) throw new UnreadableFileError('The file is empty.');
    return memosFromMarkdown(name, text, file instanceof File ? file.lastModified : null);
  }
  return memosFromTable(await readTable(name, bytes, { headerRow: 'first' }), name);
}

/** Writes memos in their order. */
export async function writeMemos(
  form: MemoForm,
  title: string,
  memos: readonly Memo[],
  state: Pick<StudyState, 'tables' | 'passages'>,
): Promise<Uint8Array> {
  const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
  switch (form) {
    case 'md':
      return utf8(memosMarkdown(state, memos));
    case 'csv':
      return utf8(writeCsv(memoTable(state, memos)));
    case 'html': {
      const { memoHtml } = await import('../memos/memo-html');
      return utf8(
        `<!doctype html><html lang="und"><head><meta charset="utf-8"><title>${safe(title)}: memos</title><style>body{font:16px/1.6 serif;max-width:44em;margin:2em auto;padding:0 1em}h1{font-size:1.25em;margin-top:2em}h2{font-size:1em;color:#555}blockquote{border-left:2px solid #ccc;margin-left:0;padding-left:1em}</style></head><body>${memoHtml(memosMarkdown(state, memos), (_, words) => ({ words, gone: false })).replace(/<a href="#filum:[^"]*">([\s\S]*?)<\/a>/g, '$1')}</body></html>`,
      );
    }
    case 'xlsx': {
      const { writeXlsx } = await import('../formats/xlsx/write-xlsx');
      return writeXlsx([{ name: 'Memos', rows: memoTable(state, memos), widths: [34, 14, 18, 26, 10, 22, 14, 22, 90, 12, 20, 8] }]);
    }
    case 'docx': {
      const { memosDocx } = await import('../formats/docx-out/memos-docx');
      return memosDocx(title, state, memos);
    }
  }
}
