import type { Document, Text } from '../model/document';
import { paragraphAt } from './paragraphs';
import { wordsWithin } from './stretch';
import type { Stretch } from '../model/stretch';

/**
 * Questions with their answers as one unit: from where the interviewer begins to speak to where the next question begins.
 * What stands before the first question is a unit of its own; a text without an interviewer is one of paragraphs.
 */
export function exchangesOf(document: Document, { text, paragraphs }: Text): Stretch[] {
  const asks = (at: number): boolean => document.speakers[paragraphs[at]?.speaker ?? -1]?.interviewer ?? false;
  const asked = new Set(document.answers.flatMap((answer) => (answer.asked ? [paragraphAt(paragraphs, answer.asked.start)] : [])));
  const hasInterviewer = document.speakers.some((speaker) => speaker.interviewer);
  const units: Stretch[] = [];
  let from = -1;
  let to = -1;
  const close = (): void => {
    const unit = from < 0 ? null : wordsWithin(text, from, to);
    if (unit) units.push(unit);
  };
  paragraphs.forEach((paragraph, at) => {
    const begins = hasInterviewer ? asks(at) && !asks(at - 1) : asked.size === 0 || asked.has(at);
    if (begins || from < 0) {
      close();
      from = paragraph.body;
    }
    to = paragraph.end;
  });
  close();
  return units;
}
