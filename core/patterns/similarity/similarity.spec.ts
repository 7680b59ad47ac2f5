import assert from 'node:assert/strict';
import fc from 'fast-check';
import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { agnes } from 'ml-hclust';
import type { Attribute } from '../../model/case';
import type { Id } from '../../model/ids';
import { gowerLikeness } from './gower';
import { largestEigenpairs } from './largest-eigenpairs';
import { cosineLikeness, jaccardLikeness, sharedFeatures, type Likeness } from './likeness';
import { planOf } from './plan';
import { profileOf, type Profile } from './profile';
import { leavesOf, partsOf, treeOf, type Merge } from './tree';

const rowsOf = (counts: readonly (readonly number[])[]): Profile[] =>
  counts.map((row) => profileOf(new Map(row.flatMap((count, at): [number, number][] => (count > 0 ? [[at, count]] : [])))));
const someCounts = fc
  .tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 7 }))
  .chain(([things, features]) =>
    fc.array(fc.array(fc.nat(3), { minLength: features, maxLength: features }), { minLength: things, maxLength: things }),
  )
  .map((rows) => rows.filter((row) => row.some((count) => count > 0)));
const likenessOf = (distances: readonly (readonly number[])[]): Likeness => Float64Array.from(distances.flat(), (one) => 1 - one);
const near = (a: number, b: number): void => assert.ok(Math.abs(a - b) < 1e-9, `${a} and ${b}`);

describe('how alike things are', () => {
  it('is Jaccard’s coefficient of presence and the cosine of counts: worked out by hand', () => {
    const rows = rowsOf([
      [1, 2, 0, 0],
      [3, 0, 1, 0],
      [0, 0, 0, 5],
    ]);
    expect(Array.from(jaccardLikeness(rows))).toEqual([1, 1 / 3, 0, 1 / 3, 1, 0, 0, 0, 1]);
    // (1·3) ÷ (√5 · √10)
    expect(cosineLikeness(rows)[1]).toBeCloseTo(3 / Math.sqrt(50), 12);
  });

  it('is what the definitions say, of any counts', () => {
    fc.assert(
      fc.property(someCounts, (counts) => {
        const [jaccard, cosine] = [jaccardLikeness(rowsOf(counts)), cosineLikeness(rowsOf(counts))];
        const sum = (some: readonly number[]): number => some.reduce((a, b) => a + b, 0);
        counts.forEach((a, at) =>
          counts.forEach((b, other) => {
            const cell = at * counts.length + other;
            near(
              jaccard[cell]!,
              sum(a.map((one, i) => Number(one > 0 && b[i]! > 0))) / sum(a.map((one, i) => Number(one > 0 || b[i]! > 0))),
            );
            near(
              cosine[cell]!,
              sum(a.map((one, i) => one * b[i]!)) / Math.sqrt(sum(a.map((one) => one ** 2)) * sum(b.map((one) => one ** 2))),
            );
          }),
        );
      }),
    );
  });
});

describe('how many features things share', () => {
  it('is the same however many there are in all', () => {
    const things = fc.array(fc.uniqueArray(fc.nat(150), { minLength: 1, maxLength: 150 }), { minLength: 2, maxLength: 6 });
    fc.assert(
      fc.property(things, fc.boolean(), (features, many) => {
        // one more that has thousands of its own
        const all = many ? [...features, Array.from({ length: 5_000 }, (_, at) => 200 + at)] : features;
        const shared = sharedFeatures(all.map((some) => profileOf(new Map(some.map((feature) => [feature, 1])))));
        all.forEach((one, a) =>
          all.forEach((other, b) => {
            if (a < b) assert.equal(shared[a * all.length + b], one.filter((feature) => other.includes(feature)).length);
          }),
        );
      }),
      { numRuns: 60 },
    );
  });
});

