import type { Text } from '../model/document';
import type { Stretch } from '../model/stretch';
import { union } from '../passages/union';
import { unitsOf } from '../text/units';

/** What is coded around a hit: itself, or the unit it stands in with so many before and after. */
export type SweepContext = 'hit' | { readonly unit: 'sentence' | 'paragraph' | 'turn'; readonly around: number };

/**
 * The contexts of hits in a text; those that overlap or touch are one.
 * @param hits ascending by start
 * @param language BCP 47 tag of the study, for sentences
 */
export function contextsOf(text: Text, hits: readonly Stretch[], context: SweepContext, language: string): Stretch[] {
  if (context === 'hit') return union(hits.map(({ start, end }) => ({ start, end })));
  const units = unitsOf(text, context.unit, language);
  const contexts: Stretch[] = [];
  let first = 0;
  for (const hit of hits) {
    while (first < units.length && units[first]!.end <= hit.start) first++;
    let last = first;
    while (last + 1 < units.length && units[last + 1]!.start < hit.end) last++;
    if (first >= units.length) break;
    const from = Math.max(0, first - context.around);
    // units with nothing but blanks between them touch
    contexts.push({
      start: from > 0 ? units[from]!.start : units[0]!.start,
      end: units[Math.min(units.length - 1, last + context.around)]!.end,
    });
  }
  return union(contexts);
}
