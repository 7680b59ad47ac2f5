import { largestEigenpairs } from './largest-eigenpairs';
import type { Likeness } from './likeness';

/** Where each of some things lies on a plan, and how well the plan keeps their distances. */
export interface Plan {
  readonly x: Float64Array;
  readonly y: Float64Array;
  /**
   * Kruskal's stress 1 (1964), √(Σ (b · dissimilarity − distance)² ÷ Σ distance²), with the scale b that fits best: 0 where
   * the plan keeps every distance, but for its scale.
   */
  readonly stress: number;
}

/**
 * Lays things out so that distances are as near as can be to 1 − likeness: classical multidimensional scaling
 * (Torgerson 1952, Psychometrika 17, 401–419). The plan can be turned or mirrored without saying anything else; it is
 * turned so that the farthest thing on each axis lies on its positive side, so that it comes out the same every time.
 */
export function planOf(likeness: Likeness, size: number): Plan {
  const x = new Float64Array(size);
  const y = new Float64Array(size);
  if (size < 2) return { x, y, stress: 0 };
  const pairs = largestEigenpairs(centred(likeness, size), size, 2);
  [x, y].forEach((axis, at) => {
    const pair = pairs[at];
    // what is not above zero is no direction of a plan
    if (!pair || pair.value <= 1e-12) return;
    let farthest = 0;
    for (let thing = 0; thing < size; thing++) {
      axis[thing] = pair.vector[thing]! * Math.sqrt(pair.value);
      if (Math.abs(axis[thing]!) > Math.abs(axis[farthest]!) + 1e-9) farthest = thing;
    }
    if (axis[farthest]! < 0) for (let thing = 0; thing < size; thing++) axis[thing] = -axis[thing]!;
  });
  return { x, y, stress: stressOf(likeness, x, y) };
}

/** −½ J D² J: squared dissimilarities, centred by rows and columns. */
function centred(likeness: Likeness, size: number): Float64Array {
  const squared = likeness.map((one) => (1 - one) ** 2);
  const means = new Float64Array(size);
  for (let a = 0; a < size; a++) for (let b = 0; b < size; b++) means[a]! += squared[a * size + b]! / size;
  const mean = means.reduce((sum, one) => sum + one / size, 0);
  for (let a = 0; a < size; a++)
    for (let b = 0; b < size; b++) squared[a * size + b] = -0.5 * (squared[a * size + b]! - means[a]! - means[b]! + mean);
  return squared;
}

function stressOf(likeness: Likeness, x: Float64Array, y: Float64Array): number {
  const size = x.length;
  /** Sums over every two things: of squared dissimilarities, of squared distances, of the products of both. */
  let [unlike, apart, both] = [0, 0, 0];
  for (let a = 0; a < size; a++)
    for (let b = a + 1; b < size; b++) {
      const dissimilarity = 1 - likeness[a * size + b]!;
      const squared = (x[a]! - x[b]!) ** 2 + (y[a]! - y[b]!) ** 2;
      unlike += dissimilarity ** 2;
      apart += squared;
      both += dissimilarity * Math.sqrt(squared);
    }
  // Σ (b·δ − d)² with b = Σδd ÷ Σδ²
  return apart > 0 ? Math.sqrt(Math.max(0, apart - both ** 2 / unlike) / apart) : 0;
}
