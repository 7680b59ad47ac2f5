import type { EmphasisSpan, Paragraph, PlaceMark } from '../model/document';
import type { DraftParagraph } from '../text/draft-text';

/** Gathers text into paragraphs, folding white space as a browser would. */
export class ParagraphCollector {
  readonly paragraphs: DraftParagraph[] = [];
  style: Paragraph['style'] = 'body';
  emphasis: ReadonlySet<EmphasisSpan['emphasis']> = new Set();
  private text = '';
  private spans: EmphasisSpan[] = [];
  private marks: PlaceMark[] = [];
  private first: Paragraph['style'] = 'body';

  /** Whether nothing was added since the last paragraph ended. */
  get isEmpty(): boolean {
    return this.text === '';
  }

  /** Adds text. @param keepLines ends the paragraph at line ends instead of folding them */
  add(raw: string, keepLines = false): void {
    const lines = keepLines ? raw.split('\n') : [foldBlanks(raw)];
    lines.forEach((line, at) => {
      if (at > 0) this.endParagraph();
      const text = this.text === '' || /\s/.test(this.text.at(-1)!) ? line.replace(/^[ \t]+/, '') : line;
      if (!text) return;
      if (this.text === '') this.first = this.style;
      const start = this.text.length;
      this.text += text;
      for (const emphasis of this.emphasis) this.extend(emphasis, start, this.text.length);
    });
  }

  /** Divides two cells of a table. */
  tab(): void {
    this.text = `${this.text.trimEnd()}\t`;
  }

  /** Notes a page or a time at the present position. */
  mark(kind: PlaceMark['kind'], value: number): void {
    this.marks.push({ at: this.text.length, kind, value });
  }

  /** Ends the paragraph, if there is one. */
  endParagraph(): void {
    const text = this.text.trimEnd();
    if (!text) {
      this.text = '';
      this.spans = [];
      return;
    }
    const emphasis = this.spans.map((span) => ({ ...span, end: Math.min(span.end, text.length) })).filter((span) => span.start < span.end);
    const marks = this.marks.map((mark) => ({ ...mark, at: Math.min(mark.at, text.length) }));
    this.paragraphs.push({ text, style: this.first, emphasis, ...(marks.length > 0 ? { marks } : {}) });
    this.text = '';
    this.spans = [];
    this.marks = [];
  }

  private extend(emphasis: EmphasisSpan['emphasis'], start: number, end: number): void {
    const last = this.spans.findLast((span) => span.emphasis === emphasis);
    if (last?.end === start) last.end = end;
    else this.spans.push({ start, end, emphasis });
  }
}

/** Runs of blanks become one; where a tab is among them, a tab. Most words have none to fold. */
const foldBlanks = (raw: string): string =>
  /[\r\n\f\u00a0\t]| {2}/.test(raw) ? raw.replace(/[ \r\n\f\u00a0]+|\s*\t\s*/g, (space) => (space.includes('\t') ? '\t' : ' ')) : raw;
