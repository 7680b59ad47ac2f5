import type { EmphasisSpan } from '../../model/document';
import { normaliseText, tidyLine } from '../../text/normalise';
import { ParagraphCollector } from '../paragraph-collector';
import { UnreadableFileError, type Reading } from '../reading';

/** Groups whose words are not words of the text. */
const NOT_TEXT = new Set(
  (
    'fonttbl colortbl stylesheet info listtable listoverridetable revtbl rsidtbl generator themedata colorschememapping datastore latentstyles ' +
    'header headerl headerr headerf footer footerl footerr footerf ftnsep ftnsepc aftnsep aftnsepc pict object annotation atnid atnauthor ' +
    'xmlnstbl wgrffmtfilter filetbl pntext listtext pgdsctbl userprops bkmkstart bkmkend fldinst shppict nonshppict shpinst'
  ).split(' '),
);

/** Encodings of the code pages that `\ansicpg` and `\fcharset` name. */
const CODE_PAGES: Readonly<Record<number, string>> = {
  437: 'windows-1252',
  850: 'windows-1252',
  874: 'windows-874',
  932: 'shift_jis',
  936: 'gb18030',
  949: 'euc-kr',
  950: 'big5',
  1250: 'windows-1250',
  1251: 'windows-1251',
  1252: 'windows-1252',
  1253: 'windows-1253',
  1254: 'windows-1254',
  1255: 'windows-1255',
  1256: 'windows-1256',
  1257: 'windows-1257',
  1258: 'windows-1258',
  10000: 'macintosh',
  65001: 'utf-8',
};
const CHARSETS: Readonly<Record<number, number>> = {
  128: 932,
  129: 949,
  134: 936,
  136: 950,
  161: 1253,
  162: 1254,
  163: 1258,
  177: 1255,
  178: 1256,
  186: 1257,
  204: 1251,
  222: 874,
  238: 1250,
  77: 10000,
};

const SIGNS: Readonly<Record<string, string>> = {
  tab: '\t',
  emdash: '—',
  endash: '–',
  lquote: '‘',
  rquote: '’',
  ldblquote: '“',
  rdblquote: '”',
  bullet: '•',
  emspace: ' ',
  enspace: ' ',
  cell: '\t',
  nestcell: '\t',
};
const EMPHASIS: Readonly<Record<string, EmphasisSpan['emphasis']>> = { b: 'bold', i: 'italic', ul: 'underline', strike: 'strike' };

/** What a group inherits and may change for itself. */
interface State {
  skipped: boolean;
  emphasis: ReadonlySet<EmphasisSpan['emphasis']>;
  /** Fallback characters that follow each `\u`. */
  fallback: number;
  codePage: number;
  inFonts: boolean;
  styles: boolean;
  info: boolean;
  title: boolean;
}

const TOKEN = /\\([a-zA-Z]{1,32})(-?\d{1,10})? ?|\\'([0-9a-fA-F]{2})|\\([^a-zA-Z])|([{}])|[\r\n]+|([^\\{}\r\n]+)/g;
const DEEPEST = 2_000;

/**
 * Reads rich text (Microsoft RTF specification 1.9.1): words, bold, italics, underline, strike, headings by
 * their outline level or style name. Headers, footers, fields' instructions, pictures and comments are left out.
 * @throws UnreadableFileError
 */
export function readRtf(bytes: Uint8Array): Reading {
  const source = new TextDecoder('latin1').decode(bytes);
  if (!source.startsWith('{\\rtf'))
    throw new UnreadableFileError('The name ends in .rtf, but this is not rich text. Give the file its right ending, or save it again.');
  return new RtfReader(source).read();
}

class RtfReader {
  private readonly collector = new ParagraphCollector();
  private readonly stack: State[] = [];
  private state: State = {
    skipped: false,
    emphasis: new Set(),
    fallback: 1,
    codePage: 1252,
    inFonts: false,
    styles: false,
    info: false,
    title: false,
  };
  private defaultPage = 1252;
  private readonly fontPages = new Map<number, number>();
  private font = 0;
  /** Heading level by style number, told by the style's name. */
  private readonly headings = new Map<number, number>();
  private readonly quotations = new Set<number>();
  private styleNumber = -1;
  private styleName = '';
  private outline = 0;
  private paragraphStyle = -1;
  private listed = false;
  private bytes: number[] = [];
  private skip = 0;
  /** The first half of a character whose second is to come. */
  private half = '';
  private pictures = 0;
  private title = '';
  private first = true;

  constructor(private readonly source: string) {}

  read(): Reading {
    for (const token of this.source.matchAll(TOKEN)) {
      const [, word, number, hex, sign, brace, plain] = token;
      if (hex !== undefined) this.byte(parseInt(hex, 16));
      else if (plain !== undefined) for (const char of plain) this.byte(char.charCodeAt(0));
      else {
        this.flush();
        if (brace === '{') this.open();
        else if (brace === '}') this.close();
        else if (sign !== undefined) this.sign(sign);
        else if (word !== undefined) {
          const value = number === undefined ? undefined : Number(number);
          if (word === 'bin') throw new UnreadableFileError('The rich text holds binary data inside. Save it again without pictures.');
          this.word(word, value);
        }
      }
    }
    this.flush();
    this.collector.endParagraph();
    const notes = this.pictures > 0 ? [`${this.pictures} ${this.pictures === 1 ? 'picture' : 'pictures'} left out`] : [];
    const { paragraphs } = this.collector;
    const heading = paragraphs[0]?.style === 'heading1' ? tidyLine(paragraphs[0].text) : null;
    return { title: tidyLine(this.title) || heading, paragraphs, notes };
  }

