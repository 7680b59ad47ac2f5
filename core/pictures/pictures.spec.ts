import fc from 'fast-check';
import { boxOf, type Area } from '../model/area';
import type { Ground } from '../model/ground';
import { pixelsCovered } from '../passages/pixels';
import { standsIn } from '../passages/standing';
import { someArea } from '../testing/make';
import { rowsOf } from '../model/area';
import { after, inverse, isShown, mapped, shownAfter, shownBox, shownMap, shownSize } from './frame';
import { areaAlong, areaBetween, fittedArea, movedArea, scaledArea } from './shape-area';

type Picture = Extract<Ground, { of: 'picture' }>;
const SIZE = { width: 40, height: 30 };
const plain: Picture = { of: 'picture', ...SIZE, media: { sha256: '0'.repeat(64), bytes: 1, type: 'image/png' } };
const someCrop = fc
  .tuple(fc.nat(38), fc.nat(28), fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 30 }))
  .map(([left, top, width, height]) => ({ left, top, right: Math.min(40, left + width), bottom: Math.min(30, top + height) }));
const someChange = fc.oneof(
  fc.constantFrom('turn' as const, 'turn back' as const, 'mirror' as const, 'whole' as const),
  someCrop.map((crop) => ({ crop })),
);
const changed = (changes: readonly Parameters<typeof shownAfter>[1][]): Picture =>
  changes.reduce<Picture>((picture, change) => {
    const shown = shownAfter(picture, change);
    const { shown: _, ...rest } = picture;
    return shown ? { ...rest, shown } : rest;
  }, plain);
const whole = (area: Area) => standsIn({ ground: plain, characters: 0 }, { ...rowsOf(area), area });
const covers = (area: Area) => pixelsCovered([area]) > 0;

describe('How a picture is shown', () => {
  it('turns and mirrors as it is seen', () => {
    const corner = (picture: Picture) => mapped(shownMap(picture), { x: 0, y: 0 });
    expect(shownSize(changed(['turn']))).toEqual({ width: 30, height: 40 });
    expect(corner(changed(['turn']))).toEqual({ x: 30, y: 0 });
    expect(corner(changed(['mirror']))).toEqual({ x: 40, y: 0 });
    // mirrored after it was turned: what was at the right is at the left
    expect(corner(changed(['turn', 'mirror']))).toEqual({ x: 0, y: 0 });
    expect(changed(['turn', 'turn', 'turn', 'turn'])).toEqual(plain);
    expect(changed(['mirror', 'mirror', 'turn', 'turn back'])).toEqual(plain);
  });

  it('keeps every pixel of what is shown within its size, whatever was done to it, and finds back', () => {
    fc.assert(
      fc.property(fc.array(someChange, { maxLength: 6 }), fc.nat(100), fc.nat(100), (changes, u, v) => {
        const picture = changed(changes);
        const { left, top, right, bottom } = shownBox(picture);
        const { width, height } = shownSize(picture);
        const point = { x: left + ((right - left) * u) / 100, y: top + ((bottom - top) * v) / 100 };
        const shown = mapped(shownMap(picture), point);
        expect(shown.x >= -1e-9 && shown.x <= width + 1e-9 && shown.y >= -1e-9 && shown.y <= height + 1e-9).toBeTrue();
        const back = mapped(inverse(shownMap(picture)), shown);
        expect(Math.hypot(back.x - point.x, back.y - point.y)).toBeLessThan(1e-6);
        const both = after(inverse(shownMap(picture)), shownMap(picture));
        expect([both.a, both.d].every((one) => Math.abs(one - 1) < 1e-9)).toBeTrue();
      }),
    );
  });

  it('mirrors twice to the same, and turns commute with nothing but themselves, on any picture', () => {
    fc.assert(
      fc.property(fc.array(someChange, { maxLength: 5 }), (changes) => {
        const picture = changed(changes);
        expect(changed([...changes, 'mirror', 'mirror'])).toEqual(picture);
        expect(changed([...changes, 'turn', 'turn back'])).toEqual(picture);
        const { width, height } = shownSize(picture);
        const seen = mapped(shownMap(picture), { x: 7, y: 11 });
        expect(mapped(shownMap(changed([...changes, 'mirror'])), { x: 7, y: 11 })).toEqual({ x: width - seen.x, y: seen.y });
        expect(mapped(shownMap(changed([...changes, 'turn'])), { x: 7, y: 11 })).toEqual({ x: height - seen.y, y: seen.x });
      }),
    );
  });

  it('says what lies outside of what is shown', () => {
    const picture = changed([{ crop: { left: 10, top: 10, right: 20, bottom: 20 } }]);
    expect(isShown(picture, { shape: 'rectangle', x: 19, y: 0, width: 5, height: 11 })).toBeTrue();
    expect(isShown(picture, { shape: 'rectangle', x: 20, y: 10, width: 5, height: 5 })).toBeFalse();
  });

  it('counts what is coded of the part that is shown, pixel by pixel', () => {
    fc.assert(
      fc.property(fc.array(someArea(), { maxLength: 4 }), someCrop, (areas, crop) => {
        let naive = 0;
        for (let y = crop.top; y < crop.bottom; y++)
          for (let x = crop.left; x < crop.right; x++)
            if (pixelsCovered(areas, { left: x, top: y, right: x + 1, bottom: y + 1 }) === 1) naive++;
        expect(pixelsCovered(areas, crop)).toBe(naive);
      }),
      { numRuns: 15 },
    );
  });
});