describe('Gower’s coefficient', () => {
  const attribute = (type: Attribute['type']): Attribute => ({ id: 'a' as Id, name: type, of: 'case', type, choices: [], order: 0 });

  it('is Jaccard’s without attributes', () => {
    fc.assert(
      fc.property(someCounts, (counts) => {
        expect(gowerLikeness(rowsOf(counts), [])).toEqual(jaccardLikeness(rowsOf(counts)));
      }),
    );
  });

  it('counts what is known of both, and numbers by their range: worked out by hand', () => {
    const rows = rowsOf([[1, 1], [1, 0], [0]]);
    const facts = [
      { attribute: attribute('number'), values: [20, 40, 60] },
      { attribute: attribute('choice'), values: ['Saltpans', 'Saltpans', undefined] },
    ];
    const likeness = gowerLikeness(rows, facts);
    // one code of two; 1 − 20 ÷ 40; the same home: 2.5 of 4
    expect(likeness[1]).toBeCloseTo(2.5 / 4, 12);
    // no code of two; the ends of the range; home not known of one: 0 of 3
    expect(likeness[2]).toBe(0);
    // no code of one; half the range
    expect(likeness[5]).toBeCloseTo(0.5 / 2, 12);
  });

  it('takes dates by days, one value for all as the same, and what nothing is known of as not alike', () => {
    const none = rowsOf([[], [], []]);
    expect(gowerLikeness(none, [])[1]).toBe(0);
    expect(gowerLikeness(none, [{ attribute: attribute('number'), values: [7, 7, undefined] }])[1]).toBe(1);
    const dates = [{ attribute: attribute('date'), values: ['2025-01-01', '2025-01-02', '2025-01-05'] }];
    expect(gowerLikeness(none, dates)[1]).toBeCloseTo(0.75, 12);
  });
});

describe('a plan', () => {
  it('keeps distances that lie in a plane: the corners of a rectangle of 0.3 by 0.4', () => {
    const distances = [
      [0, 0.3, 0.5, 0.4],
      [0.3, 0, 0.4, 0.5],
      [0.5, 0.4, 0, 0.3],
      [0.4, 0.5, 0.3, 0],
    ];
    const { x, y, stress } = planOf(likenessOf(distances), 4);
    distances.forEach((row, a) => row.forEach((wanted, b) => expect(Math.hypot(x[a]! - x[b]!, y[a]! - y[b]!)).toBeCloseTo(wanted, 9)));
    expect(stress).toBeCloseTo(0, 6);
  });

  it('says by its stress that three dimensions do not fit: four things all as far from each other', () => {
    const { x, y, stress } = planOf(likenessOf([0, 1, 2, 3].map((a) => [0, 1, 2, 3].map((b) => (a === b ? 0 : 1)))), 4);
    const distances = [0, 1, 2, 3].flatMap((a) => [0, 1, 2, 3].filter((b) => b > a).map((b) => Math.hypot(x[a]! - x[b]!, y[a]! - y[b]!)));
    const mean = distances.reduce((sum, one) => sum + one, 0) / 6;
    const sum = (of: (one: number) => number) => distances.reduce((all, one) => all + of(one), 0);
    expect(stress).toBeCloseTo(Math.sqrt(sum((one) => (one - mean) ** 2) / sum((one) => one ** 2)), 9);
    expect(stress).toBeGreaterThan(0.05);
  });

  it('of one thing, and of things that are all the same, lies in one point', () => {
    expect(planOf(Float64Array.of(1), 1).stress).toBe(0);
    const { x, y, stress } = planOf(new Float64Array(9).fill(1), 3);
    expect([Array.from(x), Array.from(y), stress]).toEqual([[0, 0, 0], [0, 0, 0], 0]);
  });
});

describe('the largest eigenvalues', () => {
  it('are those that a full decomposition finds, with their vectors, of any symmetric matrix', () => {
    const matrices = fc.integer({ min: 1, max: 60 }).chain((size) =>
      fc.tuple(
        fc.constant(size),
        // in steps: the full decomposition cannot take numbers next to zero
        fc.array(
          fc.integer({ min: -1_000_000, max: 1_000_000 }).map((step) => step / 1_000_000),
          { minLength: size * size, maxLength: size * size },
        ),
      ),
    );
    fc.assert(
      fc.property(matrices, ([size, numbers]) => {
        const matrix = Float64Array.from(numbers, (_, cell) => {
          const [row, column] = [Math.floor(cell / size), cell % size];
          return numbers[Math.min(row, column) * size + Math.max(row, column)]!;
        });
        const all = new EigenvalueDecomposition(Matrix.from1DArray(size, size, matrix), { assumeSymmetric: true }).realEigenvalues;
        largestEigenpairs(matrix, size, 2).forEach(({ value, vector }, at) => {
          assert.ok(Math.abs(value - all[size - 1 - at]!) < 1e-7, `${value} for ${all[size - 1 - at]}`);
          for (let row = 0; row < size; row++) {
            let product = 0;
            for (let column = 0; column < size; column++) product += matrix[row * size + column]! * vector[column]!;
            assert.ok(Math.abs(product - value * vector[row]!) < 1e-6);
          }
        });
      }),
      { numRuns: 60 },
    );
  });
});

