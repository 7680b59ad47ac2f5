import type { Stretch } from '../model/stretch';

/** max(a₀,b₀) < min(a₁,b₁) */
export const overlaps = (a: Stretch, b: Stretch): boolean => Math.max(a.start, b.start) < Math.min(a.end, b.end);

/** a₀ = b₀ and a₁ = b₁ */
export const samePlace = (a: Stretch, b: Stretch): boolean => a.start === b.start && a.end === b.end;

/** b₀ ≤ a₀ and a₁ ≤ b₁ and not the same place */
export const inside = (a: Stretch, b: Stretch): boolean => b.start <= a.start && a.end <= b.end && !samePlace(a, b);

/** The reverse of {@link inside}. */
export const around = (a: Stretch, b: Stretch): boolean => inside(b, a);

/** a ends before b starts, touching allowed: a₁ ≤ b₀ */
export const before = (a: Stretch, b: Stretch): boolean => a.end <= b.start;

/** a starts after b ends, touching allowed: b₁ ≤ a₀ */
export const after = (a: Stretch, b: Stretch): boolean => before(b, a);

/**
 * The union of stretches as stretches that do not touch, ascending.
 * @param stretches sorted by start
 */
export function union(stretches: Iterable<Stretch>): Stretch[] {
  const joined: { start: number; end: number }[] = [];
  for (const { start, end } of stretches) {
    const last = joined.at(-1);
    if (last && start <= last.end) last.end = Math.max(last.end, end);
    else joined.push({ start, end });
  }
  return joined;
}
