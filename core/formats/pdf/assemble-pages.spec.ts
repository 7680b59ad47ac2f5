import { assemblePages, type PdfLine, type PdfPage } from './assemble-pages';

const WIDE = 400;
/** Lines of one page, 14 points apart; `~` in front leaves a gap above, `<` ends the line early. */
function page(number: number, ...lines: readonly string[]): PdfPage {
  let fromTop = 40;
  const made = lines.map((raw): PdfLine => {
    const text = raw.replace(/^[~<]+/, '');
    const marks = raw.slice(0, raw.length - text.length);
    fromTop += marks.includes('~') ? 28 : 14;
    return { text, left: 60, right: marks.includes('<') ? 200 : WIDE, fromTop, size: 11 };
  });
  return { number, width: 460, height: 600, lines: made };
}
const texts = (...pages: readonly PdfPage[]) => assemblePages(pages).paragraphs.map((paragraph) => paragraph.text);

describe('paragraphs of a PDF', () => {
  it('are told by gaps, by lines that end early after a full stop, and by speakers’ labels', () => {
    expect(texts(page(1, 'One line goes on', '<to the end.', 'Another begins', '~Third after a gap', 'Shona: A fourth.'))).toEqual([
      'One line goes on to the end.',
      'Another begins',
      'Third after a gap',
      'Shona: A fourth.',
    ]);
  });

  it('are one for a heading of two lines, and another for the words below', () => {
    const line = (text: string, fromTop: number, size: number): PdfLine => ({
      text,
      left: 60,
      right: 60 + text.length * size * 0.5,
      fromTop,
      size,
    });
    const lines = [
      line('Who holds the night boat, and who', 60, 22),
      line('waits on the pier', 92, 22),
      line('We were never told.', 130, 11),
      line('Nor were they,', 144, 11),
      line('least of all in winter.', 158, 11),
      line('The second', 190, 14),
      line('winter', 212, 14),
      line('Dark and cold it was', 240, 11),
      line('on the pier.', 254, 11),
    ];
    const { paragraphs } = assemblePages([{ number: 1, width: 460, height: 900, lines }]);
    expect(paragraphs.map(({ style, text }) => [style, text])).toEqual([
      ['heading1', 'Who holds the night boat, and who waits on the pier'],
      ['body', 'We were never told.'],
      ['body', 'Nor were they, least of all in winter.'],
      ['heading2', 'The second winter'],
      ['body', 'Dark and cold it was on the pier.'],
    ]);
  });

  it('go on over a page that ends in mid-sentence, with the page marked where it begins', () => {
    const { paragraphs } = assemblePages([page(1, 'We waited on the pier and the'), page(2, 'boat did not come.')]);
    expect(paragraphs.map((paragraph) => paragraph.text)).toEqual(['We waited on the pier and the boat did not come.']);
    expect(paragraphs[0]!.marks).toEqual([
      { at: 0, kind: 'page', value: 1 },
      { at: 30, kind: 'page', value: 2 },
    ]);
  });

  it('keep bold and italics, over the end of a line and a divided word too, and not in headings', () => {
    const line = (text: string, fromTop: number, size: number, ...spans: readonly (readonly [string, 'bold' | 'italic'])[]): PdfLine => ({
      text,
      left: 60,
      right: WIDE,
      fromTop,
      size,
      emphasis: spans.map(([words, emphasis]) => ({ start: text.indexOf(words), end: text.indexOf(words) + words.length, emphasis })),
    });
    const lines = [
      line('The Night Boat', 40, 20, ['The Night Boat', 'bold']),
      line('• we were never told, never con-', 70, 11, ['never told', 'italic'], ['never con-', 'bold']),
      line('sulted by any council, least', 84, 11, ['sulted', 'bold'], ['least', 'italic']),
      line('of all by ours', 98, 11, ['of all', 'italic']),
    ];
    const { paragraphs } = assemblePages([{ number: 1, width: 460, height: 600, lines }]);
    expect(paragraphs.map(({ text, emphasis }) => emphasis.map((span) => `${span.emphasis}: ${text.slice(span.start, span.end)}`))).toEqual(
      [[], ['italic: never told', 'bold: never consulted', 'italic: least of all']],
    );
  });

  it('join words divided at line ends, but not compounds', () => {
    expect(
      texts(
        page(
          1,
          'They were wait-',
          'ing for the boat, a well-',
          'known boat, twenty-',
          'five years old; twenty, or five.',
          '~It is well-known.',
        ),
      )[0],
    ).toBe('They were waiting for the boat, a well-known boat, twenty-five years old; twenty, or five.');
  });

  it('leave out headers and footers that recur, and page numbers, but no line of the text', () => {
    const pages = [1, 2, 3].map((number) =>
      page(
        number,
        `The Last Ferry ${number}`,
        `~Nobody asked ${['us', 'them', 'her'][number - 1]}.`,
        `~Words of page ${number * 7} here.`,
        `~${number}`,
      ),
    );
    pages.forEach((one) => ((one.lines as PdfLine[])[3] = { ...one.lines[3]!, fromTop: 570 }));
    const { paragraphs, notes } = assemblePages(pages);
    expect(paragraphs.some((paragraph) => /Last Ferry/.test(paragraph.text))).toBeFalse();
    expect(paragraphs.some((paragraph) => /^\d$/.test(paragraph.text))).toBeFalse();
    expect(paragraphs.filter((paragraph) => paragraph.text.startsWith('Nobody')).length).toBe(3);
    expect(notes[0]).toMatch(/lines of headers, footers and page numbers left out/);
  });

  it('take large type for headings and bullets for lists', () => {
    const lines = page(1, 'Minutes', '~Body text of the minutes goes on.', '~• first', '• second');
    (lines.lines as PdfLine[])[0] = { ...lines.lines[0]!, size: 18 };
    expect(assemblePages([lines]).paragraphs.map((paragraph) => [paragraph.style, paragraph.text])).toEqual([
      ['heading1', 'Minutes'],
      ['body', 'Body text of the minutes goes on.'],
      ['list item', 'first'],
      ['list item', 'second'],
    ]);
  });
});
