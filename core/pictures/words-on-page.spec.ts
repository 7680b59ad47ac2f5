import { linesOf, wordsOnPage, type PageWords } from './words-on-page';

/** A run of letters ten pixels wide each, on a line twenty pixels high. */
const run = (text: string, column: number, line: number): PageWords => ({
  text,
  left: column * 10,
  right: (column + text.length) * 10,
  top: line * 20,
  bottom: line * 20 + 16,
});
const found = (text: string, page: readonly PageWords[], stretch = { start: 0, end: text.length }) =>
  wordsOnPage(text, stretch, page).map(({ start, end, boxes }) => [
    text.slice(start, end),
    boxes.map(({ left, top }) => `${left},${top}`).join(' '),
  ]);

describe('The words of a text on its page', () => {
  it('stand where they were printed, the same word at each of its places in turn', () => {
    const page = [run('The boat, the pier', 0, 0), run('and the boat.', 0, 1)];
    expect(found('The boat, the pier and the boat.', page)).toEqual([
      ['The', '0,0'],
      ['boat', '40,0'],
      ['the', '100,0'],
      ['pier', '140,0'],
      ['and', '0,20'],
      ['the', '40,20'],
      ['boat', '80,20'],
    ]);
  });

  it('stand in two places where the page divides them', () => {
    expect(found('the passenger came', [run('the passen-', 0, 0), run('ger came', 0, 1)])).toEqual([
      ['the', '0,0'],
      ['passenger', '40,0 0,20'],
      ['came', '40,20'],
    ]);
  });

  it('have no place where they were corrected, and those after them are found all the same', () => {
    expect(found('the quay was empty', [run('the pier was empty', 0, 0)])).toEqual([
      ['the', '0,0'],
      ['was', '90,0'],
      ['empty', '130,0'],
    ]);
    expect(found('nothing of it', [])).toEqual([]);
  });

  it('are looked for on their own page only', () => {
    const text = 'one two three four';
    expect(found(text, [run('three four', 0, 0)], { start: 8, end: 18 })).toEqual([
      ['three', '0,0'],
      ['four', '60,0'],
    ]);
  });

  it('are one box for each line they stand on', () => {
    const page = [run('The boat, the pier', 0, 0), run('and the boat.', 0, 1)];
    const boxes = wordsOnPage('The boat, the pier and the boat.', { start: 4, end: 22 }, page).flatMap((one) => one.boxes);
    expect(linesOf(boxes).map(({ left, right, top }) => [left, right, top])).toEqual([
      [40, 180, 0],
      [0, 30, 20],
    ]);
  });
});