describe('An area', () => {
  it('is drawn between two points in whole pixels, and never outside', () => {
    expect(areaBetween('rectangle', { x: 12.4, y: 20 }, { x: 3.6, y: 5 }, SIZE)).toEqual({
      shape: 'rectangle',
      x: 4,
      y: 5,
      width: 8,
      height: 15,
    });
    expect(areaBetween('ellipse', { x: -9, y: 29 }, { x: 99, y: 99 }, SIZE)).toEqual({
      shape: 'ellipse',
      x: 0,
      y: 29,
      width: 40,
      height: 1,
    });
    expect(areaBetween('rectangle', { x: 3, y: 5 }, { x: 3.2, y: 9 }, SIZE)).toBeNull();
  });

  it('is drawn by hand with no more corners than it needs', () => {
    const side = (from: number[], to: number[]) =>
      Array.from({ length: 50 }, (_, at) => ({
        x: from[0]! + ((to[0]! - from[0]!) * at) / 49,
        y: from[1]! + ((to[1]! - from[1]!) * at) / 49,
      }));
    const drawn = [...side([2, 2], [30, 2]), ...side([30, 2], [30, 25]), ...side([30, 25], [2, 2])];
    const area = areaAlong(drawn, SIZE)!;
    expect(area.shape === 'polygon' && area.corners.length).toBeLessThanOrEqual(5);
    expect(boxOf(area)).toEqual({ left: 2, top: 2, right: 30, bottom: 25 });
    expect(areaAlong(side([2, 2], [2, 9]), SIZE)).toBeNull();
    expect(areaAlong([{ x: 1, y: 1 }], SIZE)).toBeNull();
  });

  it('keeps its size when it is moved, and stays in the picture however it is moved or drawn anew', () => {
    fc.assert(
      fc.property(someArea(), fc.integer({ min: -60, max: 60 }), fc.integer({ min: -60, max: 60 }), (area, x, y) => {
        const [before, moved] = [boxOf(area), boxOf(movedArea(area, { x, y }, SIZE))];
        expect([moved.right - moved.left, moved.bottom - moved.top]).toEqual([before.right - before.left, before.bottom - before.top]);
        expect(moved.left >= 0 && moved.top >= 0 && moved.right <= 40 && moved.bottom <= 30).toBeTrue();
        if (whole(area) && area.shape !== 'polygon') {
          const fitted = fittedArea(area, { left: x, top: y, right: x + 5, bottom: y - 4 }, SIZE);
          expect(whole(fitted)).toBeTrue();
        }
      }),
    );
  });

  it('lies on the same part when its picture is made smaller or larger, and is never nothing', () => {
    fc.assert(
      // of corners that lie on a line nothing is covered, and nobody can draw that
      fc.property(someArea().filter(covers), fc.integer({ min: 4, max: 200 }), (area, width) => {
        const to = { width, height: Math.max(1, Math.round((width * 30) / 40)) };
        const scaled = boxOf(scaledArea(area, SIZE, to));
        expect(
          scaled.right > scaled.left && scaled.bottom > scaled.top && scaled.right <= to.width && scaled.bottom <= to.height,
        ).toBeTrue();
        const { left, top } = boxOf(area);
        expect(Math.abs(scaled.left - (left * to.width) / 40)).toBeLessThanOrEqual(1);
        expect(Math.abs(scaled.top - (top * to.height) / 30)).toBeLessThanOrEqual(1);
      }),
    );
  });
});
