import type { Stretch } from '../model/stretch';
import type { Box } from '../model/area';
import { fold } from '../text/fold';

/** Words that stand on a page, and where, in the page's own pixels. */
export interface PageWords extends Box {
  readonly text: string;
}

/** A word of a text or a page, with where it begins and ends in its own characters. */
interface Token extends Stretch {
  readonly word: string;
}

/** How far ahead of the last word found the next is looked for first. */
const AHEAD = 60;

const WORDS = /[\p{L}\p{M}\p{N}]+/gu;

const tokensOf = (text: string, from = 0): Token[] =>
  Array.from(text.matchAll(WORDS), (match) => ({
    word: fold(match[0]),
    start: from + match.index,
    end: from + match.index + match[0].length,
  }));

/**
 * Finds where the words of a text stand on the page it was read from. Words are looked for one after another, since both
 * are in the order of reading but for headings and notes; one that was corrected or is not there has no place. A word
 * that the page divides at a line end has two.
 * @param stretch the part of the text that stands on the page
 * @returns for each word found where it stands in the text, and its boxes on the page
 */
export function wordsOnPage(text: string, stretch: Stretch, page: readonly PageWords[]): (Stretch & { readonly boxes: readonly Box[] })[] {
  const printed = page.flatMap((item) => tokensOf(item.text).map((token) => ({ word: token.word, box: partOf(item, token) })));
  const places = new Map<string, number[]>();
  printed.forEach(({ word }, at) => void (places.get(word)?.push(at) ?? places.set(word, [at])));
  const used = new Uint8Array(printed.length);
  const found: (Stretch & { boxes: Box[] })[] = [];
  let next = 0;
  for (const { word, start, end } of tokensOf(text.slice(stretch.start, stretch.end), stretch.start)) {
    const at = placeOf(places.get(word), next, used) ?? dividedAt(printed, word, next, used);
    if (at === null) continue;
    const count = printed[at]!.word === word ? 1 : 2;
    found.push({ start, end, boxes: printed.slice(at, at + count).map((one) => one.box) });
    used.fill(1, at, at + count);
    next = at + count;
  }
  return found;
}

/** The nearest place that is free: ahead if there is one within reach, else wherever it is. */
function placeOf(places: readonly number[] | undefined, next: number, used: Uint8Array): number | null {
  if (!places) return null;
  const free = places.filter((at) => used[at] === 0);
  const ahead = free.find((at) => at >= next && at < next + AHEAD);
  return ahead ?? (free.length === 1 ? free[0]! : null);
}

/** Where a word stands in two parts, as at the end of a line. */
function dividedAt(printed: readonly { readonly word: string }[], word: string, next: number, used: Uint8Array): number | null {
  for (let at = next; at < Math.min(printed.length - 1, next + AHEAD); at++) {
    const first = printed[at]!.word;
    if (used[at] === 0 && first.length > 0 && word.startsWith(first) && first + printed[at + 1]!.word === word) return at;
  }
  return null;
}

/** The part of a run of letters that a word takes, by its share of the characters. */
function partOf({ text, left, right, top, bottom }: PageWords, { start, end }: Stretch): Box {
  const width = (right - left) / Math.max(1, text.length);
  return { left: left + start * width, right: left + end * width, top, bottom };
}

/** Boxes that stand beside each other on a line as one. */
export function linesOf(boxes: readonly Box[]): Box[] {
  const lines: Box[] = [];
  for (const box of boxes) {
    const last = lines.at(-1);
    const height = box.bottom - box.top;
    if (last && Math.abs(last.bottom - box.bottom) < height * 0.5 && box.left >= last.left - 1 && box.left - last.right < height * 1.5)
      lines[lines.length - 1] = {
        ...last,
        right: Math.max(last.right, box.right),
        top: Math.min(last.top, box.top),
        bottom: Math.max(last.bottom, box.bottom),
      };
    else lines.push(box);
  }
  return lines;
}
