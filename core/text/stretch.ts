import type { Paragraph } from '../model/document';
import { paragraphAt } from './paragraphs';
import type { Stretch } from '../model/stretch';
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

/**
 * A stretch without the speaker's label at its beginning, which the reading surface hides: a selected line is its
 * words. Where it ends within a label, it ends with the paragraph before.
 */
export function withoutLabels(paragraphs: readonly Paragraph[], { start, end }: { readonly start: number; readonly end: number }) {
  const first = paragraphs[paragraphAt(paragraphs, start)];
  const last = paragraphs[paragraphAt(paragraphs, end)];
  return {
    start: first && start < first.body ? Math.min(first.body, end) : start,
    end: last && end > last.start && end <= last.body && last !== first ? last.start : end,
  };
}
