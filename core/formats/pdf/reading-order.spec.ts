import fc from 'fast-check';
import { assemblePages, type PdfLine } from './assemble-pages';
import { linesInReadingOrder } from './reading-order';

const line = (text: string, left: number, fromTop: number, width: number): PdfLine => ({
  text,
  left,
  right: left + width,
  fromTop,
  size: 10,
  emphasis: [],
});

/** Lines of a column of prose, 12 points apart. */
const column = (name: string, left: number, count: number, from = 100, width = 220): PdfLine[] =>
  Array.from({ length: count }, (_, at) => line(`${name}${at + 1}`, left, from + 12 * at, width - (at % 3) * 4));

const texts = (lines: readonly PdfLine[]) => lines.map((one) => one.text);

describe('the order of a page', () => {
  const left = column('L', 50, 8);
  const right = column('R', 300, 8);
  const expected = [...texts(left), ...texts(right)];

  it('is column by column, in whatever order the lines were written', () => {
    expect(texts(linesInReadingOrder([...left, ...right]))).toEqual(expected);
    // line by line across both columns, as some programs write
    expect(texts(linesInReadingOrder(left.flatMap((one, at) => [one, right[at]!])))).toEqual(expected);
    fc.assert(
      fc.property(fc.shuffledSubarray([...left, ...right], { minLength: 16 }), (shuffled) => {
        expect(texts(linesInReadingOrder(shuffled))).toEqual(expected);
      }),
      { numRuns: 50 },
    );
  });

  it('goes through both columns above a line that runs across before those below it', () => {
    const title = line('Title over both', 50, 80, 470);
    const across = line('A heading over both columns', 50, 204, 470);
    const below = [...column('l', 50, 6, 230), ...column('r', 300, 6, 230)];
    const read = texts(linesInReadingOrder([...below, across, ...right, ...left, title]));
    expect(read).toEqual(['Title over both', ...expected, 'A heading over both columns', ...texts(below)]);
  });

  it('has three columns where there are three', () => {
    const columns = [column('a', 40, 7, 100, 150), column('b', 215, 7, 100, 150), column('c', 390, 7, 100, 150)];
    const written = columns[0]!.flatMap((_, at) => columns.map((one) => one[at]!));
    expect(texts(linesInReadingOrder(written))).toEqual(columns.flatMap(texts));
  });

  it('is as written where one column fills the page, the cells of a row divided by tabs', () => {
    const page = column('x', 50, 10, 100, 470);
    expect(texts(linesInReadingOrder(page))).toEqual(texts(page));
    const table = Array.from({ length: 8 }, (_, at) => [
      line(`name ${at}`, 50, 100 + 14 * at, 20 + 9 * (at % 4)),
      line(`${at * 7}`, 300, 100 + 14 * at, 10 + 55 * (at % 3 === 0 ? 1 : 0)),
    ]).flat();
    expect(texts(linesInReadingOrder(table))[2]).toBe('name 2\t14');
    expect(linesInReadingOrder(table).length).toBe(8);
  });

  it('does not take a narrow column of speakers’ names for one of prose', () => {
    const transcript = Array.from({ length: 8 }, (_, at) => [
      line(at % 2 ? 'Shona:' : 'Interviewer:', 50, 100 + 14 * at, at % 2 ? 34 : 60),
      line(`words of turn ${at}`, 140, 100 + 14 * at, 300 + at),
    ]).flat();
    expect(texts(linesInReadingOrder(transcript))[1]).toBe('Shona:\twords of turn 1');
  });

  it('joins pieces of one line with their emphasis', () => {
    const [joined] = linesInReadingOrder([
      line('never', 50, 100, 40),
      { ...line('told', 100, 100, 40), emphasis: [{ start: 0, end: 4, emphasis: 'italic' }] },
    ]);
    expect(joined!.text).toBe('never told');
    expect(joined!.emphasis).toEqual([{ start: 6, end: 10, emphasis: 'italic' }]);
  });

  it('lets paragraphs go on from column to column, and end where a line ends early in its own column', () => {
    const first = column('Left goes on', 50, 6).map((one, at) => (at === 2 ? { ...one, text: 'ends here.', right: 110 } : one));
    const second = column('right goes on', 300, 6);
    const { paragraphs } = assemblePages([{ number: 1, width: 560, height: 800, lines: linesInReadingOrder([...first, ...second]) }]);
    expect(paragraphs.length).toBe(2);
    expect(paragraphs[0]!.text).toMatch(/ends here\.$/);
    expect(paragraphs[1]!.text).toMatch(/Left goes on6 right goes on1/);
  });
});
