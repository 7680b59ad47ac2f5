import { quoted } from '../text/quoted';
import type { DraftParagraph } from '../text/draft-text';
import { readLabel } from '../text/speakers';

/** By what a question, or an answer, is told in a text. */
export type Marker =
  /** A label such as `Q:` or a speaker's name. */
  | { readonly kind: 'label'; readonly name: string }
  /** `1.`, `2)`, `Question 3:` at the start of a paragraph. */
  | { readonly kind: 'number' }
  /** The whole paragraph is bold. */
  | { readonly kind: 'bold' }
  | { readonly kind: 'heading' };

/** What tells questions and answers apart in a text; without an answer marker all between two questions is the answer. */
export interface Markers {
  readonly question: Marker;
  readonly answer: Marker | null;
}

/** A question found in a text; paragraphs by their place in the list. */
export interface FoundQuestion {
  /** The words, without the marker. */
  readonly text: string;
  readonly paragraph: number;
  /** Where the words of the question begin in its paragraph. */
  readonly offset: number;
  /** Paragraphs of the answer, `[from, to)`; empty for a question left unanswered. */
  readonly answer: { readonly from: number; readonly to: number };
}

/** A number and what ends it; `4.30` and `4:30` are times. */
const NUMBER = /^(?:(?:question|q|frage)[ \t]*)?\d{1,3}[ \t]*[.):](?!\d)[ \t]*/i;

/** Length of a marker at the start of a paragraph, or -1 where it is not there. */
function markerLength(paragraph: DraftParagraph, marker: Marker): number {
  switch (marker.kind) {
    case 'label': {
      const label = readLabel(paragraph);
      return label?.name === marker.name ? label.length : -1;
    }
    case 'number':
      return NUMBER.exec(paragraph.text)?.[0].length ?? -1;
    case 'bold':
      return isBold(paragraph) ? 0 : -1;
    case 'heading':
      return paragraph.style.startsWith('heading') ? 0 : -1;
  }
}

/** Whether a paragraph carries a marker. */
export const isMarked = (paragraph: DraftParagraph, marker: Marker): boolean => markerLength(paragraph, marker) >= 0;

const isBold = ({ text, emphasis }: DraftParagraph): boolean =>
  text.length > 0 && emphasis.some((span) => span.emphasis === 'bold' && span.start <= 1 && span.end >= text.length - 1);

/**
 * Finds questions and their answers. An answer goes from what follows the question to the next question; with an
 * answer marker it begins there, and what stands between is the question's second paragraph or nobody's.
 */
export function findQuestions(paragraphs: readonly DraftParagraph[], markers: Markers): FoundQuestion[] {
  const starts: { at: number; offset: number }[] = [];
  paragraphs.forEach((paragraph, at) => {
    const offset = markerLength(paragraph, markers.question);
    if (offset >= 0 && paragraph.text.length > offset) starts.push({ at, offset });
  });
  return starts.map(({ at, offset }, row) => {
    const to = starts[row + 1]?.at ?? paragraphs.length;
    let from = at + 1;
    if (markers.answer) {
      const { answer } = markers;
      const begins = paragraphs.slice(at + 1, to).findIndex((paragraph) => markerLength(paragraph, answer) >= 0);
      from = begins < 0 ? to : at + 1 + begins;
    }
    return { text: paragraphs[at]!.text.slice(offset).trim(), paragraph: at, offset, answer: { from: Math.min(from, to), to } };
  });
}

/** A guess of the markers, with its reason in words. */
export interface MarkerGuess extends Markers {
  readonly because: string;
}

const QUESTION_LABEL = /^(q|question|frage|interviewer|interviewerin|i|int|moderator|facilitator)\d*\.?$/i;
const ANSWER_LABEL = /^(a|answer|antwort|respondent|r|p|participant)\d*\.?$/i;

/**
 * Guesses how questions are marked in a text, the likeliest first; empty where nothing looks like it. A marker is
 * the likelier the more of what it marks ends in a question mark, and needs at least two questions.
 */
export function guessMarkers(paragraphs: readonly DraftParagraph[]): MarkerGuess[] {
  const labels = new Map<string, { count: number; asking: number }>();
  for (const paragraph of paragraphs) {
    const label = readLabel(paragraph);
    if (!label) continue;
    const known = labels.get(label.name) ?? { count: 0, asking: 0 };
    labels.set(label.name, { count: known.count + 1, asking: known.asking + (/[?？]["”’)]?\s*$/.test(paragraph.text) ? 1 : 0) });
  }
  const guesses: { guess: MarkerGuess; likely: number }[] = [];
  for (const [name, { count, asking }] of labels) {
    if (count < 2 || ANSWER_LABEL.test(name)) continue;
    const share = asking / count;
    if (share < 0.5 && !QUESTION_LABEL.test(name)) continue;
    const answers = [...labels]
      .filter(([other]) => other !== name)
      .sort((a, b) => b[1].count - a[1].count)
      .map(([other]) => other);
    const answer = answers.find((other) => ANSWER_LABEL.test(other)) ?? (answers.length === 1 ? answers[0]! : null);
    guesses.push({
      guess: {
        question: { kind: 'label', name },
        answer: answer ? { kind: 'label', name: answer } : null,
        because: `${asking} of ${count} paragraphs of ${quoted(name)} end in a question mark`,
      },
      likely: share + (QUESTION_LABEL.test(name) ? 0.6 : 0) + (name.toLowerCase() === 'q' ? 0.3 : 0),
    });
  }
  for (const kind of ['number', 'bold', 'heading'] as const) {
    const marked = paragraphs.filter((paragraph) => markerLength(paragraph, { kind }) >= 0);
    const asking = marked.filter((paragraph) => /[?？]["”’)]?\s*$/.test(paragraph.text)).length;
    if (marked.length < 2 || asking * 2 < marked.length) continue;
    const said = kind === 'number' ? 'numbered paragraphs' : kind === 'bold' ? 'bold paragraphs' : 'headings';
    guesses.push({
      guess: { question: { kind }, answer: null, because: `${asking} of ${marked.length} ${said} end in a question mark` },
      likely: asking / marked.length,
    });
  }
  return guesses.sort((a, b) => b.likely - a.likely).map(({ guess }) => guess);
}
