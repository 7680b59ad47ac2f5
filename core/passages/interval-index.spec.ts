import fc from 'fast-check';
import { someStretch } from '../testing/make';
import { IntervalIndex } from './interval-index';
import { overlaps } from './relations';

describe('the interval index', () => {
  it('finds exactly what looking at every interval finds', () => {
    fc.assert(
      fc.property(fc.array(someStretch(), { maxLength: 80 }), someStretch(), (stretches, asked) => {
        const sorted = [...stretches].sort((a, b) => a.start - b.start);
        const index = new IntervalIndex({ starts: sorted.map((one) => one.start), ends: sorted.map((one) => one.end) });
        const naive = sorted.flatMap((one, row) => (overlaps(one, asked) ? [row] : []));
        expect(index.overlapping(asked.start, asked.end)).toEqual(naive);
      }),
      { numRuns: 500 },
    );
  });

  it('leaves out intervals that only touch', () => {
    const index = new IntervalIndex({ starts: [0, 5, 10], ends: [5, 10, 15] });
    expect(index.overlapping(5, 10)).toEqual([1]);
    expect(index.at(5)).toEqual([1]);
    expect(index.at(4)).toEqual([0]);
  });

  it('finds a long interval that starts far in front of the others', () => {
    const index = new IntervalIndex({ starts: [0, 10, 20, 30], ends: [100, 12, 22, 32] });
    expect(index.overlapping(50, 60)).toEqual([0]);
  });

  it('is empty for no intervals and refuses unsorted ones', () => {
    expect(new IntervalIndex({ starts: [], ends: [] }).overlapping(0, 10)).toEqual([]);
    expect(() => new IntervalIndex({ starts: [5, 1], ends: [6, 2] })).toThrowError(RangeError);
  });
});