  private open(): void {
    if (this.stack.push({ ...this.state }) > DEEPEST)
      throw new UnreadableFileError('The rich text is nested deeper than any real document.');
    this.first = true;
  }

  private close(): void {
    const { styles } = this.state;
    const before = this.stack.pop();
    if (!before) return;
    if (styles && this.styleNumber >= 0) this.endStyle();
    this.state = before;
    this.collector.emphasis = this.state.emphasis;
  }

  private endStyle(): void {
    const level = /^heading ?(\d)/i.exec(this.styleName.trim())?.[1];
    if (level) this.headings.set(this.styleNumber, Number(level));
    if (/^(block )?quot|^intense quote/i.test(this.styleName.trim())) this.quotations.add(this.styleNumber);
    this.styleName = '';
  }

  private sign(sign: string): void {
    if (sign === '*') this.state.skipped = true;
    else if (sign === '~') this.text(' ');
    else if (sign === '_') this.text('-');
    else if (sign === '\n' || sign === '\r') this.endParagraph();
    else if ('\\{}'.includes(sign)) this.text(sign);
  }

  private word(word: string, value: number | undefined): void {
    const { state } = this;
    const begins = this.first;
    this.first = false;
    if (word === 'u' && value !== undefined) {
      const char = String.fromCharCode(value < 0 ? value + 65_536 : value);
      this.skip = state.fallback;
      // characters beyond the first plane are written as two halves
      const isHalf = /[\ud800-\udbff]/.test(char);
      if (!isHalf) this.text(this.half + char);
      this.half = isHalf ? char : '';
      return;
    }
    if (SIGNS[word] !== undefined) return this.text(SIGNS[word]);
    if (EMPHASIS[word] || word === 'ulnone') return this.emphasise(EMPHASIS[word] ?? 'underline', word !== 'ulnone' && value !== 0);
    if (begins && NOT_TEXT.has(word)) {
      if (word === 'pict' || word === 'object') this.pictures += word === 'pict' && !state.skipped ? 1 : 0;
      state.skipped = true;
      state.inFonts = word === 'fonttbl';
      state.styles = word === 'stylesheet';
      state.info = word === 'info';
      return;
    }
    switch (word) {
      case 'uc':
        state.fallback = Math.min(10, Math.max(0, value ?? 1));
        break;
      case 'ansicpg':
        this.defaultPage = state.codePage = value ?? 1252;
        break;
      case 'f':
        this.font = value ?? 0;
        if (!state.inFonts) state.codePage = this.fontPages.get(this.font) ?? this.defaultPage;
        break;
      case 'fcharset':
        if (state.inFonts && value !== undefined && CHARSETS[value] !== undefined) this.fontPages.set(this.font, CHARSETS[value]);
        break;
      case 's':
        if (state.styles) this.styleNumber = value ?? 0;
        else if (!state.skipped) this.paragraphStyle = value ?? -1;
        break;
      case 'title':
        state.title = state.info && begins;
        break;
      case 'plain':
        state.emphasis = new Set();
        this.collector.emphasis = state.emphasis;
        break;
      case 'pard':
        if (state.skipped) break;
        this.outline = 0;
        this.paragraphStyle = -1;
        this.listed = false;
        break;
      case 'outlinelevel':
        if (!state.skipped) this.outline = (value ?? 8) + 1;
        break;
      case 'ls':
        if (!state.skipped) this.listed = (value ?? 0) > 0;
        break;
      case 'line':
        if (!state.skipped) this.collector.breakLine();
        break;
      case 'par':
      case 'row':
      case 'sect':
      case 'page':
        if (!state.skipped) this.endParagraph();
        break;
    }
  }

  private emphasise(emphasis: EmphasisSpan['emphasis'], on: boolean): void {
    const next = new Set(this.state.emphasis);
    if (on) next.add(emphasis);
    else next.delete(emphasis);
    this.state.emphasis = next;
    this.collector.emphasis = next;
  }

  private byte(byte: number): void {
    this.first = false;
    if (this.skip > 0) this.skip--;
    else this.bytes.push(byte);
  }

  private flush(): void {
    if (this.bytes.length === 0) return;
    const encoding = CODE_PAGES[this.state.codePage] ?? 'windows-1252';
    const text = new TextDecoder(encoding).decode(Uint8Array.from(this.bytes));
    this.bytes = [];
    this.text(text);
  }

  private text(text: string): void {
    if (this.state.title) this.title += text;
    else if (this.state.styles) this.styleName += text.replace(/;$/, '');
    else if (!this.state.skipped) {
      const level = this.headings.get(this.paragraphStyle) ?? this.outline;
      this.collector.style =
        level > 0 && level <= 6
          ? (['heading1', 'heading2', 'heading3'] as const)[Math.min(3, level) - 1]!
          : this.quotations.has(this.paragraphStyle)
            ? 'quotation'
            : this.listed
              ? 'list item'
              : 'body';
      this.collector.add(normaliseText(text));
    }
  }

  private endParagraph(): void {
    this.collector.endParagraph();
  }
}
