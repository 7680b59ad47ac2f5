import type { Profiles } from './profiles';

/** How alike every two of some things are, 0 to 1, row by row; 1 on the diagonal. */
export type Likeness = Float64Array;

/**
 * Sums over the features that every two things have in common, above the diagonal: 1 for each, or the product of how
 * often they have it. What has a feature is laid beside each other, so that each pair costs a step along a row.
 */
function sumsOfShared(rows: Profiles['rows'], counting: 'presence' | 'counts'): Float64Array {
  const size = rows.length;
  const sums = new Float64Array(size * size);
  const having = new Map<number, { readonly things: number[]; readonly counts: number[] }>();
  rows.forEach((row, thing) => {
    for (const [feature, count] of row) {
      let some = having.get(feature);
      if (!some) having.set(feature, (some = { things: [], counts: [] }));
      some.things.push(thing);
      some.counts.push(count);
    }
  });
  for (const { things, counts } of having.values()) {
    const [own, times] = [Int32Array.from(things), Float64Array.from(counts)];
    for (let a = 0; a < own.length; a++) {
      const [first, weight] = [own[a]! * size, times[a]!];
      if (counting === 'presence') for (let b = a + 1; b < own.length; b++) sums[first + own[b]!]!++;
      else for (let b = a + 1; b < own.length; b++) sums[first + own[b]!]! += weight * times[b]!;
    }
  }
  return sums;
}

function filled(size: number, value: (a: number, b: number) => number): Likeness {
  const likeness = new Float64Array(size * size);
  for (let a = 0; a < size; a++) {
    likeness[a * size + a] = 1;
    for (let b = a + 1; b < size; b++) likeness[a * size + b] = likeness[b * size + a] = value(a, b);
  }
  return likeness;
}

/** Features up to which they are compared as bits: beyond, most things have few of them. */
const MOST_AS_BITS = 4_096;

/** How many features every two things share, above the diagonal. */
export function sharedFeatures(rows: Profiles['rows']): Float64Array {
  const numbers = new Map<number, number>();
  for (const row of rows) for (const feature of row.keys()) if (!numbers.has(feature)) numbers.set(feature, numbers.size);
  return numbers.size <= MOST_AS_BITS ? sharedBits(rows, numbers) : sumsOfShared(rows, 'presence');
}

/** The same by a bit for each feature, 32 of them in a step. */
function sharedBits(rows: Profiles['rows'], numbers: ReadonlyMap<number, number>): Float64Array {
  const [size, words] = [rows.length, Math.ceil(numbers.size / 32)];
  const bits = new Int32Array(size * words);
  rows.forEach((row, thing) => {
    for (const feature of row.keys()) {
      const number = numbers.get(feature)!;
      bits[thing * words + (number >>> 5)]! |= 1 << (number & 31);
    }
  });
  const both = new Float64Array(size * size);
  for (let a = 0; a < size; a++)
    for (let b = a + 1; b < size; b++) {
      let count = 0;
      for (let word = 0; word < words; word++) count += bitsIn(bits[a * words + word]! & bits[b * words + word]!);
      both[a * size + b] = count;
    }
  return both;
}

/** How many bits are set: added up in pairs, fours and bytes (Warren, Hacker's Delight, 5-1). */
function bitsIn(word: number): number {
  const pairs = word - ((word >>> 1) & 0x55555555);
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333);
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
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
  const products = sumsOfShared(rows, 'counts');
  const lengths = rows.map((row) => Math.sqrt([...row.values()].reduce((sum, count) => sum + count ** 2, 0)));
  // two that are the same but for their size can come out a breath above 1
  return filled(size, (a, b) => Math.min(1, products[a * size + b]! / (lengths[a]! * lengths[b]!)));
}
