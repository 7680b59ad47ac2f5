import type { Answer, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { FoundQuestion } from './find-questions';

/**
 * The answers of a text whose questions were found in its paragraphs.
 * @param questionIdOf the study's question for the n-th found, or null to leave it out
 */
export function answersIn(text: Text, found: readonly FoundQuestion[], questionIdOf: (row: number) => Id | null): Answer[] {
  return found.flatMap((question, row): Answer[] => {
    const questionId = questionIdOf(row);
    const asked = text.paragraphs[question.paragraph];
    if (!questionId || !asked) return [];
    const first = text.paragraphs[question.answer.from];
    const last = text.paragraphs[question.answer.to - 1];
    const answered = question.answer.from < question.answer.to && first !== undefined && last !== undefined;
    return [
      {
        questionId,
        asked: { start: asked.start + question.offset, end: asked.end },
        start: answered ? first.body : asked.end,
        end: answered ? last.end : asked.end,
      },
    ];
  });
}
