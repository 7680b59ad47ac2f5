import { boxOf, type Area, type Box } from '../model/area';
import type { Point } from './frame';

/** A picture's own size, in pixels. */
interface Size {
  readonly width: number;
  readonly height: number;
}

/** The most corners that an outline drawn by hand keeps. */
const MOST_CORNERS = 400;

/** An area between two corners of a box, in whole pixels within the picture; null where it would be thinner than a pixel. */
export function areaBetween(shape: 'rectangle' | 'ellipse', one: Point, other: Point, size: Size): Area | null {
  const left = clamp(Math.round(Math.min(one.x, other.x)), size.width);
  const right = clamp(Math.round(Math.max(one.x, other.x)), size.width);
  const top = clamp(Math.round(Math.min(one.y, other.y)), size.height);
  const bottom = clamp(Math.round(Math.max(one.y, other.y)), size.height);
  return left < right && top < bottom ? { shape, x: left, y: top, width: right - left, height: bottom - top } : null;
}

/** An area from an outline drawn by hand, with no more corners than it needs; null where it encloses nothing. */
export function areaAlong(points: readonly Point[], size: Size, tolerance = 1): Area | null {
  const corners = simplified(
    points.map(({ x, y }) => ({ x: clamp(Math.round(x), size.width), y: clamp(Math.round(y), size.height) })),
    tolerance,
  );
  const box = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
  for (const { x, y } of corners) {
    box.left = Math.min(box.left, x);
    box.right = Math.max(box.right, x);
    box.top = Math.min(box.top, y);
    box.bottom = Math.max(box.bottom, y);
  }
  return corners.length >= 3 && box.right - box.left >= 1 && box.bottom - box.top >= 1 ? { shape: 'polygon', corners } : null;
}

/** An area moved as a whole, as far as the picture goes. */
export function movedArea(area: Area, by: Point, size: Size): Area {
  const { left, top, right, bottom } = boxOf(area);
  const x = Math.round(Math.max(-left, Math.min(size.width - right, by.x)));
  const y = Math.round(Math.max(-top, Math.min(size.height - bottom, by.y)));
  return area.shape === 'polygon'
    ? { ...area, corners: area.corners.map((corner) => ({ x: corner.x + x, y: corner.y + y })) }
    : { ...area, x: area.x + x, y: area.y + y };
}

/** An area drawn into another box, every part of it in the same share; no thinner than a pixel. */
export function fittedArea(area: Area, to: Box, size: Size): Area {
  const left = clamp(Math.round(Math.min(to.left, to.right)), size.width - 1);
  const top = clamp(Math.round(Math.min(to.top, to.bottom)), size.height - 1);
  const right = Math.max(left + 1, clamp(Math.round(Math.max(to.left, to.right)), size.width));
  const bottom = Math.max(top + 1, clamp(Math.round(Math.max(to.top, to.bottom)), size.height));
  if (area.shape !== 'polygon') return { ...area, x: left, y: top, width: right - left, height: bottom - top };
  const from = boxOf(area);
  const across = (x: number): number => Math.round(left + ((x - from.left) / Math.max(1, from.right - from.left)) * (right - left));
  const down = (y: number): number => Math.round(top + ((y - from.top) / Math.max(1, from.bottom - from.top)) * (bottom - top));
  return { ...area, corners: area.corners.map(({ x, y }) => ({ x: across(x), y: down(y) })) };
}

/** An area of a picture that is made larger or smaller as a whole: on the same part of it, and never nothing. */
export function scaledArea(area: Area, from: Size, to: Size): Area {
  const [across, down] = [to.width / from.width, to.height / from.height];
  const { left, top, right, bottom } = boxOf(area);
  return fittedArea(area, { left: left * across, top: top * down, right: right * across, bottom: bottom * down }, to);
}

/** A polygon with one corner elsewhere. */
export const withCorner = (area: Extract<Area, { shape: 'polygon' }>, at: number, to: Point, size: Size): Area => ({
  ...area,
  corners: area.corners.map((corner, row) =>
    row === at ? { x: clamp(Math.round(to.x), size.width), y: clamp(Math.round(to.y), size.height) } : corner,
  ),
});

const clamp = (value: number, most: number): number => Math.max(0, Math.min(most, value));

/** Leaves out corners that lie within a tolerance of the line between those that stay (Ramer 1972, Douglas and Peucker 1973). */
function simplified(points: readonly Point[], tolerance: number): Point[] {
  const distinct = points.filter((point, at) => at === 0 || point.x !== points[at - 1]!.x || point.y !== points[at - 1]!.y);
  if (distinct.length <= 3) return distinct;
  const kept = new Uint8Array(distinct.length);
  kept[0] = kept[distinct.length - 1] = 1;
  const open: [number, number][] = [[0, distinct.length - 1]];
  for (let next = open.pop(); next; next = open.pop()) {
    const [from, to] = next;
    let [furthest, far] = [-1, tolerance];
    for (let at = from + 1; at < to; at++) {
      const distance = distanceTo(distinct[at]!, distinct[from]!, distinct[to]!);
      if (distance > far) [furthest, far] = [at, distance];
    }
    if (furthest < 0) continue;
    kept[furthest] = 1;
    open.push([from, furthest], [furthest, to]);
  }
  const corners = distinct.filter((_, at) => kept[at] === 1);
  return corners.length > MOST_CORNERS ? simplified(points, tolerance * 2) : corners;
}

/** How far a point lies from the line between two others. */
function distanceTo({ x, y }: Point, from: Point, to: Point): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const length = Math.hypot(dx, dy);
  return length === 0 ? Math.hypot(x - from.x, y - from.y) : Math.abs(dy * (x - from.x) - dx * (y - from.y)) / length;
}
