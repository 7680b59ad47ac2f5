import type { Stretch } from '../passages/relations';
import { toGraphemeEdge } from './graphemes';

/**
 * What a selection means as a passage: white space at its ends left out, no grapheme cut.
 * @returns null where nothing but white space was selected
 */
export function tidySelection(text: string, from: number, to: number): Stretch | null {
  let start = Math.max(0, Math.min(from, to));
  let end = Math.min(text.length, Math.max(from, to));
  while (start < end && /\s/.test(text[start]!)) start++;
  while (end > start && /\s/.test(text[end - 1]!)) end--;
  if (start === end) return null;
  return { start: toGraphemeEdge(text, start, -1), end: toGraphemeEdge(text, end, 1) };
}
