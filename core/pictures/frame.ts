import { boxOf, type Area, type Box } from '../model/area';
import type { Ground, Shown } from '../model/ground';

/** A point of a picture, in pixels; between two where it has to be. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** An affine map: (x, y) goes to (a x + c y + e, b x + d y + f), as the drawing surfaces of browsers have it. */
export interface Affine {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
}

type Picture = Extract<Ground, { of: 'picture' }>;

/** The part of a picture that is shown, in its own pixels. */
export const shownBox = ({ width, height, shown }: Pick<Picture, 'width' | 'height' | 'shown'>): Box =>
  shown?.crop ?? { left: 0, top: 0, right: width, bottom: height };

/** How wide and high a picture is as it is shown. */
export function shownSize(picture: Pick<Picture, 'width' | 'height' | 'shown'>): { readonly width: number; readonly height: number } {
  const { left, top, right, bottom } = shownBox(picture);
  const [width, height] = [right - left, bottom - top];
  return (picture.shown?.turned ?? 0) % 2 === 1 ? { width: height, height: width } : { width, height };
}

/** Where the pixels of a picture go when it is shown: cut, mirrored, and turned, its upper left corner at (0, 0). */
export function shownMap(picture: Pick<Picture, 'width' | 'height' | 'shown'>): Affine {
  const { left, top, right, bottom } = shownBox(picture);
  const [width, height] = [right - left, bottom - top];
  const { mirrored, turned = 0 } = picture.shown ?? {};
  const cut: Affine = mirrored ? { a: -1, b: 0, c: 0, d: 1, e: right, f: -top } : { a: 1, b: 0, c: 0, d: 1, e: -left, f: -top };
  const turns: readonly Affine[] = [
    { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 },
    { a: 0, b: 1, c: -1, d: 0, e: height, f: 0 },
    { a: -1, b: 0, c: 0, d: -1, e: width, f: height },
    { a: 0, b: -1, c: 1, d: 0, e: 0, f: width },
  ];
  return after(turns[turned]!, cut);
}

/** First `inner`, then `outer`. */
export const after = (outer: Affine, inner: Affine): Affine => ({
  a: outer.a * inner.a + outer.c * inner.b,
  b: outer.b * inner.a + outer.d * inner.b,
  c: outer.a * inner.c + outer.c * inner.d,
  d: outer.b * inner.c + outer.d * inner.d,
  e: outer.a * inner.e + outer.c * inner.f + outer.e,
  f: outer.b * inner.e + outer.d * inner.f + outer.f,
});

/** The way back. @throws RangeError for a map that lays everything on a line */
export function inverse({ a, b, c, d, e, f }: Affine): Affine {
  const size = a * d - b * c;
  if (size === 0) throw new RangeError('There is no way back from a line.');
  return { a: d / size, b: -b / size, c: -c / size, d: a / size, e: (c * f - d * e) / size, f: (b * e - a * f) / size };
}

export const mapped = ({ a, b, c, d, e, f }: Affine, { x, y }: Point): Point => ({ x: a * x + c * y + e, y: b * x + d * y + f });

/** How a picture is shown after one more change, seen from how it is shown now. */
export function shownAfter(
  picture: Picture,
  change: 'turn' | 'turn back' | 'mirror' | { readonly crop: Box } | 'whole',
): Shown | undefined {
  const { crop, mirrored, turned = 0 } = picture.shown ?? {};
  const next = (to: {
    readonly crop?: Box | undefined;
    readonly mirrored?: boolean | undefined;
    readonly turned?: number;
  }): Shown | undefined => {
    const turn = (((to.turned ?? 0) % 4) + 4) % 4;
    const box = to.crop && tidyBox(picture, to.crop);
    const shown: Shown = {
      ...(box && { crop: box }),
      ...(to.mirrored && { mirrored: true as const }),
      ...(turn !== 0 && { turned: turn as 1 | 2 | 3 }),
    };
    return Object.keys(shown).length > 0 ? shown : undefined;
  };
  if (change === 'turn') return next({ crop, mirrored, turned: turned + 1 });
  if (change === 'turn back') return next({ crop, mirrored, turned: turned - 1 });
  // mirrored as it is seen: a picture that lies on its side is mirrored across the other way
  if (change === 'mirror') return next({ crop, mirrored: !mirrored, turned: turned % 2 === 1 ? turned + 2 : turned });
  if (change === 'whole') return next({ mirrored, turned });
  return next({ crop: change.crop, mirrored, turned });
}

/** A box in whole pixels within the picture; undefined where it is all of it. */
function tidyBox({ width, height }: Picture, box: Box): Box | undefined {
  const left = Math.max(0, Math.min(width - 1, Math.floor(box.left)));
  const top = Math.max(0, Math.min(height - 1, Math.floor(box.top)));
  const right = Math.max(left + 1, Math.min(width, Math.ceil(box.right)));
  const bottom = Math.max(top + 1, Math.min(height, Math.ceil(box.bottom)));
  return left === 0 && top === 0 && right === width && bottom === height ? undefined : { left, top, right, bottom };
}

/** Whether anything of an area lies in the part of a picture that is shown. */
export function isShown(picture: Pick<Picture, 'width' | 'height' | 'shown'>, area: Area): boolean {
  const [one, box] = [boxOf(area), shownBox(picture)];
  return one.left < box.right && one.right > box.left && one.top < box.bottom && one.bottom > box.top;
}
