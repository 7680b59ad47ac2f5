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

  it('go on over a page that ends in mid-sentence, with the page marked where it begins', () => {
    const { paragraphs } = assemblePages([page(1, 'We waited on the pier and the'), page(2, 'boat did not come.')]);
    expect(paragraphs.map((paragraph) => paragraph.text)).toEqual(['We waited on the pier and the boat did not come.']);
    expect(paragraphs[0]!.marks).toEqual([
      { at: 0, kind: 'page', value: 1 },
      { at: 30, kind: 'page', value: 2 },
    ]);
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
