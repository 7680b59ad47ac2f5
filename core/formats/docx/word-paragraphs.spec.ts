import { wordParagraphs, type WordDocument, type WordElement } from './word-paragraphs';
import type { WordStyles } from './word-styles';

const text = (value: string): WordElement => ({ type: 'text', value });
const run = (value: string, looks: Partial<WordElement> = {}): WordElement => ({ type: 'run', children: [text(value)], ...looks });
const paragraph = (children: readonly WordElement[], looks: Partial<WordElement> = {}): WordElement => ({
  type: 'paragraph',
  children,
  ...looks,
});
const row = (...cells: readonly (readonly WordElement[])[]): WordElement => ({
  type: 'tableRow',
  children: cells.map((children) => ({ type: 'tableCell', children })),
});
const read = (
  children: readonly WordElement[],
  notes: Readonly<Record<string, readonly WordElement[]>> = {},
  styles: WordStyles = new Map(),
) => {
  const document: WordDocument = {
    type: 'document',
    children,
    notes: { resolve: (reference) => (notes[reference.value ?? ''] ? { body: notes[reference.value!]! } : null) },
  };
  return wordParagraphs(document, styles);
};
const texts = (children: readonly WordElement[], notes = {}) => read(children, notes).paragraphs.map((one) => one.text);

describe('paragraphs of a Word document', () => {
  it('have the style that the names of their styles say', () => {
    const styles = ['Title', 'Subtitle', 'heading 1', 'Heading 2', 'Heading 5', 'Quote', 'Intense Quote', 'Body Text'].map((styleName) =>
      paragraph([run(styleName)], { styleName }),
    );
    expect(read([...styles, paragraph([run('by id')], { styleId: 'Heading3' })]).paragraphs.map((one) => one.style)).toEqual([
      'heading1',
      'heading2',
      'heading1',
      'heading2',
      'heading3',
      'quotation',
      'quotation',
      'body',
      'heading3',
    ]);
    expect(read([paragraph([run('one')], { numbering: { level: '0' } })]).paragraphs[0]!.style).toBe('list item');
    expect(read([paragraph([run('Interview 03')], { styleName: 'Title' }), paragraph([run('x')])]).title).toBe('Interview 03');
    expect(read([paragraph([run('no heading')])]).title).toBeNull();
  });

  it('keep emphasis over several runs, and blanks as a reader sees them', () => {
    const { paragraphs } = read([
      paragraph([
        run('They '),
        run('held ', { isBold: true }),
        run('the', { isBold: true, isItalic: true }),
        run(' boat.', { styleName: 'Strong' }),
      ]),
      paragraph([run('so \u00a0 it', { isUnderline: true }), { type: 'tab' }, run('was', { isStrikethrough: true })]),
    ]);
    expect(paragraphs[0]!.text).toBe('They held the boat.');
    expect(paragraphs[0]!.emphasis).toEqual([
      { start: 5, end: 19, emphasis: 'bold' },
      { start: 10, end: 13, emphasis: 'italic' },
    ]);
    expect(paragraphs[1]!.text).toBe('so it\twas');
    expect(paragraphs[1]!.emphasis.map((span) => span.emphasis)).toEqual(['underline', 'strike']);
  });

  it('end not at page breaks; empty ones and comments are left out', () => {
    expect(
      texts([
        paragraph([run('two'), { type: 'break', breakType: 'page' }, run(' go on')]),
        paragraph([run('  ')]),
        paragraph([run('three'), { type: 'commentReference' }, { type: 'bookmarkStart' }]),
        paragraph([{ type: 'hyperlink', children: [run('a link')] }]),
      ]),
    ).toEqual(['two go on', 'three', 'a link']);
  });

  it('end at a broken line where something new begins, and go on in mid-sentence', () => {
    const line: WordElement = { type: 'break', breakType: 'line' };
    const broken = (...lines: string[]) => texts([paragraph(lines.flatMap((words, at) => (at > 0 ? [line, run(words)] : [run(words)])))]);
    expect(broken('I: Who held her?', 'Shona: My uncle did,', 'and he sold her.')).toEqual([
      'I: Who held her?',
      'Shona: My uncle did, and he sold her.',
    ]);
    expect(broken('We waited.', 'then we left', '', 'Nobody came')).toEqual(['We waited.', 'then we left', 'Nobody came']);
    expect(texts([paragraph([run('to the end'), line]), paragraph([run('of it')])])).toEqual(['to the end', 'of it']);
  });

  it('take looks and levels from their styles', () => {
    const styles: WordStyles = new Map([
      ['paragraph Q', { looks: new Set(['bold'] as const), level: null }],
      ['paragraph Part', { looks: new Set(['bold'] as const), level: 2 }],
      ['character Loud', { looks: new Set(['bold', 'underline'] as const), level: null }],
    ]);
    const { paragraphs } = read(
      [
        paragraph([run('Who '), run('held', { styleId: 'Loud' }), run(' her?', { isItalic: true })], { styleId: 'Q' }),
        paragraph([run('The boat')], { styleId: 'Part' }),
        paragraph([run('loud', { styleId: 'Loud' }), run(' plain')]),
      ],
      {},
      styles,
    );
    // bold in a style of bold is plain again
    expect(paragraphs[0]!.emphasis).toEqual([
      { start: 0, end: 4, emphasis: 'bold' },
      { start: 4, end: 8, emphasis: 'underline' },
      { start: 8, end: 13, emphasis: 'bold' },
      { start: 8, end: 13, emphasis: 'italic' },
    ]);
    expect([paragraphs[1]!.style, paragraphs[1]!.emphasis]).toEqual(['heading2', []]);
    expect(paragraphs[2]!.emphasis.map(({ start, end, emphasis }) => [start, end, emphasis])).toEqual([
      [0, 4, 'bold'],
      [0, 4, 'underline'],
    ]);
  });

  it('are one for a row of a table, its cells divided by tabs and the paragraphs of a cell apart', () => {
    const table: WordElement = {
      type: 'table',
      children: [
        row([paragraph([run('crossings')])], [paragraph([run('five a month')])]),
        row([paragraph([run('who')])], [], [paragraph([run('first')]), paragraph([run('second')])]),
      ],
    };
    expect(texts([paragraph([run('before')]), table, paragraph([run('after')])])).toEqual([
      'before',
      'crossings\tfive a month',
      'who\tfirst',
      'second',
      'after',
    ]);
  });

  it('are followed by their footnotes, numbered as in the words', () => {
    const note = (value: string): WordElement => ({ type: 'noteReference', value });
    const found = read([paragraph([run('They held her'), note('a'), run(' twice'), note('b')]), paragraph([run('Next.')])], {
      a: [paragraph([run('the boat', { isItalic: true })])],
      b: [paragraph([run('two notes')])],
    });
    expect(found.paragraphs.map((one) => one.text)).toEqual(['They held her[1] twice[2]', '[1] the boat', '[2] two notes', 'Next.']);
    expect(found.paragraphs[1]!.emphasis).toEqual([{ start: 4, end: 12, emphasis: 'italic' }]);
    // a note that the file names and does not hold is passed over
    expect(texts([paragraph([run('Lost'), note('gone')])])).toEqual(['Lost[1]']);
  });

  it('say how many pictures were left out', () => {
    expect(read([paragraph([{ type: 'image' }, run('a')])]).notes).toEqual(['1 picture left out']);
    expect(read([paragraph([{ type: 'image' }, { type: 'image' }, run('a')])]).notes).toEqual(['2 pictures left out']);
    expect(read([paragraph([run('a')])]).notes).toEqual([]);
  });
});
