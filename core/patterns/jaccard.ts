/** Jaccard's coefficient of community (Jaccard 1901): what both have of what either has, 0 to 1; 0 where neither has anything. */
export const jaccard = ({ both, either }: { readonly both: number; readonly either: number }): number => (either === 0 ? 0 : both / either);

/** The same of each two: n₁₂ ÷ (n₁ + n₂ − n₁₂). @param counts row by row, what each has with each, and by itself on the diagonal */
export function jaccardOf(counts: Float64Array, size: number): Float64Array {
  return counts.map((both, cell) => {
    const [a, b] = [Math.floor(cell / size), cell % size];
    return jaccard({ both, either: counts[a * size + a]! + counts[b * size + b]! - both });
  });
}
