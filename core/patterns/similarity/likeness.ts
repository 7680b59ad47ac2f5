import type { Profiles } from './profiles';

/** How alike every two of some things are, 0 to 1, row by row; 1 on the diagonal. */
export type Likeness = Float64Array;

/** Tells every two things that have a feature in common, the lower first, once for each such feature, and how often each has it. */
function eachShared(rows: Profiles['rows'], tell: (a: number, b: number, ofA: number, ofB: number) => void): void {
  const having = new Map<number, [thing: number, count: number][]>();
  rows.forEach((row, thing) => {
    for (const [feature, count] of row) {
      const some = having.get(feature);
      if (some) some.push([thing, count]);
      else having.set(feature, [[thing, count]]);
    }
  });
  for (const some of having.values())
    for (let a = 0; a < some.length; a++)
      for (let b = a + 1; b < some.length; b++) tell(some[a]![0], some[b]![0], some[a]![1], some[b]![1]);
}

function filled(size: number, value: (a: number, b: number) => number): Likeness {
  const likeness = new Float64Array(size * size);
  for (let a = 0; a < size; a++) {
    likeness[a * size + a] = 1;
    for (let b = a + 1; b < size; b++) likeness[a * size + b] = likeness[b * size + a] = value(a, b);
  }
  return likeness;
}

/** How many features every two things share, above the diagonal. */
export function sharedFeatures(rows: Profiles['rows']): Float64Array {
  const size = rows.length;
  const both = new Float64Array(size * size);
  eachShared(rows, (a, b) => both[a * size + b]!++);
  return both;
}

/** Jaccard's coefficient of presence: features of both ÷ features of either (Jaccard 1912). */
export function jaccardLikeness(rows: Profiles['rows']): Likeness {
  const size = rows.length;
  const both = sharedFeatures(rows);
  return filled(size, (a, b) => both[a * size + b]! / (rows[a]!.size + rows[b]!.size - both[a * size + b]!));
}

/** The cosine of the angle between counts: Σ xᵢyᵢ ÷ (√Σ xᵢ² · √Σ yᵢ²). */
export function cosineLikeness(rows: Profiles['rows']): Likeness {
  const size = rows.length;
  const products = new Float64Array(size * size);
  eachShared(rows, (a, b, ofA, ofB) => (products[a * size + b]! += ofA * ofB));
  const lengths = rows.map((row) => Math.sqrt([...row.values()].reduce((sum, count) => sum + count ** 2, 0)));
  // two that are the same but for their size can come out a breath above 1
  return filled(size, (a, b) => Math.min(1, products[a * size + b]! / (lengths[a]! * lengths[b]!)));
}
