import type { EmphasisSpan, Paragraph, PlaceMark, Speaker, Text } from '../model/document';
import type { Id } from '../model/ids';
import { countWords } from './words';

/** A paragraph on its way into a study: one line of normalised text; emphasis relative to it. */
export interface DraftParagraph {
  readonly text: string;
  readonly style: Paragraph['style'];
  readonly emphasis: readonly EmphasisSpan[];
  /** Pages and times, relative to the paragraph's start. */
  readonly marks?: readonly PlaceMark[];
  /** Somebody speaks whom the file does not name: it is not whoever spoke before. */
  readonly nobody?: boolean;
  /** The file itself says that its label names who speaks, and not only how it is written. */
  readonly named?: boolean;
}

/** Paragraphs, by their place, in which somebody speaks whom the file does not name. */
export const nobodyIn = (paragraphs: readonly DraftParagraph[]): number[] => paragraphs.flatMap(({ nobody }, at) => (nobody ? [at] : []));

/** A speaker's label at the start of a paragraph. */
export interface SpeakerLabel {
  /** The name; null where the paragraph is nobody's, and the speaker before goes on after it. */
  readonly name: string | null;
  /** Characters up to the first of the words spoken, the label's colon and space included. */
  readonly length: number;
}

/** A text as it will be stored, with the speakers that its paragraphs refer to. */
export interface ComposedText {
  readonly text: Text;
  readonly speakers: Speaker[];
  readonly words: number;
}

/**
 * Puts paragraphs together into a text. A paragraph without a label, after one with a label, goes on with
 * the same speaker; a heading ends a turn.
 * @param labelOf the label of a paragraph (by its place in the list), or null; speakers are numbered in order of appearance
 */
export function composeText(
  id: Id,
  paragraphs: readonly DraftParagraph[],
  labelOf: (paragraph: DraftParagraph, at: number) => SpeakerLabel | null,
  isInterviewer: (name: string) => boolean | undefined = looksLikeInterviewer,
): ComposedText {
  const speakers: Speaker[] = [];
  const numbers = new Map<string, number>();
  const placed: Paragraph[] = [];
  const emphasis: EmphasisSpan[] = [];
  const marks: PlaceMark[] = [];
  let start = 0;
  let words = 0;
  let speaking = -1;
  for (const [at, paragraph] of paragraphs.entries()) {
    const label = labelOf(paragraph, at);
    const nobody = label?.name === null;
    if (label && label.name !== null) {
      speaking = numbers.get(label.name) ?? -1;
      if (speaking < 0) {
        speaking =
          speakers.push({ name: label.name, interviewer: isInterviewer(label.name) ?? looksLikeInterviewer(label.name), caseId: null }) - 1;
        numbers.set(label.name, speaking);
      }
    } else if (paragraph.style.startsWith('heading')) {
      speaking = -1;
    }
    const body = start + (label?.length ?? 0);
    const end = start + paragraph.text.length;
    placed.push({ start, body, end, speaker: nobody ? -1 : speaking, style: paragraph.style });
    words += countWords(paragraph.text.slice(label?.length ?? 0));
    for (const span of paragraph.emphasis) emphasis.push({ ...span, start: span.start + start, end: span.end + start });
    for (const mark of paragraph.marks ?? []) marks.push({ ...mark, at: mark.at + start });
    start = end + 1;
  }
  const text = paragraphs.map((paragraph) => paragraph.text).join('\n');
  return { text: { id, text, paragraphs: placed, emphasis, marks }, speakers, words };
}

const INTERVIEWER = /^(i|int|interviewer|interviewerin|moderator|facilitator|researcher|q|question)\.?\d?$/i;

/** Whether a label is one that interviewers commonly carry ("I", "Interviewer", "Moderator", "Q"). */
export const looksLikeInterviewer = (name: string): boolean => INTERVIEWER.test(name);
