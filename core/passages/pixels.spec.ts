import fc from 'fast-check';
import { boxOf, type Area } from '../model/area';
import { someArea } from '../testing/make';
import { pixelsCovered, pixelsInRow } from './pixels';

const count = (area: Area): number => pixelsCovered([area]);

describe('pixels of an area', () => {
  it('are those whose centres lie in it: worked out by hand', () => {
    expect(count({ shape: 'rectangle', x: 3, y: 2, width: 5, height: 4 })).toBe(20);
    // a circle of 4 pixels across: 2, 4, 4 and 2 centres lie within 2 of its middle
    expect([0, 1, 2, 3].map((row) => pixelsInRow({ shape: 'ellipse', x: 0, y: 0, width: 4, height: 4 }, row))).toEqual([
      [{ start: 1, end: 3 }],
      [{ start: 0, end: 4 }],
      [{ start: 0, end: 4 }],
      [{ start: 1, end: 3 }],
    ]);
    // half a square of 4: the diagonal goes through the centres of 4 pixels, which are to the right of its start
    const triangle = [0, 1, 2, 3].map((row) =>
      pixelsInRow(
        {
          shape: 'polygon',
          corners: [
            { x: 0, y: 0 },
            { x: 4, y: 4 },
            { x: 0, y: 4 },
          ],
        },
        row,
      ),
    );
    expect(triangle).toEqual([[], [{ start: 0, end: 1 }], [{ start: 0, end: 2 }], [{ start: 0, end: 3 }]]);
  });

  it('of a polygon that crosses itself are inside where its sides were crossed an odd number of times', () => {
    const bow = {
      shape: 'polygon',
      corners: [
        { x: 0, y: 0 },
        { x: 8, y: 8 },
        { x: 8, y: 0 },
        { x: 0, y: 8 },
      ],
    } as const;
    expect(pixelsInRow({ ...bow, corners: [...bow.corners] }, 1)).toEqual([
      { start: 0, end: 1 },
      { start: 6, end: 8 },
    ]);
  });

  it('of corners on one line are none', () => {
    expect(
      count({
        shape: 'polygon',
        corners: [
          { x: 0, y: 0 },
          { x: 5, y: 5 },
          { x: 9, y: 9 },
        ],
      }),
    ).toBe(0);
  });

  it('lie within its box', () => {
    fc.assert(
      fc.property(someArea(), (area) => {
        const { left, top, right, bottom } = boxOf(area);
        for (let row = 0; row < 40; row++)
          for (const { start, end } of pixelsInRow(area, row)) {
            expect(top <= row && row < bottom).toBeTrue();
            expect(left <= start && start < end && end <= right).toBeTrue();
          }
      }),
    );
  });

  it('of several areas count once', () => {
    fc.assert(
      fc.property(fc.array(someArea(), { maxLength: 6 }), (areas) => {
        const seen = new Set<number>();
        for (const area of areas)
          for (let row = 0; row < 40; row++)
            for (const { start, end } of pixelsInRow(area, row)) for (let x = start; x < end; x++) seen.add(row * 100 + x);
        expect(pixelsCovered(areas)).toBe(seen.size);
      }),
    );
  });
});
