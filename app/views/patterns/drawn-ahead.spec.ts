import { aheadAfter } from './drawn-ahead';

describe('what is drawn ahead of a scroll', () => {
  const limits = { least: 48, most: 400 };
  const still = { before: 48, after: 48 };

  /** After as many steps of one length. */
  const steps = (count: number, moved: number, from = still): typeof still => {
    let ahead = from;
    for (let step = 0; step < count; step++) ahead = aheadAfter(ahead, moved, limits);
    return ahead;
  };

  it('is more on the side that is scrolled to, the more the faster', () => {
    expect(steps(10, 20)).toEqual({ before: 48, after: 148 });
    expect(steps(10, 50)).toEqual({ before: 48, after: 298 });
    expect(steps(10, -50)).toEqual({ before: 298, after: 48 });
  });

  it('grows by no more than a step at once', () => {
    expect(steps(1, 50)).toEqual({ before: 48, after: 98 });
    expect(steps(2, 50)).toEqual({ before: 48, after: 148 });
  });

  it('stays while one scrolls on more slowly, and goes when one turns back', () => {
    const far = steps(10, 50);
    expect(aheadAfter(far, 4, limits)).toEqual(far);
    expect(aheadAfter(far, 0, limits)).toBe(far);
    expect(aheadAfter(far, -4, limits)).toEqual({ before: 52, after: 48 });
  });

  it('is never more than is allowed, and the least after a jump', () => {
    expect(steps(100, 300)).toEqual({ before: 48, after: 400 });
    expect(aheadAfter(steps(10, 50), 100_000, limits)).toEqual(still);
  });
});
