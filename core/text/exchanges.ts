import type { Document, Text } from '../model/document';
import type { Stretch } from '../passages/relations';

/**
 * Questions with their answers as one unit: from where the interviewer begins to speak to where the next question begins.
 * What stands before the first question is a unit of its own; a text without an interviewer is one of paragraphs.
 */
export function exchangesOf(document: Document, { text, paragraphs }: Text): Stretch[] {
  const asks = (at: number): boolean => document.speakers[paragraphs[at]?.speaker ?? -1]?.interviewer ?? false;
  const questions = new Set(document.answers.flatMap((answer) => (answer.asked ? [answer.asked.start] : [])));
  const hasInterviewer = document.speakers.some((speaker) => speaker.interviewer);
  const units: Stretch[] = [];
  let from = -1;
  let to = -1;
  const close = (): void => {
    const words = from < 0 ? '' : text.slice(from, to).trim();
    if (words) units.push({ start: text.indexOf(words, from), end: text.indexOf(words, from) + words.length });
  };
  paragraphs.forEach((paragraph, at) => {
    const asked = [...questions].some((start) => start >= paragraph.start && start < Math.max(paragraph.end, paragraph.start + 1));
    const begins = hasInterviewer ? asks(at) && !asks(at - 1) : questions.size > 0 ? asked : true;
    if (begins || from < 0) {
      close();
      from = paragraph.body;
    }
    to = paragraph.end;
  });
  close();
  return units;
}
