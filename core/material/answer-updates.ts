import type { Command } from '../change/command';
import { correctTexts } from '../commands/correct-text';
import type { Answer, Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';
import { diffEdits } from '../text/diff-edits';
import { mapPosition, type TextEdit } from '../text/edit';
import type { KnownRow } from './plan-table';

/** An answer in a document that a table has otherwise. */
export interface AnswerUpdate {
  readonly documentId: Id;
  readonly caseId: Id;
  readonly caseName: string;
  readonly questionId: Id;
  readonly question: string;
  /** The words as they are, and as the table has them; empty where there is no answer. */
  readonly before: string;
  readonly after: string;
}

/** Answers that rows of a table have otherwise than the documents that came from earlier rows. @param texts of the rows' documents */
export function answerUpdates(known: readonly KnownRow[], documents: Table<Document>, texts: ReadonlyMap<Id, Text>): AnswerUpdate[] {
  return known.flatMap((row) => {
    const document = documents[row.documentId];
    const text = texts.get(row.documentId);
    if (!document || !text) return [];
    return row.answers.flatMap(({ question, lines }): AnswerUpdate[] => {
      const answer = document.answers.find((one) => one.questionId === question.id);
      const before = answer ? text.text.slice(answer.start, answer.end) : '';
      const after = lines.join('\n');
      if (!answer || before === after) return [];
      const { documentId, caseId, caseName } = row;
      return [{ documentId, caseId, caseName, questionId: question.id, question: question.text, before, after }];
    });
  });
}

/** Puts updated answers into their documents, as one step. Passages stay on the words that stay. */
export function updateAnswers(updates: readonly AnswerUpdate[], texts: ReadonlyMap<Id, Text>, fileName: string): Command {
  return (state, context) => {
    const byDocument = new Map<Id, Map<Id, string>>();
    for (const { documentId, questionId, after } of updates) {
      const some = byDocument.get(documentId) ?? new Map<Id, string>();
      byDocument.set(documentId, some.set(questionId, after));
    }
    const corrections = [...byDocument].flatMap(([id, wanted]) => {
      const text = texts.get(id);
      const document = state.tables.document[id];
      if (!text || !document) return [];
      return [{ text, edits: document.answers.flatMap((answer) => editsOf(text, answer, wanted.get(answer.questionId))).sort(byPlace) }];
    });
    const sentence = `updated ${updates.length} ${updates.length === 1 ? 'answer' : 'answers'} from ${fileName}`.slice(0, 500);
    const action = correctTexts(corrections, sentence)(state, context);
    if (!action) return null;
    const edits = new Map(corrections.map((one) => [one.text.id, one.edits]));
    const change = action.change.map((one) => {
      if (one.type === 'document' && one.after && one.before) {
        const answers = one.before.answers.map((answer, at) =>
          moved(one.after!.answers[at]!, answer, edits.get(one.before!.id)!, one.before!.characters),
        );
        return { ...one, after: { ...one.after, answers } };
      }
      return one;
    });
    const answersIn = new Map(
      change.flatMap((one) => (one.type === 'document' && one.after ? [[one.after.id, one.after.answers] as const] : [])),
    );
    return {
      ...action,
      change: change.map((one) =>
        one.type === 'text' && one.after ? { ...one, after: asBody(one.after, answersIn.get(one.after.id) ?? []) } : one,
      ),
    };
  };
}

const byPlace = (a: TextEdit, b: TextEdit): number => a.from - b.from || a.to - b.to;

/** What has to be typed for an answer to read otherwise. */
function editsOf(text: Text, { start, end, asked }: Answer, after: string | undefined): TextEdit[] {
  if (after === undefined) return [];
  if (start === end) return after ? [{ from: start, to: start, insert: `\n${after}` }] : [];
  // the line end behind the question goes with the answer
  if (!after) return [{ from: asked && asked.end < start ? asked.end : start, to: end, insert: '' }];
  return diffEdits(text.text.slice(start, end), after).map((edit) => ({ ...edit, from: edit.from + start, to: edit.to + start }));
}

/** What is typed at the very edge of an answer belongs to it, unlike with passages. @param length of the text before */
function moved(after: Answer, before: Answer, edits: readonly TextEdit[], length: number): Answer {
  const own = edits.some((edit) => edit.from >= (before.asked?.end ?? before.start) && edit.to <= before.end);
  if (!own) return after;
  const start = mapPosition(before.start, edits, -1, length);
  const end = mapPosition(before.end, edits, 1, length);
  return { ...after, start: before.start === before.end && end > start ? start + 1 : start, end };
}

/** Lines that a question's line was divided into are answers, not questions. */
const asBody = (text: Text, answers: readonly Answer[]): Text => ({
  ...text,
  paragraphs: text.paragraphs.map((paragraph) =>
    paragraph.style !== 'body' &&
    answers.some((answer) => answer.start < answer.end && paragraph.start >= answer.start && paragraph.end <= answer.end)
      ? { ...paragraph, style: 'body' as const }
      : paragraph,
  ),
});
