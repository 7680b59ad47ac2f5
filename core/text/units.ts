import type { Paragraph, Text } from '../model/document';
import type { Stretch } from '../model/stretch';
import { paragraphAt } from './paragraphs';
import { wordsWithin } from './stretch';
import { findWords } from './words';

/** The steps in which a text is read and coded, from small to large. */
export const UNIT_KINDS = ['word', 'sentence', 'paragraph', 'turn'] as const;
export type UnitKind = (typeof UNIT_KINDS)[number];

const segmenters = new Map<string, Intl.Segmenter>();

function segmenterFor(language: string): Intl.Segmenter {
  let segmenter = segmenters.get(language);
  if (!segmenter) {
    try {
      segmenter = new Intl.Segmenter(language, { granularity: 'sentence' });
    } catch {
      // a tag that no language has: sentences end as the reader's own do
      segmenter = new Intl.Segmenter(undefined, { granularity: 'sentence' });
    }
    segmenters.set(language, segmenter);
  }
  return segmenter;
}

/**
 * The sentences of a paragraph, without the white space between them; the speaker's label belongs to none.
 * Positions are those of the text. @param language BCP 47 tag of the study
 */
export function sentencesIn(text: string, { body, end }: Pick<Paragraph, 'body' | 'end'>, language: string): Stretch[] {
  const sentences: Stretch[] = [];
  for (const { segment, index } of segmenterFor(language).segment(text.slice(body, end))) {
    const sentence = wordsWithin(text, body + index, body + index + segment.length);
    if (sentence) sentences.push(sentence);
  }
  return sentences;
}

/** The paragraphs of a turn around a paragraph: those beside it of the same speaker. One of nobody stands alone. */
function turnAround(paragraphs: readonly Paragraph[], at: number): readonly [first: number, last: number] {
  const { speaker } = paragraphs[at]!;
  let [first, last] = [at, at];
  if (speaker < 0) return [first, last];
  while (paragraphs[first - 1]?.speaker === speaker) first--;
  while (paragraphs[last + 1]?.speaker === speaker) last++;
  return [first, last];
}

/** The unit that holds a position, or the one nearest to it in its paragraph; null where there are no words. */
export function unitAt({ text, paragraphs }: Text, position: number, kind: UnitKind, language: string): Stretch | null {
  const at = paragraphAt(paragraphs, position);
  const paragraph = paragraphs[at];
  if (!paragraph) return null;
  if (kind === 'turn') {
    const [first, last] = turnAround(paragraphs, at);
    return wordsWithin(text, paragraphs[first]!.body, paragraphs[last]!.end);
  }
  if (kind === 'paragraph') return wordsWithin(text, paragraph.body, paragraph.end);
  const parts = kind === 'sentence' ? sentencesIn(text, paragraph, language) : wordsIn(text, paragraph);
  return parts.find((part) => position < part.end) ?? parts.at(-1) ?? null;
}

const wordsIn = (text: string, { body, end }: Paragraph): Stretch[] =>
  findWords(text.slice(body, end)).map((word) => ({ start: body + word.start, end: body + word.end }));

/** All units of a text, ascending. */
export function unitsOf(text: Text, kind: Exclude<UnitKind, 'word'>, language: string): Stretch[] {
  const units: Stretch[] = [];
  for (let at = 0; at < text.paragraphs.length; at++) {
    const paragraph = text.paragraphs[at]!;
    if (kind === 'sentence') {
      units.push(...sentencesIn(text.text, paragraph, language));
      continue;
    }
    const last = kind === 'turn' ? turnAround(text.paragraphs, at)[1] : at;
    const unit = wordsWithin(text.text, paragraph.body, text.paragraphs[last]!.end);
    if (unit) units.push(unit);
    at = last;
  }
  return units;
}

/** The next larger unit around a stretch: a word, then its sentence, its paragraph, its turn. Null for one that is a turn or more. */
export function grown(text: Text, { start, end }: Stretch, language: string): Stretch | null {
  for (const kind of UNIT_KINDS) {
    const first = unitAt(text, start, kind, language);
    const last = unitAt(text, Math.max(start, end - 1), kind, language);
    if (!first || !last) continue;
    // of words only the one it lies in: several are part of a sentence already
    if (kind === 'word' && end > first.end) continue;
    const unit = { start: Math.min(start, first.start), end: Math.max(end, last.end) };
    if (unit.end - unit.start > end - start) return unit;
  }
  return null;
}

/**
 * Where an edge of a passage goes in one step: to the next or previous edge of a word or sentence, over paragraph ends.
 * @param side whether the edge is where the passage begins or where it ends
 * @returns the same position where there is no further one
 */
export function stepEdge(
  text: Text,
  position: number,
  side: 'start' | 'end',
  by: -1 | 1,
  kind: 'word' | 'sentence',
  language: string,
): number {
  let at = paragraphAt(text.paragraphs, position);
  for (; at >= 0 && at < text.paragraphs.length; at += by) {
    const paragraph = text.paragraphs[at]!;
    const parts = kind === 'word' ? wordsIn(text.text, paragraph) : sentencesIn(text.text, paragraph, language);
    const edges = parts.map((part) => part[side]);
    const next = by > 0 ? edges.find((edge) => edge > position) : edges.findLast((edge) => edge < position);
    if (next !== undefined) return next;
  }
  return position;
}
