import { frontMatter } from './front-matter';
import { readMarkdown } from './read-markdown';

describe('fields at the head of a Markdown file', () => {
  it('are facts, and no heading', () => {
    const read = readMarkdown(
      '---\ntitle: The night boat\ndate: 2025-01-22\nplace: "The Mile"\ntags: [boat, pier]\nsubject: The night boat\nwho:\n  age: 44\n---\n\nDark.',
    );
    expect([read.title, read.date]).toEqual(['The night boat', '2025-01-22']);
    expect(read.paragraphs.map(({ style, text }) => [style, text])).toEqual([['body', 'Dark.']]);
    expect(read.facts).toEqual([
      { name: 'place', value: 'The Mile' },
      { name: 'tags', value: 'boat, pier' },
      { name: 'subject', value: 'The night boat' },
      { name: 'who age', value: '44' },
    ]);
  });

  it('that cannot be read stay in the text as words, and that is said', () => {
    const read = readMarkdown('---\nplace: [The Mile\n---\n\nDark.');
    expect(read.paragraphs.map(({ style, text }) => [style, text])).toEqual([
      ['body', 'place: [The Mile'],
      ['body', 'Dark.'],
    ]);
    expect(read.notes.join()).toContain('fields at the head');
  });

  it('are told from lines that only divide the text', () => {
    for (const text of ['---\n\nDark.\n\n---\n\nLight.', 'Dark.\n\n---\nplace: x\n---', '---\nnever closed: x'])
      expect(frontMatter(text)).toEqual({ facts: [], rest: text, broken: false });
  });

  it('do not blow up: names that stand for others are not followed', () => {
    const bomb = `---\na: &a [x, x]\nb: &b [*a, *a]\nc: [*b, *b]\n---\nDark.`;
    const { facts, broken } = frontMatter(bomb);
    expect([facts, broken]).toEqual([[], true]);
  });
});

describe('Markdown of endless signs', () => {
  it('is read as it is written, and that is said', () => {
    const read = readMarkdown(`Dark *and* cold.\n\n${'*a '.repeat(20_000)}`);
    expect(read.paragraphs[0]!.text).toBe('Dark and cold.');
    expect(read.paragraphs[1]!.text).toBe('*a '.repeat(20_000).trim());
    expect(read.notes).toEqual(['1 paragraph of more signs than words are read as it is written']);
  });
});
