import type { Text } from '../model/document';
import { countWords } from '../text/words';
import { overlaps, union, type Stretch } from './relations';

/** Words of a text, and how many of them lie in at least one passage. */
export interface Coverage {
  readonly words: number;
  readonly covered: number;
}

/**
 * Coverage of a text: words in the union of the passages, of all its words. Speaker labels are not words
 * of the text. A word that a passage cuts counts as covered.
 * @param passages sorted by start
 * @param speaks leaves out paragraphs of speakers for whom it says no (-1: nobody's paragraph)
 */
export function coverage(text: Text, passages: Iterable<Stretch>, speaks: (speaker: number) => boolean = () => true): Coverage {
  const covered = union(passages);
  let words = 0;
  let inside = 0;
  let first = 0;
  for (const paragraph of text.paragraphs) {
    if (!speaks(paragraph.speaker)) continue;
    words += countWords(text.text.slice(paragraph.body, paragraph.end));
    while (first < covered.length && covered[first]!.end <= paragraph.body) first++;
    const place = { start: paragraph.body, end: paragraph.end };
    for (let at = first; at < covered.length && overlaps(covered[at]!, place); at++) {
      const from = Math.max(covered[at]!.start, place.start);
      inside += countWords(text.text.slice(from, Math.min(covered[at]!.end, place.end)));
    }
  }
  return { words, covered: Math.min(inside, words) };
}
