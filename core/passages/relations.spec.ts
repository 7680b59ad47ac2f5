import fc from 'fast-check';
import { rowsOf, type Area } from '../model/area';
import { pixelsInRow } from './pixels';
import { someArea, someStretch } from '../testing/make';
import { after, around, before, inside, overlaps, samePlace } from './relations';
import { union } from './union';

describe('relations of two passages', () => {
  const long = { start: 10, end: 30 };

  it('hold as the definitions say at their edges', () => {
    expect(overlaps(long, { start: 29, end: 40 })).toBeTrue();
    expect(overlaps(long, { start: 30, end: 40 })).toBeFalse();
    expect(inside({ start: 10, end: 20 }, long)).toBeTrue();
    expect(inside(long, long)).toBeFalse();
    expect(around(long, { start: 11, end: 12 })).toBeTrue();
    expect(before(long, { start: 30, end: 31 })).toBeTrue();
    expect(after({ start: 30, end: 31 }, long)).toBeTrue();
  });

  it('leave exactly one of before, after and overlapping true for any pair', () => {
    fc.assert(
      fc.property(someStretch(), someStretch(), (a, b) =>
        expect([before(a, b), after(a, b), overlaps(a, b)].filter(Boolean).length).toBe(1),
      ),
    );
  });

  it('make inside and same place kinds of overlapping', () => {
    fc.assert(
      fc.property(someStretch(), someStretch(), (a, b) => {
        if (inside(a, b) || samePlace(a, b)) expect(overlaps(a, b)).toBeTrue();
        expect(inside(a, b) && inside(b, a)).toBeFalse();
      }),
    );
  });

  it('of areas are those of the pixels they cover', () => {
    const pixels = (area: Area): Set<string> => {
      const found = new Set<string>();
      for (let row = 0; row < 31; row++)
        for (const { start, end } of pixelsInRow(area, row)) for (let x = start; x < end; x++) found.add(`${x} ${row}`);
      return found;
    };
    const all = (some: Set<string>, others: Set<string>) => [...some].every((one) => others.has(one));
    fc.assert(
      fc.property(someArea(), someArea(), (one, two) => {
        const [a, b] = [one, two].map((area) => ({ ...rowsOf(area), area }));
        const [own, other] = [pixels(one), pixels(two)];
        const same = all(own, other) && all(other, own);
        expect(samePlace(a!, b!)).toBe(same);
        expect(overlaps(a!, b!)).toBe([...own].some((each) => other.has(each)));
        expect(inside(a!, b!)).toBe(all(own, other) && !same);
        expect(around(a!, b!)).toBe(all(other, own) && !same);
      }),
      { numRuns: 1000 },
    );
  });

  it('unite to the very positions that any of them covers', () => {
    fc.assert(
      fc.property(fc.array(someStretch()), (stretches) => {
        const sorted = [...stretches].sort((a, b) => a.start - b.start);
        const covers = (all: readonly { start: number; end: number }[], at: number) => all.some((one) => one.start <= at && at < one.end);
        const united = union(sorted);
        for (let at = 0; at < 60; at++) expect(covers(united, at)).toBe(covers(sorted, at));
        for (let at = 1; at < united.length; at++) expect(united[at - 1]!.end).toBeLessThan(united[at]!.start);
      }),
    );
  });
});
