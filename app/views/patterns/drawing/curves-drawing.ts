import { shortened } from '@core/text/shortened';
import { Drawing } from './draw';

/** A curve over documents: what it is of, what is said of it, and its points. */
export interface DrawnCurve {
  readonly name: string;
  readonly said: string;
  readonly points: readonly { readonly name: string; readonly value: number }[];
  /** The point at which saturation is met; null where it is not. */
  readonly metAt: number | null;
}

const [WIDTH, AROUND, AXIS, HIGH, HEAD, BELOW] = [1_000, 16, 44, 220, 48, 40];
/** Points whose names have room. */
const MOST_NAMED = 40;

/** Curves under each other, each with the same scale. */
export function curvesDrawing(curves: readonly DrawnCurve[]): SVGSVGElement {
  const drawing = new Drawing(WIDTH);
  const [second, rule, accent, here] = ['--ink-second', '--rule', '--accent', '--here'].map(drawing.token) as [
    string,
    string,
    string,
    string,
  ];
  const most = Math.max(1, ...curves.flatMap(({ points }) => points.map(({ value }) => value)));
  const [left, wide] = [AROUND + AXIS, WIDTH - 2 * AROUND - AXIS];
  const small = { 'font-size': 11, fill: second };
  let y = AROUND;
  for (const { name, said, points, metAt } of curves) {
    drawing.text(name, AROUND, y + 14, { 'font-size': 14, 'font-weight': 600 });
    drawing.text(said, AROUND, y + 32, { fill: second });
    const bottom = y + HEAD + HIGH;
    const yOf = (value: number): number => bottom - (value / most) * HIGH;
    const step = wide / Math.max(1, points.length);
    for (const value of ticksTo(most)) {
      drawing.line(left, yOf(value), left + wide, yOf(value), rule);
      drawing.text(String(value), left - 8, yOf(value) + 4, { ...small, 'text-anchor': 'end' });
    }
    points.forEach(({ name: of }, at) => {
      const x = left + (at + 0.5) * step;
      if (points.length <= MOST_NAMED)
        drawing.text(shortened(of, 22), x, bottom + 14, { ...small, transform: `rotate(40 ${x} ${bottom + 14})` });
      if (at === metAt) drawing.line(x, y + HEAD, x, bottom, here, 1.5);
    });
    const d = points.map(({ value }, at) => {
      const [x, to] = [left + at * step, yOf(value)];
      return `${at === 0 ? `M${x} ${bottom}` : ''}V${to}H${x + step}`;
    });
    if (d.length > 0) drawing.path(d.join(''), accent, 1.8);
    y = bottom + (points.length <= MOST_NAMED ? 120 : BELOW);
  }
  return drawing.ended(y);
}

/** Whole numbers up to the largest, some five of them. */
function ticksTo(most: number): number[] {
  const raw = most / 5;
  const power = 10 ** Math.floor(Math.log10(Math.max(1, raw)));
  const step = Math.max(1, [1, 2, 5, 10].map((one) => one * power).find((one) => one >= raw) ?? power);
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, at) => at * step);
}
