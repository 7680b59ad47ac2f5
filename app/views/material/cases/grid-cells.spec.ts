import { inRange, rangeOf, readPasted } from './grid-cells';

describe('cells of a grid', () => {
  it('make a range from any two corners', () => {
    const range = rangeOf({ row: 3, column: 1 }, { row: 1, column: 2 });
    expect(range).toEqual({ top: 1, bottom: 3, left: 1, right: 2 });
    expect([inRange(range, { row: 2, column: 2 }), inRange(range, { row: 0, column: 1 })]).toEqual([true, false]);
  });

  it('are pasted from a spreadsheet where the corner is, empty ones and line ends in cells too', () => {
    const at = (text: string) => readPasted(text, { row: 2, column: 1 }).map(({ row, column, raw }) => `${row},${column} ${raw}`);
    expect(at('a\tb\r\nc\td\r\n')).toEqual(['2,1 a', '2,2 b', '3,1 c', '3,2 d']);
    expect(at('a\t\tc')).toEqual(['2,1 a', '2,2 ', '2,3 c']);
    expect(at('"two\nlines"\tx')).toEqual(['2,1 two\nlines', '2,2 x']);
    expect(at('say "so"')).toEqual(['2,1 say "so"']);
    expect(at('one')).toEqual(['2,1 one']);
  });
});
