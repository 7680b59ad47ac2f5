import { boxOf, type Area, type Box } from '../model/area';
import type { Stretch } from '../model/stretch';
import { union } from './union';

/**
 * The pixels of one row that an area covers, as stretches of columns, ascending and apart. A pixel is covered where its
 * centre lies in the area: areas are compared and counted in whole pixels, so that two who ask get the same answer.
 */
export function pixelsInRow(area: Area, row: number): Stretch[] {
  const middle = row + 0.5;
  switch (area.shape) {
    case 'rectangle':
      return middle > area.y && middle < area.y + area.height ? [{ start: area.x, end: area.x + area.width }] : [];
    case 'ellipse': {
      const off = (middle - area.y - area.height / 2) / (area.height / 2);
      if (Math.abs(off) >= 1) return [];
      const half = (area.width / 2) * Math.sqrt(1 - off * off);
      const centre = area.x + area.width / 2;
      return columns(centre - half, centre + half);
    }
    case 'polygon':
      return evenOdd(area.corners, middle);
  }
}

/** Columns of pixels whose centres lie in `[from, to)`. */
function columns(from: number, to: number): Stretch[] {
  const [start, end] = [Math.max(0, Math.ceil(from - 0.5)), Math.ceil(to - 0.5)];
  return start < end ? [{ start, end }] : [];
}

/** Between every first and second crossing of a line with the sides is inside. The line never meets a corner: those lie between pixels. */
function evenOdd(corners: readonly { readonly x: number; readonly y: number }[], middle: number): Stretch[] {
  const crossings: number[] = [];
  corners.forEach((from, at) => {
    const to = corners[(at + 1) % corners.length]!;
    if (from.y > middle !== to.y > middle) crossings.push(from.x + ((middle - from.y) / (to.y - from.y)) * (to.x - from.x));
  });
  crossings.sort((a, b) => a - b);
  const inside: Stretch[] = [];
  for (let at = 0; at + 1 < crossings.length; at += 2) inside.push(...columns(crossings[at]!, crossings[at + 1]!));
  return inside;
}

/** Whether two areas have a pixel in common. */
export function sharePixels(a: Area, b: Area): boolean {
  const both = common(boxOf(a), boxOf(b));
  if (both.left >= both.right || both.top >= both.bottom) return false;
  if (a.shape === 'rectangle' && b.shape === 'rectangle') return true;
  for (let row = both.top; row < both.bottom; row++) {
    const others = pixelsInRow(b, row);
    if (others.length > 0 && pixelsInRow(a, row).some((one) => others.some((other) => one.start < other.end && other.start < one.end)))
      return true;
  }
  return false;
}

/** Whether every pixel of an area is one of another. */
export function pixelsWithin(inner: Area, outer: Area): boolean {
  const { top, bottom } = boxOf(inner);
  for (let row = top; row < bottom; row++) {
    // what touches is one piece: a polygon may cross itself
    const others = union(pixelsInRow(outer, row));
    if (!pixelsInRow(inner, row).every((one) => others.some((other) => other.start <= one.start && one.end <= other.end))) return false;
  }
  return true;
}

/** How many pixels lie in at least one of some areas. @param within only those in this box are counted */
export function pixelsCovered(areas: readonly Area[], within: Box = EVERYTHING): number {
  const boxed = areas.map((area) => ({ area, ...boxOf(area) })).sort((a, b) => a.top - b.top);
  let covered = 0;
  let open: typeof boxed = [];
  let next = 0;
  for (let row = boxed[0]?.top ?? 0; next < boxed.length || open.length > 0; row++) {
    if (open.length === 0 && next < boxed.length) row = Math.max(row, boxed[next]!.top);
    while (next < boxed.length && boxed[next]!.top <= row) open.push(boxed[next++]!);
    open = open.filter((one) => one.bottom > row);
    const pixels = open.flatMap((one) => pixelsInRow(one.area, row)).sort((a, b) => a.start - b.start);
    if (row >= within.top && row < within.bottom)
      for (const { start, end } of union(pixels)) covered += Math.max(0, Math.min(end, within.right) - Math.max(start, within.left));
  }
  return covered;
}

const EVERYTHING: Box = { left: 0, top: 0, right: Infinity, bottom: Infinity };

const common = (a: Box, b: Box): Box => ({
  left: Math.max(a.left, b.left),
  top: Math.max(a.top, b.top),
  right: Math.min(a.right, b.right),
  bottom: Math.min(a.bottom, b.bottom),
});
