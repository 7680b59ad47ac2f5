import { readFileSync } from 'node:fs';
import { readFile, type ReadFile } from './read-file';

/**
 * The files in `fixtures/` were written by LibreOffice 7.4 from one source: a heading, a paragraph with italics,
 * bold and other scripts, a list, a quotation, a table of one row, and thirty turns of an interview of the demo study;
 * `columns.pdf` from some of its turns, in two columns.
 */
const fixture = (name: string): Promise<ReadFile> => readFile(name, new Uint8Array(readFileSync(`core/formats/fixtures/${name}`)));
const TURNS = readFileSync('core/formats/fixtures/interview.expected.txt', 'utf8').trim().split('\n');
const OPENING = 'Taken at the surgery on 22 January, in the hush week. Ünïcödé: Ærø, Łódź, שלום.';

const textsOf = (read: ReadFile) => read.paragraphs.map((paragraph) => paragraph.text);
const emphasised = (read: ReadFile, text: string) => {
  const paragraph = read.paragraphs.find((one) => one.text === text)!;
  return paragraph.emphasis.map((span) => `${span.emphasis}: ${paragraph.text.slice(span.start, span.end)}`).sort();
};

describe('files written by an office program', () => {
  for (const ending of ['docx', 'odt', 'rtf', 'html', 'epub']) {
    it(`are read from .${ending} with every word and the formatting that carries meaning`, async () => {
      const read = await fixture(`interview.${ending}`);
      expect(textsOf(read)).toEqual([
        'Interview 03',
        OPENING,
        'the thumb',
        'the night boat',
        'They held her.',
        'crossings\tfive a month',
        ...TURNS,
      ]);
      expect(read.title).toBe('Interview 03');
      expect(read.speakers.flatMap((speaker) => (speaker.taken ? [speaker.name] : [])).sort()).toEqual(['Interviewer', 'Shona']);
      // an office program writes the looks of a book into its style sheet, which is not read
      if (ending === 'epub') return;
      expect(read.paragraphs[0]!.style).toBe('heading1');
      expect(read.paragraphs.slice(2, 4).map((paragraph) => paragraph.style)).toEqual(['list item', 'list item']);
      expect(emphasised(read, OPENING)).toEqual(['bold: hush week', 'italic: 22 January']);
    });
  }

  it('lose only the looks when the formatting is dropped', async () => {
    const bytes = new Uint8Array(readFileSync('core/formats/fixtures/interview.odt'));
    const plain = await readFile('interview.odt', bytes, { plain: true });
    expect(textsOf(plain)).toEqual(textsOf(await fixture('interview.odt')));
    expect(new Set(plain.paragraphs.flatMap((paragraph) => [paragraph.style, ...paragraph.emphasis]))).toEqual(new Set(['body']));
  });

  it('are read from .pdf in reading order, pages as marks, without headers and footers', async () => {
    const read = await fixture('interview.pdf');
    const texts = textsOf(read);
    expect(texts.slice(0, 5)).toEqual(['Interview 03', OPENING, 'the thumb', 'the night boat', 'They held her.']);
    expect(texts.slice(-TURNS.length)).toEqual(TURNS);
    expect(read.paragraphs.flatMap((paragraph) => paragraph.marks ?? []).map((mark) => mark.value)).toEqual([1, 2, 3, 4, 5, 6]);
    expect(texts.join(' ')).not.toMatch(/transcripts|page \d/);
    expect(emphasised(read, OPENING)).toEqual(['bold: hush week', 'italic: 22 January']);
    expect(read.notes.join('; ')).toMatch(/lines of headers, footers and page numbers left out/);
  }, 60_000);

  it('are read from a .pdf with two columns, one after the other, below what runs over both', async () => {
    const expected = readFileSync('core/formats/fixtures/columns.expected.txt', 'utf8').trim().split('\n');
    const read = await fixture('columns.pdf');
    const texts = textsOf(read);
    expect(texts[0]).toBe('What the boat was for');
    expect(texts[1]).toMatch(/^Notes of an evening .* begins\.$/);
    // the paragraph that goes on in the second column is one
    expect(texts.slice(2)).toEqual(expected);
    expect(read.title).toBe('What the boat was for');
    expect(read.notes).toContain('one line of headers, footers and page numbers left out');
  }, 30_000);
});
