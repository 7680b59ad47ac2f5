import type { Plan } from '@core/patterns/similarity/plan';

/** The picture a plan is drawn in, units of its own. */
export const WIDTH = 960;
export const HEIGHT = 560;
const EDGE = 60;

/** Points nearer than this would hide one another. */
const APART = 26;
/** With more than this many they have less room each. */
const ROOMY = 120;
const LABEL_HEIGHT = 15;

/** Where something is drawn: its point, moved aside where another lies in the same place, and its name where there is room. */
export interface Laid {
  readonly x: number;
  readonly y: number;
  /** Where it belongs, if it was moved aside. */
  readonly from: { readonly x: number; readonly y: number } | null;
  readonly label: { readonly x: number; readonly y: number; readonly anchor: 'start' | 'end' | 'middle' } | null;
}

interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Lays a plan out on its picture, both axes in one scale. @param names what the points are called @param parts the part each is in: above the topmost of each its number has room */
export function layOut({ x, y }: Pick<Plan, 'x' | 'y'>, names: readonly string[], parts: Uint16Array): Laid[] {
  const [left, right] = [Math.min(...x), Math.max(...x)];
  const [low, high] = [Math.min(...y), Math.max(...y)];
  const scale = Math.min((WIDTH - 4 * EDGE) / (right - left || 1), (HEIGHT - 2 * EDGE) / (high - low || 1));
  const truly = names.map((_, at) => ({
    x: WIDTH / 2 + (x[at]! - (left + right) / 2) * scale,
    y: HEIGHT / 2 - (y[at]! - (low + high) / 2) * scale,
  }));
  const points = apart(truly);
  const taken: Box[] = points.map((one) => ({ left: one.x - 11, right: one.x + 11, top: one.y - 11, bottom: one.y + 5 }));
  for (const { x: across, y: down } of tops(points, parts))
    taken.push({ left: across - 8, right: across + 8, top: down - 13, bottom: down + 3 });
  return points.map((point, at) => {
    const label = labelAt(point, names[at]!, taken);
    const moved = Math.hypot(point.x - truly[at]!.x, point.y - truly[at]!.y);
    return { ...point, from: moved > 3 ? truly[at]! : null, label };
  });
}

/** Where the number of each part stands: above its topmost point. */
export function tops(points: readonly { readonly x: number; readonly y: number }[], parts: Uint16Array): { x: number; y: number }[] {
  const highest: { x: number; y: number }[] = [];
  points.forEach((one, at) => {
    const part = parts[at]!;
    if (!highest[part] || one.y < highest[part].y) highest[part] = one;
  });
  return highest.map(({ x, y }) => ({ x, y: Math.max(12, y - 20) }));
}

/** Pushes points that lie on one another apart, a little at a time, always in the same way. */
function apart(truly: readonly { readonly x: number; readonly y: number }[]): { x: number; y: number }[] {
  const points = truly.map((one) => ({ ...one }));
  const enough = APART * Math.min(1, Math.sqrt(ROOMY / points.length));
  const rounds = Math.min(400, Math.ceil(20_000_000 / points.length ** 2));
  for (let round = 0; round < rounds; round++) {
    let moved = false;
    for (let a = 0; a < points.length; a++)
      for (let b = a + 1; b < points.length; b++) {
        const [one, other] = [points[a]!, points[b]!];
        let [dx, dy] = [other.x - one.x, other.y - one.y];
        let distance = Math.hypot(dx, dy);
        if (distance >= enough) continue;
        // points in the very same place go round like seeds, so that none hides another
        if (distance < 0.01) [dx, dy, distance] = [Math.cos(b * 2.4), Math.sin(b * 2.4), 1];
        const push = (enough - Math.min(distance, enough)) / 2 / distance;
        one.x -= dx * push;
        one.y -= dy * push;
        other.x += dx * push;
        other.y += dy * push;
        moved = true;
      }
    if (!moved) break;
    for (const one of points) {
      one.x = Math.max(14, Math.min(WIDTH - 14, one.x));
      one.y = Math.max(16, Math.min(HEIGHT - 10, one.y));
    }
  }
  return points;
}

/** About as wide as a name is drawn: letters of most scripts half as wide as high, those of East Asia as wide. */
const widthOf = (name: string): number => Array.from(name).reduce((sum, sign) => sum + (/[\u2e80-\uffff]/.test(sign) ? 12.5 : 6.4), 0);

function labelAt(point: { readonly x: number; readonly y: number }, name: string, taken: Box[]): Laid['label'] {
  const width = widthOf(name);
  const tries: NonNullable<Laid['label']>[] = [
    { x: point.x + 14, y: point.y + 2, anchor: 'start' },
    { x: point.x - 14, y: point.y + 2, anchor: 'end' },
    { x: point.x, y: point.y - 15, anchor: 'middle' },
    { x: point.x, y: point.y + 18, anchor: 'middle' },
    { x: point.x + 12, y: point.y - 11, anchor: 'start' },
    { x: point.x - 12, y: point.y - 11, anchor: 'end' },
    { x: point.x + 12, y: point.y + 16, anchor: 'start' },
    { x: point.x - 12, y: point.y + 16, anchor: 'end' },
  ];
  for (const label of tries) {
    const left = label.anchor === 'start' ? label.x : label.anchor === 'end' ? label.x - width : label.x - width / 2;
    const box = { left, right: left + width, top: label.y - LABEL_HEIGHT + 3, bottom: label.y + 3 };
    if (box.left < 2 || box.right > WIDTH - 2 || box.top < 2 || box.bottom > HEIGHT - 2) continue;
    if (taken.some((one) => one.left < box.right && box.left < one.right && one.top < box.bottom && box.top < one.bottom)) continue;
    taken.push(box);
    return label;
  }
  return null;
}

/** The outline around some points, as the path of a closed line: its corners from the hull (Andrew 1979), drawn with a broad round stroke. */
export function outlineOf(points: readonly { readonly x: number; readonly y: number }[]): string {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (some: readonly { readonly x: number; readonly y: number }[]): { readonly x: number; readonly y: number }[] => {
    const hull: { readonly x: number; readonly y: number }[] = [];
    for (const one of some) {
      while (hull.length > 1 && turn(hull.at(-2)!, hull.at(-1)!, one) <= 0) hull.pop();
      hull.push(one);
    }
    return hull.slice(0, -1);
  };
  const hull = sorted.length < 3 ? sorted : [...half(sorted), ...half(sorted.reverse())];
  return `M${hull.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`;
}

const turn = (
  a: { readonly x: number; readonly y: number },
  b: { readonly x: number; readonly y: number },
  c: { readonly x: number; readonly y: number },
): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
