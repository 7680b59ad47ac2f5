import * as z from 'zod';
import { CountSchema } from './fields';
import type { Stretch } from './stretch';

/** Pixels along a side of a picture at most. */
export const MOST_PIXELS = 0xffff;

const SideSchema = z.number().int().min(1).max(MOST_PIXELS);

/**
 * An area of a picture, in the picture's own pixels, x to the right and y downwards from its upper left corner. A
 * rectangle and an ellipse are given by their box; a polygon by its corners, closed by itself, by the even-odd rule
 * where its sides cross.
 */
export const AreaSchema = z.discriminatedUnion('shape', [
  z.strictObject({ shape: z.literal('rectangle'), x: CountSchema, y: CountSchema, width: SideSchema, height: SideSchema }),
  z.strictObject({ shape: z.literal('ellipse'), x: CountSchema, y: CountSchema, width: SideSchema, height: SideSchema }),
  z.strictObject({
    shape: z.literal('polygon'),
    corners: z
      .array(z.strictObject({ x: CountSchema, y: CountSchema }))
      .min(3, 'has fewer than three corners')
      .max(10_000, 'has more than 10,000 corners'),
  }),
]);
export type Area = z.infer<typeof AreaSchema>;

/** A box: columns of pixels `[left, right)` and rows `[top, bottom)`. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The box an area lies in. */
export function boxOf(area: Area): Box {
  if (area.shape !== 'polygon') return { left: area.x, top: area.y, right: area.x + area.width, bottom: area.y + area.height };
  const box = { left: Infinity, top: Infinity, right: 0, bottom: 0 };
  for (const { x, y } of area.corners) {
    box.left = Math.min(box.left, x);
    box.top = Math.min(box.top, y);
    box.right = Math.max(box.right, x);
    box.bottom = Math.max(box.bottom, y);
  }
  return box;
}

/** The rows of pixels an area reaches over, by which areas are ordered and found as stretches of a text are. */
export function rowsOf(area: Area): Stretch {
  const { top, bottom } = boxOf(area);
  return { start: top, end: bottom };
}
