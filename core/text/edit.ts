import type { Stretch } from '../model/stretch';
import type { Paragraph, Text } from '../model/document';
import { paragraphAt } from './paragraphs';

/**
 * Replaces `[from, to)` of a text by other characters: pure insertion where `from` is `to`, pure deletion
 * where nothing is inserted. Positions are UTF-16 code units of the text before.
 */
export interface TextEdit {
  readonly from: number;
  readonly to: number;
  readonly insert: string;
}

/** Edits of one text, ascending, none touching the inside of another. */
export type TextEdits = readonly TextEdit[];

/** @throws RangeError if edits overlap, run backwards or leave the text */
export function checkEdits(edits: TextEdits, length: number): void {
  let free = 0;
  for (const { from, to } of edits) {
    if (from < free || to < from || to > length) throw new RangeError(`An edit at ${from} overlaps another or leaves the text.`);
    free = to;
  }
}

/** The characters after the edits. */
export function applyEdits(text: string, edits: TextEdits): string {
  let result = '';
  let at = 0;
  for (const { from, to, insert } of edits) {
    result += text.slice(at, from) + insert;
    at = to;
  }
  return result + text.slice(at);
}

/**
 * Where a position of the old text lies in the new one. A position stands between two characters: before the first
 * edit nothing moves; after an edit everything moves by what it added. Where text is inserted at the very position, and
 * where the position lies strictly inside what is replaced, `side` says which end of the new text it goes to: -1 to its
 * start, 1 to its end. Whether its own place was deleted, {@link isDeleted} tells.
 * @param length of the text before, in UTF-16 code units
 * @throws RangeError for a position outside of the text
 */
export function mapPosition(position: number, edits: TextEdits, side: -1 | 1, length: number): number {
  if (!(Number.isInteger(position) && position >= 0 && position <= length))
    throw new RangeError(`Position ${position} lies outside of a text of ${length} characters.`);
  let shift = 0;
  for (const { from, to, insert } of edits) {
    if (position < from || (position === from && side < 0)) break;
    if (position < to) return from + shift + (side > 0 && position > from ? insert.length : 0);
    shift += insert.length - (to - from);
  }
  return position + shift;
}

/** Whether both characters around a position were replaced or deleted: it is then no longer the place it was. */
export const isDeleted = (position: number, edits: TextEdits): boolean => edits.some(({ from, to }) => from < position && position < to);

/**
 * Where a stretch lies after the edits: on the same words.
 *
 * Characters that stay keep belonging to it or not. What is inserted in its inside belongs to it, what is
 * inserted at its very edge does not. What replaces a stretch belongs to it if it covered all that was
 * replaced, or lay wholly within and made up a third of it: a name that is coded stays coded when it is written
 * otherwise, and a passage does not grow to a page that took the place of the page it lay in.
 *
 * Its start: behind what is inserted at it; where it lies in what is replaced, behind that. Its end: before what is
 * inserted at it; where it lies in what is replaced, before that.
 * @returns null if all its words were deleted: a place that is gone, not one that has moved
 * @throws RangeError for a stretch that is empty, runs backwards or begins before the text
 */
export function mapStretch({ start, end }: Stretch, edits: TextEdits): Stretch | null {
  if (!(start >= 0 && start < end)) throw new RangeError(`There is no stretch from ${start} to ${end}.`);
  let shift = 0;
  let newStart: number | null = null;
  let newEnd: number | null = null;
  for (const { from, to, insert } of edits) {
    const here = from + shift;
    if (to > from) {
      if (start >= from && end <= to)
        return insert.length > 0 && belongs(start, end, from, to) ? { start: here, end: here + insert.length } : null;
      if (newStart === null && start <= from) newStart = start + shift;
      else if (newStart === null && start < to) newStart = here + insert.length;
      if (newEnd === null && end > from && end < to) newEnd = here;
      else if (newEnd === null && end <= from) newEnd = end + shift;
    } else {
      if (newStart === null && start < from) newStart = start + shift;
      if (newEnd === null && end <= from) newEnd = end + shift;
    }
    shift += insert.length - (to - from);
  }
  newStart ??= start + shift;
  newEnd ??= end + shift;
  return newStart < newEnd ? { start: newStart, end: newEnd } : null;
}

