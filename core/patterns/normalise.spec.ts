import type { CrossTable } from './cross-table';
import { shownCell, shownNumber } from './normalise';

describe('a count in another measure', () => {
  // the 2 × 2 table 30, 10 / 20, 40
  const entries = ['a', 'b'].map((key) => ({ key, path: [key] }));
  const table: CrossTable = {
    rows: entries,
    columns: entries,
    counts: Float64Array.from([30, 10, 40, 20, 40, 60, 50, 50, 100]),
    sizes: [
      { documents: 2, cases: 4, words: 2_000 },
      { documents: 1, cases: 0, words: null },
      { documents: 3, cases: 4, words: null },
    ],
    severalCoders: false,
  };
  const value = (row: number, column: number, as: Parameters<typeof shownCell>[3]) => shownCell(table, row, column, as).value;

  it('is a share of its row or column, or stands for the size of its group', () => {
    expect(value(0, 0, 'per row')).toBe(75);
    expect(value(0, 0, 'per column')).toBe(60);
    expect(value(2, 0, 'per column')).toBe(100);
    expect(value(0, 0, 'per case')).toBe(7.5);
    expect(value(0, 0, 'per 1,000 words')).toBe(15);
    expect(value(0, 1, 'presence')).toBe(1);
  });

  it('is not said where there is nothing to divide by', () => {
    expect(value(0, 1, 'per case')).toBeNull();
    expect(value(0, 1, 'per 1,000 words')).toBeNull();
  });

  it('is held against what would be expected: (30 − 20) ÷ √20', () => {
    const cell = shownCell(table, 0, 0, 'against expected');
    expect(cell.expected).toBe(20);
    expect(cell.value).toBeCloseTo(2.236, 3);
    expect(value(1, 0, 'against expected')).toBeCloseTo(-1.826, 3);
    expect(value(2, 0, 'against expected')).toBeNull();
  });

  it('is never written as nothing where there is something', () => {
    expect(shownNumber(0, 'en')).toBe('0');
    expect(shownNumber(0.04, 'en')).toBe('< 0.1');
    expect(shownNumber(-0.01, 'en')).toBe('> −0.1');
    expect(shownNumber(1_234.56, 'en')).toBe('1,234.6');
    expect(shownNumber(0.5, 'en')).toBe('0.5');
    expect([shownNumber(2, 'en'), shownNumber(2, 'en', true), shownNumber(0, 'en', true)]).toEqual(['2', '2.0', '0']);
  });
});
