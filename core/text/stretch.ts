import type { Stretch } from '../passages/relations';
import { toGraphemeEdge } from './graphemes';

/** The words of `[from, to)`: white space at its ends left out; null where nothing else is there. */
export function wordsWithin(text: string, from: number, to: number): Stretch | null {
  const words = text.slice(from, to);
  const start = from + words.length - words.trimStart().length;
  const end = from + words.trimEnd().length;
  return start < end ? { start, end } : null;
}

/**
 * What a selection means as a passage: white space at its ends left out, no grapheme cut.
 * @returns null where nothing but white space was selected
 */
export function tidySelection(text: string, from: number, to: number): Stretch | null {
  const words = wordsWithin(text, Math.max(0, Math.min(from, to)), Math.min(text.length, Math.max(from, to)));
  return words && { start: toGraphemeEdge(text, words.start, -1), end: toGraphemeEdge(text, words.end, 1) };
}
