import type { Document, Text } from '../model/document';
import { lengthOf } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { WeaveAsked } from '../model/pattern';
import type { Stretch } from '../model/stretch';
import { idOfRow } from '../passages/columns';
import { union } from '../passages/union';
import { isTimed, timeAt } from '../text/timeline';
import { unitsOf } from '../text/units';
import type { Entry } from './axis';
import type { FoundAxis } from './found-axis';

/** A stretch of a document as it lies in the picture, from 0 at the left to 1 at the right. */
export interface Piece extends Stretch {
  readonly from: number;
  readonly to: number;
}

/** Where a passage of a thread lies; in several pieces where the picture leaves out what is between. */
export interface ThreadPiece extends Piece {
  readonly passageId: Id;
}

/** One thing through one document. */
export interface Thread {
  readonly entry: Entry;
  /** Its place in what is looked for: threads of several documents lie in one order. */
  readonly place: number;
  /** Passages that carry it. */
  readonly passages: number;
  readonly pieces: readonly ThreadPiece[];
}

/** A document as threads. */
export interface Weave {
  readonly documentId: Id;
  /** What is found in it, in the order of what is looked for. */
  readonly threads: readonly Thread[];
  readonly speakers: readonly { readonly name: string; readonly interviewer: boolean; readonly pieces: readonly Piece[] }[];
  /** What no thread lies on. */
  readonly open: readonly Piece[];
  /** What stands at a place of the picture: questions, where they divide it. */
  readonly marks: readonly { readonly at: number; readonly questionId: Id }[];
}

/** A stretch that is spread evenly over a part of the picture. */
interface Segment extends Piece {
  readonly questionId?: Id;
}

/** Questions in their order, so that documents of one structure lie under each other. */
export type QuestionOrder = readonly Id[];

/**
 * A document from its first word to its last: by position, or with its paragraphs, turns, seconds or answers each as wide
 * as the others.
 * @param columns what is in scope of its passages; null where nothing is
 * @param text its words; null where it has none: then it is shown by its own measure
 * @returns null for a picture, which has no first and last
 */
export function weaveOf(
  found: FoundAxis,
  columns: PassageColumns | null,
  document: Document,
  text: Text | null,
  by: WeaveAsked['by'],
  questions: QuestionOrder,
  language: string,
): Weave | null {
  if (document.ground.of === 'picture') return null;
  const segments = segmentsOf(document, text, by, questions, language);
  const threads: Thread[] = [];
  const covered: Stretch[] = [];
  if (columns)
    found
      .in({ columns, document, text, spoken: text })
      .slice(0, found.entries.length)
      .forEach((some, at) => {
        if (!some) return;
        const pieces = some.rows.flatMap((row) => {
          const stretch = { start: columns.starts[row]!, end: columns.ends[row]! };
          covered.push(stretch);
          return placed(stretch, segments).map((piece) => ({ ...piece, passageId: idOfRow(columns, row) }));
        });
        threads.push({ entry: found.entries[at]!, place: at, passages: some.rows.length, pieces });
      });
  const whole = { start: 0, end: lengthOf(document) };
  return {
    documentId: document.id,
    threads,
    speakers: speakersOf(document, text, segments),
    open: between(whole, union(covered.sort((a, b) => a.start - b.start))).flatMap((stretch) => placed(stretch, segments)),
    marks: segments.flatMap(({ from, questionId }) => (questionId === undefined ? [] : [{ at: from, questionId }])),
  };
}

/** Where the stretches of a document lie in the picture. */
export function segmentsOf(
  document: Document,
  text: Text | null,
  by: WeaveAsked['by'],
  questions: QuestionOrder,
  language: string,
): Segment[] {
  const whole = { start: 0, end: lengthOf(document) };
  const even = (stretches: readonly Stretch[]): Segment[] =>
    stretches.map(({ start, end }, at) => ({ start, end, from: at / stretches.length, to: (at + 1) / stretches.length }));
  const plain = whole.end > 0 ? even([whole]) : [];
  if (!text) return plain;
  switch (by) {
    case 'position':
      return plain;
    case 'paragraph':
    case 'turn':
      return even(unitsOf(text, by, language));
    case 'second': {
      if (!isTimed(text) || text.paragraphs.length === 0) return plain;
      const last = Math.max(1, timeAt(text, whole.end));
      // within a paragraph time goes on evenly
      return text.paragraphs.map(({ start, end }) => ({ start, end, from: timeAt(text, start) / last, to: timeAt(text, end) / last }));
    }
    case 'question':
      return document.answers.flatMap(({ questionId, start, end }) => {
        const at = questions.indexOf(questionId);
        return at < 0 || start === end ? [] : [{ start, end, from: at / questions.length, to: (at + 1) / questions.length, questionId }];
      });
  }
}

/** A stretch in the picture: a piece for each part of it that is shown, those that touch as one. */
export function placed({ start, end }: Stretch, segments: readonly Segment[]): Piece[] {
  const pieces: { start: number; end: number; from: number; to: number }[] = [];
  for (const segment of segments) {
    const [first, last] = [Math.max(start, segment.start), Math.min(end, segment.end)];
    if (first >= last) continue;
    const at = (position: number): number =>
      segment.from + ((position - segment.start) / (segment.end - segment.start)) * (segment.to - segment.from);
    const before = pieces.at(-1);
    // what lies between two paragraphs is no gap
    if (before && Math.abs(before.to - at(first)) < 1e-9) Object.assign(before, { end: last, to: at(last) });
    else pieces.push({ start: first, end: last, from: at(first), to: at(last) });
  }
  return pieces;
}

function speakersOf({ speakers }: Document, text: Text | null, segments: readonly Segment[]): Weave['speakers'] {
  if (!text) return [];
  return speakers.map(({ name, interviewer }, number) => ({
    name,
    interviewer,
    pieces: text.paragraphs
      .filter((paragraph) => paragraph.speaker === number)
      .flatMap(({ body, end }) => placed({ start: body, end }, segments)),
  }));
}

/** What is left of a stretch between others. @param covered ascending, not touching */
function between({ start, end }: Stretch, covered: readonly Stretch[]): Stretch[] {
  const left: Stretch[] = [];
  let at = start;
  for (const one of covered) {
    if (one.start > at) left.push({ start: at, end: one.start });
    at = Math.max(at, one.end);
  }
  if (at < end) left.push({ start: at, end });
  return left;
}
