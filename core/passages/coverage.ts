import type { Text } from '../model/document';
import type { TextColumns } from '../model/passage-columns';
import { findWords } from '../text/words';
import { union } from './union';
import type { Stretch } from '../model/stretch';

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
  const { starts, ends, firsts } = wordsOf(text);
  let words = 0;
  let inside = 0;
  let next = 0;
  text.paragraphs.forEach((paragraph, at) => {
    if (!speaks(paragraph.speaker)) return;
    const last = firsts[at + 1]!;
    let word = firsts[at]!;
    words += last - word;
    while (next < covered.length && covered[next]!.end <= paragraph.body) next++;
    for (let one = next; one < covered.length && covered[one]!.start < paragraph.end; one++) {
      word = firstAfter(ends, covered[one]!.start, word, last);
      const stop = firstAfter(starts, covered[one]!.end - 1, word, last);
      inside += stop - word;
      word = stop;
    }
  });
  return { words, covered: inside };
}

/**
 * Words of a text in stretches of it; a word that is cut counts.
 * @param stretches ascending, not touching: see `union`
 */
export function wordsIn(text: Text, stretches: readonly Stretch[]): number {
  const { starts, ends } = wordsOf(text);
  let count = 0;
  let from = 0;
  for (const { start, end } of stretches) {
    const first = firstAfterNear(ends, start, from);
    const last = firstAfterNear(starts, end - 1, first);
    count += last - first;
    from = last;
  }
  return count;
}

/** The words that each of some places touches, as ranges of the text's words by number; a word that is cut lies in both. */
export interface WordRanges {
  readonly from: Uint32Array;
  readonly to: Uint32Array;
}

const ranges = new WeakMap<Text, { readonly places: Places; readonly ranges: WordRanges }>();

/**
 * The words of each place of a text. Remembered for the places that were asked about last.
 * @param places ascending by start, none within another
 */
export function wordsByPlace(text: Text, places: Places): WordRanges {
  const known = ranges.get(text);
  if (known?.places === places) return known.ranges;
  const words = wordsOf(text);
  const [from, to] = [new Uint32Array(places.starts.length), new Uint32Array(places.starts.length)];
  for (let at = 0, near = 0; at < from.length; at++) {
    near = firstAfterNear(words.ends, places.starts[at]!, near);
    from[at] = near;
    to[at] = firstAfterNear(words.starts, places.ends[at]! - 1, near);
  }
  const found = { from, to };
  ranges.set(text, { places, ranges: found });
  return found;
}

type Places = Pick<TextColumns, 'starts' | 'ends'>;

/** Where the words of a text are, paragraph by paragraph. */
interface TextWords {
  readonly starts: Uint32Array;
  readonly ends: Uint32Array;
  /** For each paragraph the row of its first word, and one more at the end. */
  readonly firsts: Uint32Array;
}

/** Finding the words takes far longer than counting those that are covered, so it is done once a text. */
const found = new WeakMap<Text, TextWords>();

function wordsOf(text: Text): TextWords {
  const known = found.get(text);
  if (known) return known;
  const starts: number[] = [];
  const ends: number[] = [];
  const firsts = new Uint32Array(text.paragraphs.length + 1);
  text.paragraphs.forEach(({ body, end }, at) => {
    for (const word of findWords(text.text.slice(body, end))) {
      starts.push(body + word.start);
      ends.push(body + word.end);
    }
    firsts[at + 1] = starts.length;
  });
  const words = { starts: Uint32Array.from(starts), ends: Uint32Array.from(ends), firsts };
  found.set(text, words);
  return words;
}

/** Row of the first value greater than a limit in rows `[low, high)` of an ascending column, or `high`. */
function firstAfter(column: Uint32Array, limit: number, low: number, high: number): number {
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (column[middle]! > limit) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** As {@link firstAfter}, of all rows from one on, where what is looked for is mostly not far from it. */
function firstAfterNear(column: Uint32Array, limit: number, from: number): number {
  let [low, step] = [from, 1];
  while (low + step < column.length && column[low + step]! <= limit) {
    low += step;
    step *= 2;
  }
  return firstAfter(column, limit, low, Math.min(column.length, low + step + 1));
}
