import { jaccard } from './jaccard';

/** Every two of some entries and each with itself, the lower first. */
export function eachPair(entries: Iterable<number>, tell: (a: number, b: number) => void): void {
  const sorted = [...entries].sort((a, b) => a - b);
  sorted.forEach((a, at) => {
    for (let other = at; other < sorted.length; other++) tell(a, sorted[other]!);
  });
}

/** Copies what stands above the diagonal below it. */
export function mirrored(cells: Float64Array, size: number): void {
  for (let a = 0; a < size; a++) for (let b = a + 1; b < size; b++) cells[b * size + a] = cells[a * size + b]!;
}

/** Jaccard's coefficient of each two: n₁₂ ÷ (n₁ + n₂ − n₁₂); 0 where neither has anything. */
export function jaccardOf(counts: Float64Array, size: number): Float64Array {
  return counts.map((both, cell) => {
    const [a, b] = [Math.floor(cell / size), cell % size];
    return jaccard({ both, either: counts[a * size + a]! + counts[b * size + b]! - both });
  });
}