describe('a tree', () => {
  /** Five sequences with their distances, and the heights that UPGMA joins them at: the worked example of textbooks. */
  const published = [
    [0, 17, 21, 31, 23],
    [17, 0, 30, 34, 21],
    [21, 30, 0, 28, 39],
    [31, 34, 28, 0, 43],
    [23, 21, 39, 43, 0],
  ];

  it('joins by average linkage as published: a and b at 17, e at 22, c and d at 28, all at 33', () => {
    expect(treeOf(likenessOf(published), 5).map(({ height }) => Number(height.toFixed(9)))).toEqual([17, 22, 28, 33]);
    const merges = treeOf(likenessOf(published), 5);
    expect(Array.from(partsOf(merges, 5, 2))).toEqual(together([0, 1, 4], [2, 3], merges));
    expect(new Set(partsOf(merges, 5, 5)).size).toBe(5);
    expect(new Set(partsOf(merges, 5, 1)).size).toBe(1);
    expect(new Set(partsOf(merges, 5, 50)).size).toBe(5);
  });

  it('joins at the same heights as another implementation, where no two distances are the same', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 25 }), fc.integer({ min: 1, max: 1_000_000 }), (size, seed) => {
        let state = seed;
        const next = (): number => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
        const distances = Array.from({ length: size }, () => new Array<number>(size).fill(0));
        for (let a = 0; a < size; a++) for (let b = a + 1; b < size; b++) distances[a]![b] = distances[b]![a] = next();
        const heights: number[] = [];
        agnes(distances, { method: 'average', isDistanceMatrix: true }).traverse((one) => {
          if (!one.isLeaf) heights.push(one.height);
        });
        heights.sort((a, b) => a - b);
        treeOf(likenessOf(distances), size).forEach(({ height }, at) => near(height, heights[at]!));
      }),
    );
  });

  /** The same division, numbered as the tree is drawn. */
  function together(one: readonly number[], other: readonly number[], merges: readonly Merge[]): number[] {
    const first = one.includes(leavesOf(merges, 5)[0]!) ? one : other;
    return [0, 1, 2, 3, 4].map((leaf) => (first.includes(leaf) ? 0 : 1));
  }

  it('joins at the mean of all distances between its two parts, never below what lies within them, of any things', () => {
    fc.assert(
      fc.property(someCounts, (counts) => {
        const size = counts.length;
        const likeness = jaccardLikeness(rowsOf(counts));
        const merges = treeOf(likeness, size);
        assert.equal(merges.length, Math.max(0, size - 1));
        const within = (node: number): number[] =>
          node < size ? [node] : [...within(merges[node - size]!.first), ...within(merges[node - size]!.second)];
        merges.forEach(({ first, second, height }, at) => {
          assert.ok(first < size + at && second < size + at, 'what it is made of stands before it');
          const distances = within(first).flatMap((a) => within(second).map((b) => 1 - likeness[a * size + b]!));
          near(height, distances.reduce((sum, one) => sum + one, 0) / distances.length);
          if (at > 0) assert.ok(height >= merges[at - 1]!.height - 1e-9);
          // no two parts that were there stood nearer
          const gone = new Set(merges.slice(0, at).flatMap((one) => [one.first, one.second]));
          const there = [...Array(size + at).keys()].filter((node) => !gone.has(node)).map(within);
          for (const one of there)
            for (const other of there)
              if (one !== other) {
                const apart = one.flatMap((a) => other.map((b) => 1 - likeness[a * size + b]!));
                assert.ok(apart.reduce((sum, each) => sum + each, 0) / apart.length >= height - 1e-9);
              }
        });
        assert.deepEqual(
          [...leavesOf(merges, size)].sort((a, b) => a - b),
          [...Array(size).keys()],
        );
        for (let parts = 1; parts <= size; parts++) assert.equal(new Set(partsOf(merges, size, parts)).size, parts);
      }),
    );
  });
});
