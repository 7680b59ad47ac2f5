import { featuresIn, turned, type Profile } from './profile';

/** How alike every two of some things are, 0 to 1, row by row; 1 on the diagonal. */
export type Likeness = Float64Array;

/**
 * Sums over the features that every two things have in common, above the diagonal: 1 for each, or the product of how
 * often they have it. What has a feature is laid beside each other, so that each pair costs a step along a row.
 */
function sumsOfShared(rows: readonly Profile[], counting: 'presence' | 'counts'): Float64Array {
  const size = rows.length;
  const sums = new Float64Array(size * size);
  for (const { features: things, counts } of turned(rows, featuresIn(rows)))
    for (let a = 0; a < things.length; a++) {
      const [first, weight] = [things[a]! * size, counts[a]!];
      if (counting === 'presence') for (let b = a + 1; b < things.length; b++) sums[first + things[b]!]!++;
      else for (let b = a + 1; b < things.length; b++) sums[first + things[b]!]! += weight * counts[b]!;
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
export function sharedFeatures(rows: readonly Profile[]): Float64Array {
  const features = featuresIn(rows);
  return features <= MOST_AS_BITS ? sharedBits(rows, Math.ceil(features / 32)) : sumsOfShared(rows, 'presence');
}

/** The same by a bit for each feature, 32 of them in a step. */
function sharedBits(rows: readonly Profile[], words: number): Float64Array {
  const size = rows.length;
  const bits = new Int32Array(size * words);
  rows.forEach(({ features }, thing) => {
    for (const feature of features) bits[thing * words + (feature >>> 5)]! |= 1 << (feature & 31);
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
export function jaccardLikeness(rows: readonly Profile[]): Likeness {
  const size = rows.length;
  const both = sharedFeatures(rows);
  return filled(size, (a, b) => both[a * size + b]! / (rows[a]!.features.length + rows[b]!.features.length - both[a * size + b]!));
}

/** The cosine of the angle between counts: Σ xᵢyᵢ ÷ (√Σ xᵢ² · √Σ yᵢ²). */
export function cosineLikeness(rows: readonly Profile[]): Likeness {
  const size = rows.length;
  const products = sumsOfShared(rows, 'counts');
  const lengths = rows.map(({ counts }) => Math.sqrt(counts.reduce((sum, count) => sum + count ** 2, 0)));
  // two that are the same but for their size can come out a breath above 1
  return filled(size, (a, b) => Math.min(1, products[a * size + b]! / (lengths[a]! * lengths[b]!)));
}
