import { Parser } from 'htmlparser2';
import { normaliseText, tidyLine } from '../../text/normalise';
import type { DraftParagraph } from '../../text/draft-text';
import type { EmphasisSpan, Paragraph } from '../../model/document';
import type { Reading } from '../reading';

const EMPHASIS: Readonly<Record<string, EmphasisSpan['emphasis']>> = {
  b: 'bold',
  strong: 'bold',
  i: 'italic',
  em: 'italic',
  u: 'underline',
  s: 'strike',
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
const BLOCKS = new Set([
  'p',
  'div',
  'section',
  'article',
  'header',
  'footer',
  'main',
  'ul',
  'ol',
  'table',
  'tr',
  'td',
  'th',
  'pre',
  'figure',
  'figcaption',
  'dl',
  'dt',
  'dd',
  'hr',
  'body',
  ...Object.keys(STYLES),
]);
const SKIPPED = new Set(['script', 'style', 'head', 'template', 'noscript', 'svg', 'math', 'object', 'iframe', 'nav']);

/**
 * Reads the words of HTML with the formatting that carries meaning. Nothing in it is run or fetched: the
 * tags are only looked at, and what is not text is left out.
 */
export function readHtml(html: string): Reading {
  const collector = new ParagraphCollector();
  let skipping = 0;
  const open: string[] = [];
  const parser = new Parser({
    onopentagname(name) {
      open.push(name);
      if (SKIPPED.has(name)) skipping++;
      if (name === 'br') collector.endParagraph();
      if (name === 'img') collector.pictures++;
      if (BLOCKS.has(name)) collector.endParagraph();
      collector.setContext(open);
    },
    ontext(text) {
      if (skipping === 0) collector.add(text, open.includes('pre'));
    },
    onclosetag(name) {
      const at = open.lastIndexOf(name);
      if (at >= 0) open.splice(at, 1);
      if (SKIPPED.has(name)) skipping--;
      if (BLOCKS.has(name)) collector.endParagraph();
      collector.setContext(open);
    },
  });
  parser.write(normaliseText(html));
  parser.end();
  collector.endParagraph();
  const first = collector.paragraphs[0];
  const notes = collector.pictures > 0 ? [`${collector.pictures} ${collector.pictures === 1 ? 'picture' : 'pictures'} left out`] : [];
  return { title: first?.style === 'heading1' ? tidyLine(first.text) : null, paragraphs: collector.paragraphs, notes };
}

/** Gathers text into paragraphs, folding white space as a browser would. */
class ParagraphCollector {
  readonly paragraphs: DraftParagraph[] = [];
  pictures = 0;
  private text = '';
  private spans: EmphasisSpan[] = [];
  private style: Paragraph['style'] = 'body';
  private emphasis: readonly EmphasisSpan['emphasis'][] = [];

  setContext(open: readonly string[]): void {
    this.emphasis = [...new Set(open.map((name) => EMPHASIS[name]).filter((found) => found !== undefined))];
    if (!this.text) this.style = open.map((name) => STYLES[name]).findLast((found) => found !== undefined) ?? 'body';
  }

  add(raw: string, keepLines: boolean): void {
    const lines = keepLines ? raw.split('\n') : [raw.replace(/\s+/g, ' ')];
    lines.forEach((line, at) => {
      if (at > 0) this.endParagraph();
      const text = this.text === '' || this.text.endsWith(' ') ? line.replace(/^\s+/, '') : line;
      const start = this.text.length;
      this.text += text;
      for (const emphasis of this.emphasis) this.extend(emphasis, start, this.text.length);
    });
  }

  endParagraph(): void {
    const text = this.text.trimEnd();
    if (text) {
      const emphasis = this.spans
        .map((span) => ({ ...span, end: Math.min(span.end, text.length) }))
        .filter((span) => span.start < span.end);
      this.paragraphs.push({ text, style: this.style, emphasis });
    }
    this.text = '';
    this.spans = [];
  }

  private extend(emphasis: EmphasisSpan['emphasis'], start: number, end: number): void {
    if (start === end) return;
    const last = this.spans.findLast((span) => span.emphasis === emphasis);
    if (last?.end === start) last.end = end;
    else this.spans.push({ start, end, emphasis });
  }
}
