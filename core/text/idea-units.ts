import type { Text } from '../model/document';
import { paragraphAt } from './paragraphs';
import { wordsWithin } from './stretch';
import type { Stretch } from '../model/stretch';

/**
 * Units that the researcher makes: kept as the positions where they begin. A unit goes to where the next begins, or to
 * the end of the text; white space and speakers' labels at its ends are left out, and what holds no words is no unit.
 */
export function ideaUnits({ text, paragraphs }: Text, starts: readonly number[]): Stretch[] {
  const from = starts[0] === 0 ? starts : [0, ...starts];
  return from.flatMap((begin, at) => {
    const next = from[at + 1] ?? text.length;
    const start = Math.max(begin, paragraphs[paragraphAt(paragraphs, begin)]?.body ?? begin);
    // the label of who speaks next belongs to the next unit
    const last = paragraphs[paragraphAt(paragraphs, Math.max(begin, next - 1))];
    const end = last && last.body > last.start && next <= last.body ? last.start : next;
    return wordsWithin(text, start, end) ?? [];
  });
}

/** Where units begin after one more begins at a position. */
export const splitAt = (starts: readonly number[], position: number): number[] =>
  starts.includes(position) ? [...starts] : [...starts, position].sort((a, b) => a - b);

/** Where units begin after the one that begins here is joined with the one before. The first stays. */
export const joinBefore = (starts: readonly number[], start: number): number[] => starts.filter((one, at) => at === 0 || one !== start);
