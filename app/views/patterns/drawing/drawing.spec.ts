import { curvesDrawing } from './curves-drawing';
import { tableDrawing } from './table-drawing';

describe('a picture that is made to be taken out', () => {
  const words = (svg: SVGSVGElement) => [...svg.querySelectorAll('text')].map((one) => one.textContent);

  it('of a table has its headings, numbers and shades', () => {
    const heads = (...names: string[]) => names.map((name) => ({ key: name, name }));
    const draw = tableDrawing(heads('Waiting', 'Worry'), heads('One', 'Two'), (row, column) => ({
      words: String(row * 2 + column),
      shade: row === 0 ? null : 7 * column,
      empty: row + column === 0,
    }))!;
    const svg = draw();
    expect(words(svg)).toEqual(['One', 'Two', 'Waiting', '–', '1', 'Worry', '2', '3']);
    const shades = [...svg.querySelectorAll('rect')].map((one) => one.getAttribute('fill'));
    expect(shades.length).toBe(2);
    expect(shades.every((one) => /^#[0-9a-f]{6}$/.test(one!))).toBeTrue();
    expect(shades[0]).not.toBe(shades[1]);
  });

  it('of a table that nobody could read is not offered', () => {
    const many = Array.from({ length: 500 }, (_, at) => ({ key: String(at), name: String(at) }));
    expect(tableDrawing(many, many, () => ({ words: '1', shade: null, empty: false }))).toBeNull();
  });

  it('of curves has them under each other on one scale, with where saturation is met', () => {
    const points = (...values: number[]) => values.map((value, at) => ({ name: `Document ${at}`, value }));
    const svg = curvesDrawing([
      { name: 'Women', said: 'met with Document 1', points: points(4, 8), metAt: 1 },
      { name: 'Men', said: 'not met', points: points(2), metAt: null },
    ]);
    expect(words(svg)).toContain('Men');
    const [women, men] = [...svg.querySelectorAll('path')].map((one) => one.getAttribute('d')!);
    const heights = (d: string) => [...d.matchAll(/V([\d.]+)/g)].map((match) => Number(match[1]));
    const [base] = women!
      .match(/M[\d.]+ ([\d.]+)/)!
      .slice(1)
      .map(Number) as [number];
    expect(base - heights(women!)[1]!).toBeCloseTo(2 * (base - heights(women!)[0]!));
    const [menBase] = men!
      .match(/M[\d.]+ ([\d.]+)/)!
      .slice(1)
      .map(Number) as [number];
    expect(menBase - heights(men!)[0]!).toBeCloseTo((base - heights(women!)[0]!) / 2);
    expect([...svg.querySelectorAll('line')].filter((one) => one.getAttribute('stroke-width') === '1.5').length).toBe(1);
  });

  it('of nothing is empty, and no error', () => {
    expect(words(curvesDrawing([]))).toEqual([]);
    expect(words(curvesDrawing([{ name: 'Nobody', said: 'nothing coded', points: [], metAt: null }]))).toContain('Nobody');
  });
});
