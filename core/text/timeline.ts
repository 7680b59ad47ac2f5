import type { Text } from '../model/document';
import type { Stretch } from '../model/stretch';
import { wordsWithin as withoutBlanks } from './stretch';
import { unitAt } from './units';

/** A place of a text whose time is known. */
interface Anchor {
  readonly at: number;
  /** Milliseconds from the start of the recording. */
  readonly time: number;
}

/** How long a character is spoken where the text itself does not tell, milliseconds: about 150 words a minute. */
const SPOKEN = 70;

const known = new WeakMap<Text, readonly Anchor[]>();

/** Whether a text says when its words are spoken. */
export const isTimed = (text: Text): boolean => anchorsOf(text).length > 0;

/**
 * When a position of a timed transcript is reached, in whole milliseconds: between two time marks by the share of the
 * characters between them, before the first and after the last by the pace of the whole. A later position is never
 * reached earlier. The end of the recording is not known here: what lies behind the last mark may be said to be later.
 * @returns 0 for a text without times
 */
export function timeAt(text: Text, position: number): number {
  const anchors = anchorsOf(text);
  if (anchors.length === 0) return 0;
  const after = countUpTo(anchors, position);
  const [before, next] = [anchors[after - 1], anchors[after]];
  if (!before) return Math.max(0, Math.round(next!.time - (next!.at - position) * paceOf(anchors)));
  if (!next) return Math.round(before.time + (position - before.at) * paceOf(anchors));
  return Math.round(before.time + ((position - before.at) / (next.at - before.at)) * (next.time - before.time));
}

/** The last position of a timed transcript that is reached by a time, 0 before the first. @param time in milliseconds */
export function positionAt(text: Text, time: number): number {
  let low = 0;
  let high = text.text.length;
  while (low < high) {
    const middle = (low + high + 1) >>> 1;
    if (timeAt(text, middle) <= time) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** When the words of a stretch are spoken: a span of the recording, never empty. */
export function spanOf(text: Text, { start, end }: Stretch): Stretch {
  const from = timeAt(text, start);
  return { start: from, end: Math.max(from + 1, timeAt(text, end)) };
}

/**
 * The words to follow while a recording plays: the sentence that is spoken at a time, between the time marks around it.
 * @param language BCP 47 tag of the study
 * @returns null for a text without times, or before its first
 */
export function spokenAt(text: Text, time: number, language: string): Stretch | null {
  const anchors = anchorsOf(text);
  if (anchors.length === 0 || time < anchors[0]!.time) return null;
  const position = positionAt(text, time);
  const sentence = unitAt(text, position, 'sentence', language);
  if (!sentence) return null;
  const next = countUpTo(anchors, position);
  const [from, to] = [anchors[next - 1]?.at ?? 0, anchors[next]?.at ?? Infinity];
  return withoutBlanks(text.text, Math.max(sentence.start, from), Math.min(sentence.end, to)) ?? sentence;
}

/** The words, whole, that are spoken within a span of the recording; null where nobody says anything then. */
export function wordsSpoken(text: Text, span: Stretch): Stretch | null {
  if (!isTimed(text)) return null;
  const letters = text.text;
  const blank = (at: number): boolean => /\s/.test(letters.charAt(at));
  let start = positionAt(text, span.start);
  let end = positionAt(text, Math.max(span.start, span.end - 1)) + 1;
  while (start > 0 && !blank(start) && !blank(start - 1)) start--;
  while (start < end && blank(start)) start++;
  while (end < letters.length && !blank(end) && !blank(end - 1)) end++;
  end = Math.min(end, letters.length);
  while (end > start && blank(end - 1)) end--;
  return start < end ? { start, end } : null;
}

/** How many anchors stand at or before a position. */
function countUpTo(anchors: readonly Anchor[], position: number): number {
  let low = 0;
  let high = anchors.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (anchors[middle]!.at <= position) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The time marks of a text, by position, without those that run backwards: as many as follow each other in time. */
function anchorsOf(text: Text): readonly Anchor[] {
  let anchors = known.get(text);
  if (!anchors)
    known.set(text, (anchors = inOrder(text.marks.flatMap(({ kind, at, value }) => (kind === 'time' ? [{ at, time: value }] : [])))));
  return anchors;
}

/**
 * The longest chain of anchors whose times never run backwards, at most one a position. By patience sorting
 * (Fredman 1975), in n log n steps.
 */
function inOrder(marks: readonly Anchor[]): Anchor[] {
  const sorted = [...marks].sort((a, b) => a.at - b.at || a.time - b.time);
  /** For each length of chain the anchor that ends one soonest, and what comes before each anchor. */
  const ends: number[] = [];
  const before: number[] = [];
  sorted.forEach(({ time }, row) => {
    let low = 0;
    let high = ends.length;
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (sorted[ends[middle]!]!.time <= time) low = middle + 1;
      else high = middle;
    }
    before[row] = low > 0 ? ends[low - 1]! : -1;
    ends[low] = row;
  });
  const chain: Anchor[] = [];
  for (let row = ends.at(-1) ?? -1; row >= 0; row = before[row]!) chain.push(sorted[row]!);
  return chain.reverse().filter(({ at }, row, all) => row === 0 || at > all[row - 1]!.at);
}

/** Milliseconds that a character takes on the whole. */
function paceOf(anchors: readonly Anchor[]): number {
  const [first, last] = [anchors[0]!, anchors.at(-1)!];
  return last.time > first.time && last.at > first.at ? (last.time - first.time) / (last.at - first.at) : SPOKEN;
}
