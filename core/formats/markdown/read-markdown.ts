import { marked } from 'marked';
import { parseValue } from '../../attributes/values';
import { counted } from '../../text/counted';
import { normaliseText } from '../../text/normalise';
import { readHtml } from '../html/read-html';
import { UnreadableFileError, type Reading } from '../reading';
import { frontMatter } from './front-matter';

/** A hundred signs of quotations and lists, one within the other. */
const DEEP = /^[ \t]{0,20}(?:(?:>|[-*+]|\d{1,9}[.)])[ \t]{0,20}){100}/;

/**
 * Reads Markdown (CommonMark with tables): headings, lists, quotations, bold and italics become formatting, the signs that
 * mark them leave the text. Fields at its head are facts and no text.
 * @throws UnreadableFileError for an empty text
 */
export function readMarkdown(raw: string): Reading {
  const text = normaliseText(raw);
  if (!text.trim()) throw new UnreadableFileError('The file is empty.');
  const line = text.split('\n').findIndex((one) => DEEP.test(one));
  if (line >= 0)
    throw new UnreadableFileError(`Line ${line + 1} is nested deeper than any real text. Take some of the signs at its beginning out.`);
  const { facts, rest, broken } = frontMatter(text);
  const fact = (name: string): string | undefined => facts.find((one) => one.name.toLowerCase() === name)?.value;
  const title = fact('title');
  const day = parseValue(fact('date') ?? '', 'date');
  const { signs, unmarked } = tamed(rest);
  const reading = readHtml(marked.parse(signs, { async: false, gfm: true }));
  return {
    ...reading,
    title: title ?? reading.title,
    ...(typeof day === 'string' ? { date: day } : {}),
    facts: facts.filter(({ name }) => !['title', ...(typeof day === 'string' ? ['date'] : [])].includes(name.toLowerCase())),
    notes: [
      ...reading.notes,
      ...(broken ? ['the fields at the head of the file are not written as they should be, and stay in the text'] : []),
      ...(unmarked > 0
        ? [`${counted(unmarked, 'paragraph')} of more signs than words are read as ${unmarked === 1 ? 'it is' : 'they are'} written`]
        : []),
    ],
  };
}

/** More signs of emphasis and links in one paragraph than anybody writes: finding their partners would take endlessly. */
const MOST_SIGNS = 3_000;

/** Paragraphs of endless signs are taken as they are written. */
function tamed(text: string): { signs: string; unmarked: number } {
  let unmarked = 0;
  const signs = text
    .split(/(\n[ \t]*\n)/)
    .map((block) => {
      if ((block.match(/[*_[\]`<~]/g)?.length ?? 0) <= MOST_SIGNS) return block;
      unmarked++;
      return block.replace(/[\\*_[\]`<~]/g, (sign) => `\\${sign}`);
    })
    .join('');
  return { signs, unmarked };
}