/** Whether what replaces `[from, to)` takes the place of a stretch within it. */
const belongs = (start: number, end: number, from: number, to: number): boolean => (end - start) * 3 >= to - from;

/**
 * A text after edits, with its paragraphs, emphasis, pages and times. A line end that is inserted divides a
 * paragraph, whose second part has the same speaker and style; one that is deleted joins two, and the first
 * one's speaker and style stay.
 */
export function editText(text: Text, edits: TextEdits): Text {
  checkEdits(edits, text.text.length);
  const words = applyEdits(text.text, edits);
  return {
    id: text.id,
    text: words,
    paragraphs: newParagraphs(text, words, edits),
    emphasis: text.emphasis.flatMap((span) => {
      const place = mapStretch(span, edits);
      return place ? [{ ...place, emphasis: span.emphasis }] : [];
    }),
    marks: text.marks.map((mark) => ({ ...mark, at: mapPosition(mark.at, edits, -1, text.text.length) })),
    ...stillUnsure(text, edits),
  };
}

/** Words that were typed over or added to are decided; the others are as unsure as before. */
function stillUnsure({ unsure }: Text, edits: TextEdits): Pick<Text, 'unsure'> {
  const left = (unsure ?? []).flatMap((words) => {
    if (edits.some(({ from, to }) => from < words.end && to > words.start)) return [];
    const place = mapStretch(words, edits);
    return place ? [{ ...place, confidence: words.confidence }] : [];
  });
  return left.length > 0 ? { unsure: left } : {};
}

function newParagraphs(text: Text, words: string, edits: TextEdits): Paragraph[] {
  const inverse = invertEdits(text.text, edits);
  const labels = text.paragraphs.map(({ start, body }) => (body > start ? mapStretch({ start, end: body }, edits) : null));
  const paragraphs: Paragraph[] = [];
  let start = 0;
  while (start <= words.length) {
    const lineEnd = words.indexOf('\n', start);
    const end = lineEnd < 0 ? words.length : lineEnd;
    // the last position of the line end before decides: what stands at the start may be new
    const origin =
      text.paragraphs.length === 0 ? -1 : paragraphAt(text.paragraphs, mapPosition(start, inverse, start === 0 ? -1 : 1, words.length));
    const old = text.paragraphs[origin];
    // a label stays one as long as nothing stands before it in its line
    const label = labels[origin];
    const body = label && label.start === start && label.end <= end ? label.end : start;
    paragraphs.push({ start, body, end, speaker: old?.speaker ?? -1, style: old?.style ?? 'body' });
    start = end + 1;
  }
  return paragraphs;
}

/** The edits that lead back, over the text after. */
export function invertEdits(text: string, edits: TextEdits): TextEdits {
  let shift = 0;
  return edits.map(({ from, to, insert }) => {
    const inverse = { from: from + shift, to: from + shift + insert.length, insert: text.slice(from, to) };
    shift += insert.length - (to - from);
    return inverse;
  });
}

/** Edits that take lines without words out, and the blanks at line ends. */
export function tidyLineEnds(text: string): TextEdits {
  const edits: TextEdit[] = [];
  for (const match of text.matchAll(/(?<![ \t])(?:^[ \t]*\n+|[ \t]*\n(?:[ \t]*\n)+|[ \t]+\n|[ \t]*\n[ \t]*$|[ \t]+$)/g)) {
    const from = match.index;
    const to = from + match[0].length;
    const insert = from === 0 || to === text.length ? '' : '\n';
    edits.push({ from, to, insert });
  }
  return edits;
}
