import type { OrderedPlace, Place } from '../model/stretch';
import { pixelsWithin, sharePixels } from './pixels';

/**
 * Relations of two places of one document, whatever its ground: with [a₀,a₁) and [b₀,b₁) in characters or milliseconds,
 * or, of areas, with the pixels they cover.
 */

/** max(a₀,b₀) < min(a₁,b₁); of areas: they have a pixel in common. */
export const overlaps = (a: Place, b: Place): boolean =>
  Math.max(a.start, b.start) < Math.min(a.end, b.end) && (!a.area || !b.area || sharePixels(a.area, b.area));

/** a₀ = b₀ and a₁ = b₁; of areas: they cover the same pixels, however they are drawn. */
export const samePlace = (a: Place, b: Place): boolean =>
  a.area && b.area
    ? a.area === b.area || (pixelsWithin(a.area, b.area) && pixelsWithin(b.area, a.area))
    : a.start === b.start && a.end === b.end;

/** b₀ ≤ a₀ and a₁ ≤ b₁ and not the same place; of areas: b covers every pixel of a, and others. */
export const inside = (a: Place, b: Place): boolean =>
  (a.area && b.area ? pixelsWithin(a.area, b.area) : b.start <= a.start && a.end <= b.end) && !samePlace(a, b);

/** The reverse of {@link inside}. */
export const around = (a: Place, b: Place): boolean => inside(b, a);

/** a ends before b starts, touching allowed: a₁ ≤ b₀. Areas of a picture have no such order. */
export const before = (a: OrderedPlace, b: OrderedPlace): boolean => a.end <= b.start;

/** a starts after b ends, touching allowed: b₁ ≤ a₀ */
export const after = (a: OrderedPlace, b: OrderedPlace): boolean => before(b, a);
