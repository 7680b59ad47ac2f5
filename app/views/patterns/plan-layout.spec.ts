import { HEIGHT, layOut, outlineOf, tops, WIDTH } from './plan-layout';

describe('the picture of a plan', () => {
  const plan = (...points: readonly (readonly [number, number])[]) => ({
    x: Float64Array.from(points, ([x]) => x),
    y: Float64Array.from(points, ([, y]) => y),
  });
  const one = new Uint16Array(200);
  const named = (count: number) => Array.from({ length: count }, (_, at) => `Thing ${at}`);

  it('keeps directions, in one scale for both axes', () => {
    const [a, b, c] = layOut(plan([0, 0], [1, 0], [0, 0.5]), named(3), one);
    expect(b!.x - a!.x).toBeCloseTo(2 * (a!.y - c!.y), 6);
    expect(b!.y).toBeCloseTo(a!.y, 6);
  });

  it('tells apart what lies in one place, inside the picture, and says where it belongs', () => {
    const laid = layOut(plan(...Array.from({ length: 40 }, (): [number, number] => [0.2, 0.2]), [1, 1]), named(41), one);
    for (const [at, first] of laid.entries()) {
      expect(first.x).toBeGreaterThan(0);
      expect(first.x).toBeLessThan(WIDTH);
      expect(first.y).toBeGreaterThan(0);
      expect(first.y).toBeLessThan(HEIGHT);
      for (const other of laid.slice(at + 1)) expect(Math.hypot(first.x - other.x, first.y - other.y)).toBeGreaterThan(12);
    }
    expect(laid.filter((point) => point.from !== null).length).toBeGreaterThan(30);
  });

  it('writes no name over a point or another name', () => {
    const laid = layOut(
      plan(...Array.from({ length: 60 }, (_, at): [number, number] => [Math.sin(at), Math.cos(at * 1.7)])),
      named(60),
      one,
    );
    const boxes = laid.flatMap(({ label }) => {
      if (!label) return [];
      const left = label.anchor === 'start' ? label.x : label.anchor === 'end' ? label.x - 45 : label.x - 22;
      return [{ left, right: left + 45, top: label.y - 10, bottom: label.y }];
    });
    expect(boxes.length).toBeGreaterThan(20);
    boxes.forEach((box, at) =>
      boxes.slice(at + 1).forEach((other) => {
        const over = box.left < other.right && other.left < box.right && box.top < other.bottom && other.top < box.bottom;
        expect(over).toBeFalse();
      }),
    );
  });

  it('outlines a part by its outer points, and numbers it above its topmost', () => {
    const points = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 5, y: 5 },
      { x: 10, y: 10 },
      { x: 0, y: 10 },
    ];
    expect(outlineOf(points)).toBe('M0.0 0.0L10.0 0.0L10.0 10.0L0.0 10.0Z');
    expect(outlineOf([{ x: 3, y: 4 }])).toBe('M3.0 4.0Z');
    expect(
      tops(
        [
          { x: 1, y: 100 },
          { x: 2, y: 50 },
          { x: 9, y: 400 },
        ],
        Uint16Array.of(0, 0, 1),
      ),
    ).toEqual([
      { x: 2, y: 30 },
      { x: 9, y: 380 },
    ]);
  });
});
