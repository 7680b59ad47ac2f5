import { EigenvalueDecomposition, Matrix } from 'ml-matrix';

/** An eigenvalue with its vector of length 1. */
export interface Eigenpair {
  readonly value: number;
  readonly vector: Float64Array;
}

/** Steps after which what has not settled is taken as it is: directions that are that near each other can be turned at will. */
const MOST_STEPS = 160;

/** Steps after which is looked whether it has settled. */
const LOOKED_AFTER = 20;

/** How much of the value a vector may still miss. */
const SETTLED = 1e-9;

/**
 * The largest eigenvalues of a symmetric matrix with their vectors, by Lanczos' method with full orthogonalisation (Golub
 * & Van Loan, Matrix Computations, 10.3): a plan needs two of five hundred, and all of them would take seconds.
 * @param matrix row by row @param count how many; fewer come where the matrix has fewer @returns from the largest down
 */
export function largestEigenpairs(matrix: Float64Array, size: number, count: number): Eigenpair[] {
  const wanted = Math.min(count, size);
  const basis: Float64Array[] = [];
  const [diagonal, beside]: [number[], number[]] = [[], []];
  let next: Float64Array | null = startOf(size, basis);
  for (let found: Eigenpair[] | null = null; ;) {
    const vector: Float64Array = next!;
    basis.push(vector);
    const product = times(matrix, vector);
    diagonal.push(dot(product, vector));
    // by the method itself nothing else but rounding lies in the direction of those before
    orthogonal(product, basis.slice(-2));
    const length = orthogonal(product, basis);
    const done = basis.length === size || basis.length >= MOST_STEPS;
    if (done || (basis.length >= 2 * wanted && basis.length % LOOKED_AFTER === 0))
      found = pairsOf(basis, diagonal, beside, length, wanted, done);
    if (found) return found;
    // where the matrix leads nowhere new, another direction is begun
    const stuck = length < 1e-12;
    beside.push(stuck ? 0 : length);
    next = stuck ? startOf(size, basis) : divided(product, length);
  }
}

/** What was found, if all of it has settled or no more is to come. */
function pairsOf(
  basis: readonly Float64Array[],
  diagonal: readonly number[],
  beside: readonly number[],
  rest: number,
  wanted: number,
  done: boolean,
): Eigenpair[] | null {
  const steps = basis.length;
  const small = Matrix.zeros(steps, steps);
  diagonal.forEach((one, at) => small.set(at, at, one));
  beside.forEach((one, at) => {
    small.set(at, at + 1, one);
    small.set(at + 1, at, one);
  });
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(small, { assumeSymmetric: true });
  const pairs: Eigenpair[] = [];
  for (let at = 0; at < wanted; at++) {
    const column = steps - 1 - at;
    const value = realEigenvalues[column]!;
    if (!done && Math.abs(rest * eigenvectorMatrix.get(steps - 1, column)) > SETTLED * Math.max(1, Math.abs(value))) return null;
    const vector = new Float64Array(basis[0]!.length);
    basis.forEach((one, step) => {
      const share = eigenvectorMatrix.get(step, column);
      for (let i = 0; i < vector.length; i++) vector[i]! += share * one[i]!;
    });
    pairs.push({ value, vector });
  }
  return pairs;
}

/** A vector of length 1 at right angles to all before it; the same for the same matrix every time. */
function startOf(size: number, basis: readonly Float64Array[]): Float64Array {
  for (let seed = basis.length + 1; ; seed++) {
    const vector = Float64Array.from({ length: size }, (_, at) => Math.sin((at + 1) * 12.9898 * seed) + 0.5 / (at + 1));
    const length = orthogonal(vector, basis);
    if (length > 1e-9) return divided(vector, length);
  }
}

function times(matrix: Float64Array, vector: Float64Array): Float64Array {
  const size = vector.length;
  const product = new Float64Array(size);
  for (let row = 0; row < size; row++) {
    let sum = 0;
    for (let at = 0, cell = row * size; at < size; at++, cell++) sum += matrix[cell]! * vector[at]!;
    product[row] = sum;
  }
  return product;
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < a.length; at++) sum += a[at]! * b[at]!;
  return sum;
}

/** Where less of a vector is left than this share of it, much of that can be rounding. */
const MOSTLY = 0.7;

/**
 * Takes off a vector what lies in the direction of others, once more where little of it was left: twice is enough
 * (Daniel, Gragg, Kaufman & Stewart 1976, Mathematics of Computation 30, 772–795).
 * @param basis of length 1, at right angles to each other @returns its length
 */
function orthogonal(vector: Float64Array, basis: readonly Float64Array[]): number {
  let length = Math.sqrt(dot(vector, vector));
  for (let turn = 0; turn < 2; turn++) {
    for (const one of basis) {
      const share = dot(vector, one);
      for (let at = 0; at < vector.length; at++) vector[at]! -= share * one[at]!;
    }
    const before = length;
    length = Math.sqrt(dot(vector, vector));
    if (length > MOSTLY * before) break;
  }
  return length;
}

function divided(vector: Float64Array, by: number): Float64Array {
  for (let at = 0; at < vector.length; at++) vector[at]! /= by;
  return vector;
}
