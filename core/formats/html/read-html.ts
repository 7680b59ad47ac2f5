import { Parser } from 'htmlparser2';
import { normaliseText, tidyLine } from '../../text/normalise';
import type { DraftParagraph } from '../../text/draft-text';
import type { EmphasisSpan, Paragraph } from '../../model/document';
import { ParagraphCollector } from '../paragraph-collector';
import { counted } from '../../text/counted';
import { UnreadableFileError, type Reading } from '../reading';
import { hiddenBySheets, isHidden } from './hidden';

const EMPHASIS: Readonly<Record<string, EmphasisSpan['emphasis']>> = {
  b: 'bold',
  strong: 'bold',
  i: 'italic',
  em: 'italic',
  cite: 'italic',
  u: 'underline',
  s: 'strike',
  strike: 'strike',
  del: 'strike',
};
const STYLES: Readonly<Record<string, Paragraph['style']>> = {
  h1: 'heading1',
  h2: 'heading2',
  h3: 'heading3',
  h4: 'heading3',
  h5: 'heading3',
  h6: 'heading3',
  li: 'list item',
  blockquote: 'quotation',
};
const BLOCKS = new Set(
  'p div section article header footer main aside ul ol table tr td th pre figure figcaption dl dt dd hr body form fieldset address'.split(
    ' ',
  ),
);
for (const name of Object.keys(STYLES)) BLOCKS.add(name);
const SKIPPED = new Set(['script', 'style', 'head', 'template', 'noscript', 'svg', 'math', 'object', 'iframe', 'nav', 'select', 'button']);
/** Elements within elements; pages that forget to close theirs have hundreds. */
const DEEPEST = 3_000;
/** Where a saved page keeps what is not its content. */
const AROUND = new Set(['header', 'footer', 'aside', 'form']);

/**
 * Reads the words of HTML with the formatting that carries meaning. Nothing in it is run or fetched: the tags
 * are only looked at; what is not text, and what the page hides, is left out. A row of a table is one paragraph, its cells divided by tabs.
 * @param pageOnly keeps what a saved web page marks as its content, and leaves out what stands around it
 */
export function readHtml(html: string, pageOnly = false): Reading {
  const collector = new ParagraphCollector();
  const places: boolean[] = [];
  const around: boolean[] = [];
  const open: string[] = [];
  const sheet = hiddenBySheets(html);
  /** How many elements were open when the hidden one opened within which the parser is. */
  let hiddenAt = Infinity;
  let hidden = 0;
  /** Whether the present hidden element was counted. */
  let told = false;
  /** How often each element is open, and those that give a look, in their order: depth costs nothing. */
  const counts = new Map<string, number>();
  const looks: string[] = [];
  let skipping = 0;
  let pictures = 0;
  let title = '';
  let cellBegins = false;
  let lineEnds = false;
  const inside = (name: string): boolean => (counts.get(name) ?? 0) > 0;
  const end = (): void => {
    const before = collector.paragraphs.length;
    collector.endParagraph();
    if (collector.paragraphs.length === before) return;
    places.push(inside('main') || inside('article'));
    around.push([...AROUND].some(inside) && !inside('article'));
  };
  const count = (name: string, by: 1 | -1): void => {
    counts.set(name, (counts.get(name) ?? 0) + by);
    if (Object.hasOwn(EMPHASIS, name))
      collector.emphasis = new Set(Object.keys(EMPHASIS).flatMap((one) => (inside(one) ? [EMPHASIS[one]!] : [])));
    if (!Object.hasOwn(STYLES, name)) return;
    if (by === 1) looks.push(name);
    else looks.splice(looks.lastIndexOf(name), 1);
    collector.style = STYLES[looks.at(-1) ?? ''] ?? 'body';
  };
  const border = (name: string): void => {
    if (!BLOCKS.has(name)) return;
    if (!inside('tr') || name === 'tr') {
      end();
      cellBegins = lineEnds = false;
    } else if (name === 'td' || name === 'th') cellBegins = !collector.isEmpty;
    else lineEnds = !collector.isEmpty;
  };
  const parser = new Parser({
    onopentag(name, attributes) {
      const role = attributes['title'];
      const shown = hiddenAt === Infinity;
      const hides = shown && isHidden(name, attributes, sheet);
      // what is hidden divides nothing that is seen
      if (shown && !hides) border(name);
      // office programs write the header and footer of printed pages as divisions of that title
      const as = name === 'div' && (role === 'header' || role === 'footer') ? role : name;
      if (open.push(as) > DEEPEST)
        throw new UnreadableFileError('The page is nested deeper than any real page. Save its text in another format.');
      count(as, 1);
      if (hides) [hiddenAt, told] = [open.length, false];
      if (SKIPPED.has(name)) skipping++;
      if (hiddenAt < Infinity) return;
      if (name === 'br') end();
      if (name === 'img') pictures++;
    },
    ontext(text) {
      if (open.at(-1) === 'title' && inside('head')) title += text;
      if (skipping > 0) return;
      if (hiddenAt < Infinity) {
        if (text.trim() && !told) hidden++;
        told ||= text.trim() !== '';
        return;
      }
      if (text.trim() && (cellBegins || lineEnds)) {
        if (cellBegins) collector.tab();
        else end();
        cellBegins = lineEnds = false;
      }
      collector.add(text, inside('pre'));
    },
    onclosetag(name) {
      if (hiddenAt === Infinity) border(name);
      const at = open.findLastIndex((one) => one === name || (name === 'div' && AROUND.has(one)));
      if (at >= 0) for (const closed of open.splice(at, 1)) count(closed, -1);
      if (open.length < hiddenAt) hiddenAt = Infinity;
      if (SKIPPED.has(name)) skipping--;
    },
  });
  parser.write(normaliseText(html));
  parser.end();
  end();
  const { kept, left } = pageOnly ? contentOf(collector.paragraphs, places, around) : { kept: collector.paragraphs, left: 0 };
  const first = kept[0];
  const notes = [
    ...(pictures > 0 ? [`${pictures} ${pictures === 1 ? 'picture' : 'pictures'} left out`] : []),
    ...(hidden > 0 ? [`${counted(hidden, 'part')} that the page hides left out`] : []),
    ...(left > 0 ? [`${left} ${left === 1 ? 'paragraph' : 'paragraphs'} around the content left out (menus, headers, footers)`] : []),
  ];
  return { title: first?.style === 'heading1' ? tidyLine(first.text) : tidyLine(title) || null, paragraphs: kept, notes };
}

/** The part marked as content, if it holds a good part of the words; else all but headers, footers and forms. */
function contentOf(paragraphs: readonly DraftParagraph[], places: readonly boolean[], around: readonly boolean[]) {
  const length = (some: readonly DraftParagraph[]): number => some.reduce((sum, { text }) => sum + text.length, 0);
  const marked = paragraphs.filter((_, at) => places[at]);
  const outside = paragraphs.filter((_, at) => !around[at]);
  const kept = length(marked) * 3 > length(paragraphs) ? marked : outside.length > 0 ? outside : paragraphs;
  return { kept, left: paragraphs.length - kept.length };
}

/** The encoding that an HTML file names for itself, or undefined. */
export function encodingNamedIn(bytes: Uint8Array): string | undefined {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 2048));
  return /<meta[^>]+charset\s*=\s*["']?\s*([\w-]+)/i.exec(head)?.[1]?.toLowerCase();
}
