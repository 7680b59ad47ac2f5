import { rowsOf, type Area } from '../model/area';
import type { Grounded } from '../model/document';
import { unpackPassages } from './columns';
import { coveredOf, shareCovered } from './covered';
import { packPassages } from './columns';
import { standsIn } from './standing';
import { union } from './union';
import fc from 'fast-check';
import { somePassages } from '../testing/make';

const media = { sha256: 'a'.repeat(64), bytes: 1, type: 'audio/wav' };
const text: Grounded = { ground: { of: 'text' }, characters: 100 };
const tape: Grounded = { ground: { of: 'time', milliseconds: 5_000, media }, characters: 0 };
const plan: Grounded = { ground: { of: 'picture', width: 40, height: 30, media }, characters: 0 };
const box = (x: number, y: number, width: number, height: number): Area => ({ shape: 'rectangle', x, y, width, height });
const placed = (area: Area) => ({ ...rowsOf(area), area });

describe('a place', () => {
  it('stands in a document of its own ground, and within it', () => {
    expect(standsIn(text, { start: 0, end: 100 })).toBeTrue();
    expect(standsIn(text, { start: 0, end: 101 })).toBeFalse();
    expect(standsIn(text, { start: 5, end: 5 })).toBeFalse();
    expect(standsIn(text, placed(box(0, 0, 5, 5)))).toBeFalse();
    expect(standsIn(tape, { start: 4_999, end: 5_000 })).toBeTrue();
    expect(standsIn(tape, { start: 4_999, end: 5_001 })).toBeFalse();
    expect(standsIn(tape, { start: NaN, end: 10 })).toBeFalse();
    expect(standsIn(plan, placed(box(35, 25, 5, 5)))).toBeTrue();
    expect(standsIn(plan, placed(box(36, 25, 5, 5)))).toBeFalse();
    expect(standsIn(plan, { start: 0, end: 5 })).toBeFalse();
    expect(standsIn(plan, { ...placed(box(0, 0, 5, 5)), end: 6 })).toBeFalse();
  });

  it('of a picture covers at least a pixel', () => {
    const line: Area = {
      shape: 'polygon',
      corners: [
        { x: 1, y: 1 },
        { x: 5, y: 5 },
        { x: 9, y: 9 },
      ],
    };
    expect(standsIn(plan, placed(line))).toBeFalse();
  });
});

describe('what is covered', () => {
  const passage = (at: number, start: number, end: number, area?: Area) => ({
    ...{ id: `00000000-0000-4000-9000-${String(at).padStart(12, '0')}`, documentId: 'd', start, end, comment: '' },
    ...{ coderId: 'c', createdAt: 0, codings: [], ...(area && { area }) },
  });

  it('is counted once, in the measure of the ground', () => {
    const stretches = [passage(1, 0, 30), passage(2, 20, 40)];
    expect(coveredOf(text, packPassages('d', stretches))).toEqual({ measure: 'characters', covered: 40, all: 100 });
    expect(coveredOf(tape, packPassages('d', stretches, 'time'))).toEqual({ measure: 'milliseconds', covered: 40, all: 5_000 });
    const areas = [box(0, 0, 10, 10), box(5, 5, 10, 10)].map((area, at) =>
      passage(at, area.shape === 'rectangle' ? area.y : 0, at * 5 + 10, area),
    );
    expect(coveredOf(plan, packPassages('d', areas, 'picture'))).toEqual({ measure: 'pixels', covered: 175, all: 1_200 });
  });

  it('of a text is as long as the union of its passages', () => {
    fc.assert(
      fc.property(somePassages('d', 100), (passages) => {
        const sorted = [...passages].sort((a, b) => a.start - b.start);
        const long = union(sorted).reduce((sum, { start, end }) => sum + end - start, 0);
        expect(coveredOf(text, packPassages('d', passages)).covered).toBe(long);
      }),
    );
  });

  it('is nothing of what has nothing', () => {
    expect(shareCovered(coveredOf({ ground: { of: 'text' }, characters: 0 }, undefined))).toBe(0);
    expect(coveredOf(plan, undefined).covered).toBe(0);
  });

  it('of areas that were stored and read again is the same, in reading order from the top and the left', () => {
    const areas = [box(20, 3, 4, 4), box(2, 3, 4, 4), box(0, 0, 3, 3)].map((area, at) =>
      passage(at, rowsOf(area).start, rowsOf(area).end, area),
    );
    const columns = structuredClone(packPassages('d', areas, 'picture'));
    expect(unpackPassages(columns).map((one) => one.area)).toEqual([areas[2]!.area, areas[1]!.area, areas[0]!.area]);
  });

  it('cannot be mixed: a passage that stands in another ground is refused', () => {
    expect(() => packPassages('d', [passage(1, 0, 3, box(0, 0, 3, 3))])).toThrowError(RangeError);
    expect(() => packPassages('d', [passage(1, 0, 3)], 'picture')).toThrowError(RangeError);
  });
});
