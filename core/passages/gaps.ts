import type { Text } from '../model/document';
import type { Passage } from '../model/passage';
import { wordsWithin } from '../text/stretch';
import { union } from './union';
import type { Stretch } from '../model/stretch';

/** Characters with a word among them are worth looking at. */
const WORDS = /[\p{L}\p{N}]/u;

/**
 * What lies in no passage: for each paragraph the stretches between passages, without labels, white space at the ends
 * and stretches of punctuation alone. Ascending.
 * @param passages in reading order
 */
export function uncodedStretches(text: Text, passages: readonly Passage[]): Stretch[] {
  const covered = union(passages);
  const gaps: Stretch[] = [];
  let at = 0;
  for (const { body, end } of text.paragraphs) {
    while (at < covered.length && covered[at]!.end <= body) at++;
    let from = body;
    for (let next = at; next < covered.length && covered[next]!.start < end; next++) {
      push(from, covered[next]!.start);
      from = Math.max(from, covered[next]!.end);
    }
    push(from, end);
  }
  return gaps;

  function push(from: number, to: number): void {
    const gap = wordsWithin(text.text, from, to);
    if (gap && WORDS.test(text.text.slice(gap.start, gap.end))) gaps.push(gap);
  }
}

/** The next (or previous) of some ascending stretches from a position, or undefined. */
export const stretchFrom = (stretches: readonly Stretch[], position: number, by: 1 | -1): Stretch | undefined =>
  by > 0 ? stretches.find((one) => one.start > position) : stretches.findLast((one) => one.start < position);
