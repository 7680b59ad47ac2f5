import type { EmphasisSpan, Paragraph, PlaceMark } from '../model/document';
import type { DraftParagraph } from '../text/draft-text';

const SENTENCE_ENDS = /[.!?…:]["”’»)]*\s*$/u;

/** Gathers text into paragraphs, folding white space as a browser would. */
export class ParagraphCollector {
  readonly paragraphs: DraftParagraph[] = [];
  style: Paragraph['style'] = 'body';
  emphasis: ReadonlySet<EmphasisSpan['emphasis']> = new Set();
  /** The pieces of the paragraph: a text that grows by thousands of pieces is put together once. */
  private pieces: string[] = [];
  private length = 0;
  private last = '';
  private spans: EmphasisSpan[] = [];
  private readonly lastSpan = new Map<EmphasisSpan['emphasis'], EmphasisSpan>();
  private marks: PlaceMark[] = [];
  private first: Paragraph['style'] = 'body';
  /** A line was broken, and what follows is not known yet. */
  private broken = false;

  /** Whether nothing was added since the last paragraph ended. */
  get isEmpty(): boolean {
    return this.length === 0;
  }

  /**
   * Breaks the line within a paragraph, as Shift and Enter do: in mid-sentence it goes on; where another voice, a new sentence
   * or another item follows, that is a paragraph of its own.
   */
  breakLine(): void {
    this.broken = !this.isEmpty;
  }

  /** Adds text. @param keepLines ends the paragraph at line ends instead of folding them */
  add(raw: string, keepLines = false): void {
    if (this.broken && raw.trim()) {
      this.broken = false;
      const goesOn = /^\s*\p{Ll}/u.test(raw) && !SENTENCE_ENDS.test(this.pieces.slice(-3).join(''));
      if (goesOn) this.add(' ');
      else this.endParagraph();
    }
    const lines = keepLines ? raw.split('\n') : [foldBlanks(raw)];
    lines.forEach((line, at) => {
      if (at > 0) this.endParagraph();
      const text = this.length === 0 || /\s/.test(this.last) ? line.replace(/^[ \t]+/, '') : line;
      if (!text) return;
      if (this.length === 0) this.first = this.style;
      const start = this.length;
      this.put(text);
      for (const emphasis of this.emphasis) this.extend(emphasis, start, this.length);
    });
  }

  /** Divides two cells of a table. */
  tab(): void {
    while (this.pieces.length > 0 && /\s/.test(this.last)) {
      const piece = this.pieces.pop()!;
      const trimmed = piece.trimEnd();
      this.length -= piece.length;
      this.last = this.pieces.at(-1)?.at(-1) ?? '';
      if (trimmed) this.put(trimmed);
    }
    this.put('\t');
  }

  /** Notes a page or a time at the present position. */
  mark(kind: PlaceMark['kind'], value: number): void {
    this.marks.push({ at: this.length, kind, value });
  }

  /** Ends the paragraph, if there is one. */
  endParagraph(): void {
    const text = this.pieces.join('').trimEnd();
    const { spans, marks } = this;
    this.pieces = [];
    this.length = 0;
    this.last = '';
    this.broken = false;
    this.spans = [];
    this.lastSpan.clear();
    if (!text) return;
    const emphasis = spans.map((span) => ({ ...span, end: Math.min(span.end, text.length) })).filter((span) => span.start < span.end);
    const places = marks.map((mark) => ({ ...mark, at: Math.min(mark.at, text.length) }));
    this.marks = [];
    this.paragraphs.push({ text, style: this.first, emphasis, ...(places.length > 0 ? { marks: places } : {}) });
  }

  private put(text: string): void {
    this.pieces.push(text);
    this.length += text.length;
    this.last = text.at(-1)!;
  }

  private extend(emphasis: EmphasisSpan['emphasis'], start: number, end: number): void {
    const last = this.lastSpan.get(emphasis);
    if (last?.end === start) last.end = end;
    else {
      const span = { start, end, emphasis };
      this.spans.push(span);
      this.lastSpan.set(emphasis, span);
    }
  }
}

/** Runs of blanks become one; where a tab is among them, a tab. Most words have none to fold. */
const foldBlanks = (raw: string): string =>
  /[\r\n\f\u00a0\t]| {2}/.test(raw) ? raw.replace(/[ \r\n\f\u00a0]+|\s*\t\s*/g, (space) => (space.includes('\t') ? '\t' : ' ')) : raw;
