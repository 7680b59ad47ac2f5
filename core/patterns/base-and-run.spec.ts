import { baseAndRun } from './base-and-run';

describe('saturation by base and run', () => {
  // worked out by hand: 30 codes in four documents, then 3, 1, 1, 0
  const fresh = [14, 8, 5, 3, 3, 1, 1, 0];
  const settings = { base: 4, run: 2, threshold: 0.05 };

  it('holds each run against the base, one document further each time', () => {
    const found = baseAndRun(fresh, settings)!;
    expect(found.base).toBe(30);
    expect(found.runs.map((run) => [run.last, run.fresh])).toEqual([
      [5, 4],
      [6, 2],
      [7, 1],
    ]);
    expect(found.runs.map((run) => Math.round(run.share * 100))).toEqual([13, 7, 3]);
    expect(found.metAt).toBe(7);
  });

  it('is met at the threshold itself, and not met where no run is so low', () => {
    expect(baseAndRun(fresh, { ...settings, threshold: 2 / 30 })!.metAt).toBe(6);
    expect(baseAndRun(fresh, { ...settings, threshold: 0 })!.metAt).toBeNull();
    expect(baseAndRun([...fresh, 0], { ...settings, threshold: 0 })!.metAt).toBe(8);
  });

  it('says nothing of too few documents, or of a base without a code', () => {
    expect(baseAndRun([14, 8, 5, 3, 3], settings)).toBeNull();
    expect(baseAndRun([0, 0, 0, 0, 1, 2], settings)).toBeNull();
  });
});
