import { marked } from 'marked';
import { normaliseText } from '../../text/normalise';
import { readHtml } from '../html/read-html';
import { UnreadableFileError, type Reading } from '../reading';

/**
 * Reads Markdown (CommonMark with tables): headings, lists, quotations, bold and italics become formatting,
 * the signs that mark them leave the text.
 * @throws UnreadableFileError for an empty text
 */
export function readMarkdown(raw: string): Reading {
  const text = normaliseText(raw);
  if (!text.trim()) throw new UnreadableFileError('The file is empty.');
  return readHtml(marked.parse(text, { async: false, gfm: true }));
}
