import type { Stretch } from '../model/stretch';

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
