import type { Answer, Text } from '../model/document';
import type { Id } from '../model/ids';
import { composeText, type DraftParagraph } from '../text/draft-text';

/** A question with what one row of a table answers to it. */
export interface AnswerInRow {
  readonly questionId: Id;
  /** As the table words it, one line. */
  readonly wording: string;
  /** The lines of the answer that have words; none where it is blank. */
  readonly lines: readonly string[];
}

/** The lines of a cell that have words. */
export const linesOf = (cell: string): string[] =>
  cell
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

/** The text of a row: each question as a heading, its answer under it; a blank answer is an empty stretch behind its question. */
export function rowText(id: Id, asked: readonly AnswerInRow[]): { text: Text; words: number; answers: Answer[] } {
  const paragraphs: DraftParagraph[] = [];
  const found = asked.map(({ questionId, wording, lines }) => {
    const heading = paragraphs.push({ text: wording, style: 'heading3', emphasis: [] }) - 1;
    for (const line of lines) paragraphs.push({ text: line, style: 'body', emphasis: [] });
    return { questionId, heading, to: paragraphs.length };
  });
  const { text, words } = composeText(id, paragraphs, () => null);
  const answers = found.map(({ questionId, heading, to }): Answer => {
    const { start, end } = text.paragraphs[heading]!;
    const answered = heading + 1 < to;
    return {
      questionId,
      asked: { start, end },
      start: answered ? text.paragraphs[heading + 1]!.start : end,
      end: answered ? text.paragraphs[to - 1]!.end : end,
    };
  });
  return { text, words, answers };
}
