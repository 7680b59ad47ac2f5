import type { Text } from '../model/document';
import type { Stretch } from '../passages/relations';

/**
 * Units that the researcher makes: kept as the positions where they begin. A unit goes to where the next begins, or to
 * the end of the text; white space at its ends is left out, and what holds no words is no unit.
 */
export function ideaUnits({ text }: Text, starts: readonly number[]): Stretch[] {
  const from = starts[0] === 0 ? starts : [0, ...starts];
  return from.flatMap((start, at) => {
    const words = text.slice(start, from[at + 1] ?? text.length);
    const trimmed = words.trim();
    if (!trimmed) return [];
    const first = start + words.indexOf(trimmed);
    return [{ start: first, end: first + trimmed.length }];
  });
}

/** Where units begin after one more begins at a position. */
export const splitAt = (starts: readonly number[], position: number): number[] =>
  starts.includes(position) ? [...starts] : [...starts, position].sort((a, b) => a - b);

/** Where units begin after the one that begins here is joined with the one before. The first stays. */
export const joinBefore = (starts: readonly number[], start: number): number[] => starts.filter((one, at) => at === 0 || one !== start);
