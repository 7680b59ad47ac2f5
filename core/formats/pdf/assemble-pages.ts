import type { DraftParagraph } from '../../text/draft-text';
import { normaliseText } from '../../text/normalise';
import type { EmphasisSpan, Paragraph, PlaceMark } from '../../model/document';

/** A line of a page as it is printed; lengths in points. */
export interface PdfLine {
  readonly text: string;
  readonly left: number;
  readonly right: number;
  /** From the page's upper edge to the line. */
  readonly fromTop: number;
  /** Size of the type. */
  readonly size: number;
  /** Bold and italic words, as characters of the line; in order. */
  readonly emphasis?: readonly EmphasisSpan[];
  /** Where the column that it stands in ends, on a page with columns. */
  readonly edge?: number;
}

export interface PdfPage {
  readonly number: number;
  readonly width: number;
  readonly height: number;
  /** In the order in which they are read. */
  readonly lines: readonly PdfLine[];
}

/** Lines at the upper and lower edge that may be headers or footers. */
const EDGE = 2;
/** Share of the height of a page that its upper and lower margins take. */
const MARGIN = 0.08;

/**
 * Puts the lines of pages together into paragraphs. A PDF knows no paragraphs, so they are told by the gap
 * above a line, by a change of type size, by a line that ends early after a full stop, by a bullet and by a
 * speaker's label. What recurs at the edges of most pages is a header or footer and is left out.
 */
export function assemblePages(pages: readonly PdfPage[]): { paragraphs: DraftParagraph[]; notes: string[] } {
  const recurring = recurringEdges(pages);
  let edges = 0;
  const kept = pages.map((page) => {
    const lines = page.lines.filter((line, at) => {
      const drop =
        isAtEdge(line, at, page) && (recurring.has(edgeKey(line, page)) || isPageNumber(line, page) || carriesPageNumber(line, page));
      if (drop) edges++;
      return !drop;
    });
    return { ...page, lines };
  });
  const body = median(kept.flatMap((page) => page.lines.map((line) => line.size)));
  const builder = new Builder(body, wordsOf(kept));
  for (const page of kept) builder.page(page);
  builder.end();
  const notes: string[] = [];
  if (edges > 0) notes.push(`${edges === 1 ? 'one line' : `${edges} lines`} of headers, footers and page numbers left out`);
  if (builder.joined > 0) notes.push(`${builder.joined === 1 ? 'one word' : `${builder.joined} words`} divided at line ends joined`);
  return { paragraphs: builder.paragraphs, notes };
}

/** Whole words of all lines, compounds as they are written; the last of a line that is divided is not one. */
function wordsOf(pages: readonly PdfPage[]): Set<string> {
  const lines = pages.flatMap((page) => page.lines.map((line) => line.text.toLocaleLowerCase()));
  return new Set(
    lines.flatMap((line) =>
      (line.replace(/[\p{L}\p{M}]+[-\u00ad‐]$/u, '').match(/[\p{L}\p{M}]+(?:[-‐][\p{L}\p{M}]+)*/gu) ?? []).map((word) =>
        word.replace(/‐/g, '-'),
      ),
    ),
  );
}

/** What a line at an edge has in common on all pages: its words with numbers made equal, and where it stands. */
const edgeKey = (line: PdfLine, page: PdfPage): string => {
  const upper = line.fromTop < page.height / 2;
  return `${upper ? 'top' : 'foot'} ${line.text.replace(/\d+/g, '#').replace(/\s+/g, ' ').trim().toLocaleLowerCase()}`;
};

const isPageNumber = (line: PdfLine, page: PdfPage): boolean =>
  /^[-–—\s]*(?:p(?:age|\.)?\s*)?\d{1,4}(?:\s*(?:\/|of)\s*\d{1,4})?[-–—\s]*$/i.test(line.text) &&
  (line.fromTop < page.height * 0.12 || line.fromTop > page.height * 0.88);

/** Whether a line is among the first or last, or stands in the margins, where it may be a header or footer. */
const isAtEdge = (line: PdfLine, at: number, page: PdfPage): boolean =>
  at < EDGE || at >= page.lines.length - EDGE || line.fromTop < page.height * MARGIN || line.fromTop > page.height * (1 - MARGIN);

/** Whether a line in the margin of a page carries its number beside other words, as headers and footers do. */
function carriesPageNumber(line: PdfLine, page: PdfPage): boolean {
  const inMargin = line.fromTop < page.height * MARGIN || line.fromTop > page.height * (1 - MARGIN);
  const words = line.text.trim().split(/\s+/);
  return inMargin && words.length <= 12 && [words[0], words.at(-1)].includes(String(page.number));
}

