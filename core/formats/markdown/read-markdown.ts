import { marked } from 'marked';
import { normaliseText } from '../../text/normalise';
import { readHtml } from '../html/read-html';
import { UnreadableFileError, type Reading } from '../reading';

/** A hundred signs of quotations and lists, one within the other. */
const DEEP = /^[ \t]{0,20}(?:(?:>|[-*+]|\d{1,9}[.)])[ \t]{0,20}){100}/;

/**
 * Reads Markdown (CommonMark with tables): headings, lists, quotations, bold and italics become formatting,
 * the signs that mark them leave the text.
 * @throws UnreadableFileError for an empty text
 */
export function readMarkdown(raw: string): Reading {
  const text = normaliseText(raw);
  if (!text.trim()) throw new UnreadableFileError('The file is empty.');
  const line = text.split('\n').findIndex((one) => DEEP.test(one));
  if (line >= 0)
    throw new UnreadableFileError(`Line ${line + 1} is nested deeper than any real text. Take some of the signs at its beginning out.`);
  return readHtml(marked.parse(text, { async: false, gfm: true }));
}
