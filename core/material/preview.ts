import type { Paragraph } from '../model/document';
import { clock } from '../text/clock';
import type { DraftParagraph } from '../text/draft-text';
import { composeImport, type TextChoices } from './compose-import';
import { doubtsOf, type Doubt } from './doubts';

/** A paragraph as the preview of an import shows it. */
export interface PreviewParagraph {
  /** The speaker where a turn begins, else empty. */
  readonly speaker: string;
  readonly asks: boolean;
  readonly nobody: boolean;
  readonly style: Paragraph['style'];
  /** What is asked, what is answered, or neither, in structured material. */
  readonly part: 'question' | 'answer' | '';
  /** A page that begins or a time, as it is shown; else empty. */
  readonly place: string;
  readonly pieces: readonly { readonly text: string; readonly look: string }[];
}

/** The first paragraphs of a text as it would be stored. */
export interface Preview {
  readonly paragraphs: readonly PreviewParagraph[];
  readonly words: number;
  readonly total: number;
  /** Wordings of the questions found, in order. */
  readonly questions: readonly string[];
  /** How many of them are left unanswered. */
  readonly unanswered: number;
  /** What looks wrong. */
  readonly doubts: readonly Doubt[];
}

/** What storing a text with these choices would make of it. @param most paragraphs to show */
export function previewOf(paragraphs: readonly DraftParagraph[], choices: TextChoices, most = 150): Preview {
  const composed = composeImport('', paragraphs, choices);
  const { text, speakers, words, questions } = composed;
  const asked = new Set(questions.map((question) => question.paragraph));
  const answered = (at: number): boolean => questions.some((question) => at >= question.answer.from && at < question.answer.to);
  const nobody = new Set(choices.nobody);
  let last = -1;
  const shown = text.paragraphs.slice(0, most).map((paragraph, at): PreviewParagraph => {
    const begins = paragraph.speaker !== last || paragraph.body > paragraph.start;
    last = paragraph.speaker;
    const draft = paragraphs[at]!;
    return {
      speaker: begins ? (speakers[paragraph.speaker]?.name ?? '') : '',
      asks: speakers[paragraph.speaker]?.interviewer ?? false,
      nobody: nobody.has(at),
      style: paragraph.style,
      part: asked.has(at) ? 'question' : answered(at) ? 'answer' : '',
      place: (draft.marks ?? [])
        .map(({ kind, value }) => (kind === 'page' ? `p. ${value}` : clock(value)))
        .slice(0, 1)
        .join(''),
      pieces: piecesOf(text.text.slice(paragraph.body, paragraph.end), paragraph.body - paragraph.start, draft.emphasis),
    };
  });
  const unanswered = questions.filter((question) => question.answer.from >= question.answer.to).length;
  return {
    paragraphs: shown,
    words,
    total: paragraphs.length,
    questions: questions.map((question) => question.text),
    unanswered,
    doubts: doubtsOf(composed, paragraphs, choices),
  };
}

/** Cuts a paragraph's words at the borders of emphasis. @param offset where the words begin in the paragraph */
function piecesOf(words: string, offset: number, spans: DraftParagraph['emphasis']): { text: string; look: string }[] {
  const cuts = [...new Set([0, words.length, ...spans.flatMap((span) => [span.start - offset, span.end - offset])])]
    .filter((cut) => cut >= 0 && cut <= words.length)
    .sort((a, b) => a - b);
  return cuts.slice(1).map((end, at) => {
    const start = cuts[at]!;
    const over = spans.filter((span) => span.start - offset <= start && span.end - offset >= end);
    return { text: words.slice(start, end), look: over.map((span) => span.emphasis).join(' ') };
  });
}