/** Edge lines that stand on at least half of the pages, and on two at least. */
function recurringEdges(pages: readonly PdfPage[]): Set<string> {
  const counts = new Map<string, number>();
  for (const page of pages) {
    const edge = page.lines.filter((line, at) => isAtEdge(line, at, page));
    for (const key of new Set(edge.map((line) => edgeKey(line, page)))) counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  // left and right pages often carry different headers
  const least = Math.max(2, Math.ceil(pages.length * 0.4));
  return new Set([...counts].filter(([, count]) => count >= least).map(([key]) => key));
}

const BULLET = /^\s*[•‣◦▪–]\s+/;
const LABEL = /^(?:\[[^\]]{1,40}\]|[\p{Lu}][\p{L}\p{M}.'’-]*(?: [\p{L}\p{N}][\p{L}\p{M}\p{N}.'’-]*){0,2}):(?:\s|$)/u;
const SENTENCE_ENDS = /[.!?…:"”’)\]]$/;

class Builder {
  readonly paragraphs: DraftParagraph[] = [];
  joined = 0;
  private text = '';
  private style: Paragraph['style'] = 'body';
  private marks: PlaceMark[] = [];
  private emphasis: EmphasisSpan[] = [];
  private last: PdfLine | null = null;
  private pitch = 0;
  private right = 0;
  /** Where the paragraph's first line begins. */
  private left = 0;
  private begins: number | null = null;

  constructor(
    private readonly body: number,
    private readonly words: ReadonlySet<string>,
  ) {}

  page(page: PdfPage): void {
    const gaps = page.lines.slice(1).map((line, at) => line.fromTop - page.lines[at]!.fromTop);
    this.pitch = mode(gaps.filter((gap) => gap > 0)) || this.body * 1.3;
    const edges = page.lines.map((line) => line.right).sort((a, b) => a - b);
    this.right = edges[Math.floor(edges.length * 0.9)] ?? page.width;
    this.begins = page.number;
    page.lines.forEach((line, at) => {
      if (this.startsParagraph(line, at === 0)) this.end();
      this.add(line);
      this.last = line;
    });
  }

  private startsParagraph(line: PdfLine, firstOfPage: boolean): boolean {
    const { last } = this;
    if (!last) return true;
    if (BULLET.test(line.text) || LABEL.test(line.text)) return true;
    if (this.style === 'list item' && line.left < this.left - this.body * 0.8) return true;
    if (Math.abs(line.size - last.size) > this.body * 0.12) return true;
    const endedEarly = last.right < (last.edge ?? this.right) - Math.max(30, this.body * 4);
    if (firstOfPage) return SENTENCE_ENDS.test(last.text) && (endedEarly || /^[\p{Lu}\d“"‘]/u.test(line.text));
    const gap = line.fromTop - last.fromTop;
    // lines of larger type stand further apart
    const usual = this.style.startsWith('heading') ? Math.max(this.pitch, line.size * 1.25) : this.pitch;
    // a gap upwards is the next column
    if (gap > usual * 1.35) return true;
    if (this.style.startsWith('heading') && !SENTENCE_ENDS.test(last.text)) return false;
    return endedEarly && SENTENCE_ENDS.test(last.text);
  }

  private add(line: PdfLine): void {
    const bullet = BULLET.exec(line.text);
    const begin = bullet?.[0].length ?? /^\s*/.exec(line.text)![0].length;
    const text = normaliseText(line.text.slice(begin)).replace(/\n/g, ' ').trim();
    if (!this.text) {
      this.left = line.left;
      this.style = bullet ? 'list item' : line.size > this.body * 1.45 ? 'heading1' : line.size > this.body * 1.15 ? 'heading2' : 'body';
    }
    const divided = /([\p{L}\p{M}]+)([-\u00ad‐])$/u.exec(this.text);
    const rest = /^\p{Ll}[\p{L}\p{M}]*/u.exec(text)?.[0];
    if (divided && rest && !this.isCompound(divided[1]!, rest)) {
      this.text = this.text.slice(0, -1);
      this.emphasis = this.emphasis
        .map((span) => ({ ...span, end: Math.min(span.end, this.text.length) }))
        .filter((span) => span.start < span.end);
      this.joined++;
    } else if (this.text && !divided) this.text += ' ';
    if (this.begins !== null) this.marks.push({ at: this.text.length, kind: 'page', value: this.begins });
    this.begins = null;
    const placeOf = (at: number): number => this.text.length + Math.min(text.length, normaliseText(line.text.slice(begin, at)).length);
    for (const span of line.emphasis ?? []) this.emphasise({ ...span, start: placeOf(span.start), end: placeOf(span.end) });
    this.text += text;
  }

  /** Words emphasised alike that follow each other, over the end of a line too, are one stretch. */
  private emphasise(span: EmphasisSpan): void {
    if (span.start >= span.end || this.style.startsWith('heading')) return;
    const at = this.emphasis.findLastIndex((one) => one.emphasis === span.emphasis);
    const last = this.emphasis[at];
    if (last && span.start <= last.end + 1) this.emphasis[at] = { ...last, end: span.end };
    else this.emphasis.push(span);
  }

  /** Whether a hyphen at a line end belongs to the word: it is written so elsewhere, or both halves are words and the whole is not. */
  private isCompound(half: string, rest: string): boolean {
    const [a, b] = [half.toLocaleLowerCase(), rest.toLocaleLowerCase()];
    if (this.words.has(a + b)) return false;
    return this.words.has(`${a}-${b}`) || (this.words.has(a) && this.words.has(b));
  }

  end(): void {
    if (this.text.trim())
      this.paragraphs.push({
        text: this.text.trimEnd(),
        style: this.style,
        emphasis: this.emphasis,
        ...(this.marks.length > 0 ? { marks: this.marks } : {}),
      });
    this.text = '';
    this.marks = [];
    this.emphasis = [];
  }
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 10;
}

/** The most frequent value, in steps of half a point. */
function mode(values: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(Math.round(value * 2) / 2, (counts.get(Math.round(value * 2) / 2) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || a[0] - b[0])[0]?.[0] ?? 0;
}
