import type { EmphasisSpan, Paragraph } from '../../model/document';
import { normaliseText, tidyLine } from '../../text/normalise';
import { ParagraphCollector } from '../paragraph-collector';
import type { Reading } from '../reading';
import type { WordStyle, WordStyles } from './word-styles';

/** A part of a Word document as the Word library reads it: what is looked at here. */
export interface WordElement {
  readonly type: string;
  readonly children?: readonly WordElement[];
  /** Words, of a text. */
  readonly value?: string;
  readonly styleId?: string | null;
  readonly styleName?: string | null;
  /** Of a paragraph in a list. */
  readonly numbering?: object | null;
  readonly isBold?: boolean;
  readonly isItalic?: boolean;
  readonly isUnderline?: boolean;
  readonly isStrikethrough?: boolean;
  /** `line`, `page` or `column`. */
  readonly breakType?: string;
}

/** A whole document, with the notes that stand in it. */
export interface WordDocument extends WordElement {
  readonly notes?: { resolve(reference: WordElement): { readonly body: readonly WordElement[] } | null };
}

/**
 * The paragraphs of a Word document, with headings, lists, quotations and emphasis. A row of a table is one paragraph,
 * its cells divided by tabs; a footnote follows the paragraph it stands in; comments are left out.
 * @param styles what the document's styles give to its words
 */
export function wordParagraphs(document: WordDocument, styles: WordStyles = new Map()): Reading {
  const walk = new Walk(document, styles);
  walk.children(document);
  const { paragraphs } = walk.collector;
  const heading = paragraphs[0]?.style === 'heading1' ? tidyLine(paragraphs[0].text) : null;
  const { pictures } = walk;
  return {
    title: heading,
    paragraphs,
    notes: pictures > 0 ? [`${pictures} ${pictures === 1 ? 'picture' : 'pictures'} left out`] : [],
  };
}

class Walk {
  readonly collector = new ParagraphCollector();
  pictures = 0;
  /** Rows of tables that are open around what is walked through. */
  private rows = 0;
  /** In a row: a cell begins, or another paragraph of a cell. */
  private border: 'none' | 'cell' | 'paragraph' = 'none';
  /** Notes of the present paragraph, by their number, to follow it. */
  private waiting: { readonly number: number; readonly reference: WordElement }[] = [];
  private noted = 0;
  /** Notes that are being read. */
  private readonly open = new Set<object>();

  /** What the style of the present paragraph gives to its words. */
  private looks: ReadonlySet<EmphasisSpan['emphasis']> = new Set();

  constructor(
    private readonly document: WordDocument,
    private readonly styles: WordStyles,
  ) {}

  children({ children }: WordElement): void {
    for (const child of children ?? []) this.element(child);
  }

  private element(element: WordElement): void {
    const { collector } = this;
    switch (element.type) {
      case 'paragraph':
        return this.paragraph(element);
      case 'run':
        collector.emphasis = this.emphasisOf(element);
        this.children(element);
        collector.emphasis = new Set();
        return;
      case 'text':
        return this.words(element.value ?? '');
      case 'tab':
        return collector.add('\t');
      case 'break':
        if (element.breakType === 'line') collector.breakLine();
        return;
      case 'noteReference':
        this.waiting.push({ number: ++this.noted, reference: element });
        return this.words(`[${this.noted}]`);
      case 'image':
        this.pictures++;
        return;
      case 'tableRow':
        this.endParagraph();
        this.rows++;
        this.border = 'none';
        this.children(element);
        this.rows--;
        return this.endParagraph();
      case 'tableCell':
        if (!collector.isEmpty) this.border = 'cell';
        return this.children(element);
      default:
        this.children(element);
    }
  }

  private paragraph(element: WordElement): void {
    if (this.rows === 0) this.endParagraph();
    else if (this.border === 'none' && !this.collector.isEmpty) this.border = 'paragraph';
    this.collector.style = this.styleOf(element);
    // headings and quotations are shown as such anyway
    const plain = this.collector.style === 'body' || this.collector.style === 'list item';
    this.looks = (plain && this.style('paragraph', element)?.looks) || new Set();
    this.children(element);
    if (this.rows === 0) this.endParagraph();
  }

  private words(value: string): void {
    const text = normaliseText(value);
    if (this.border !== 'none' && text.trim()) {
      if (this.border === 'cell') this.collector.tab();
      else this.collector.endParagraph();
      this.border = 'none';
    }
    this.collector.add(text);
  }

  private endParagraph(): void {
    this.collector.endParagraph();
    if (this.rows > 0) return;
    for (const { number, reference } of this.waiting.splice(0)) {
      const note = this.document.notes?.resolve(reference);
      // a note that refers to itself is read once
      if (!note || this.open.has(note)) continue;
      this.open.add(note);
      const before = this.collector.paragraphs.length;
      for (const element of note.body) this.element(element);
      this.collector.endParagraph();
      this.open.delete(note);
      const first = this.collector.paragraphs[before];
      // the note begins with the number that stands for it in the words
      if (first) this.collector.paragraphs[before] = numbered(first, `[${number}] `);
    }
  }

  private style(type: 'paragraph' | 'character', { styleId }: WordElement): WordStyle | undefined {
    return this.styles.get(`${type} ${styleId ?? ''}`);
  }

  /** The looks of a run: its own, and what the styles give; where two styles give the same, it is off again (ECMA-376, 17.7.3). */
  private emphasisOf(run: WordElement): Set<EmphasisSpan['emphasis']> {
    const emphasis = new Set(this.looks);
    const style = this.style('character', run);
    for (const look of style?.looks ?? []) if (look === 'underline' || !emphasis.delete(look)) emphasis.add(look);
    if (run.isBold || (!style && run.styleName === 'Strong')) emphasis.add('bold');
    if (run.isItalic || (!style && run.styleName === 'Emphasis')) emphasis.add('italic');
    if (run.isUnderline) emphasis.add('underline');
    if (run.isStrikethrough) emphasis.add('strike');
    return emphasis;
  }

  /** How a paragraph looks, told by the names of Word's and LibreOffice's own styles, and by what others are based on. */
  private styleOf(element: WordElement): Paragraph['style'] {
    const { styleId, styleName, numbering } = element;
    const name = styleName ?? '';
    if (name === 'Title') return 'heading1';
    if (name === 'Subtitle') return 'heading2';
    if (name === 'Quote' || name === 'Intense Quote' || name === 'Quotations') return 'quotation';
    const named = /^heading ?([1-9])?$/i.exec(name) ?? /^Heading([1-9])?$/.exec(styleId ?? '');
    const level = named ? Number(named[1] ?? 1) : (this.style('paragraph', element)?.level ?? null);
    if (level !== null) return (['heading1', 'heading2', 'heading3'] as const)[Math.min(3, level) - 1]!;
    return numbering ? 'list item' : 'body';
  }
}

/** A paragraph with something put in front of its words; its emphasis stays on them. */
const numbered = (paragraph: Reading['paragraphs'][number], front: string): Reading['paragraphs'][number] => ({
  ...paragraph,
  text: front + paragraph.text,
  emphasis: paragraph.emphasis.map((span) => ({ ...span, start: span.start + front.length, end: span.end + front.length })),
});
