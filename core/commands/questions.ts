import type { AskedQuestion } from '../model/asked-question';
import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { normaliseText } from '../text/normalise';
import { removed, updated } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import { correctTexts, type Correction } from './correct-text';

/** Questions in their order. */
export const questionsOf = (state: StudyState): AskedQuestion[] =>
  Object.values(state.tables.question).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));

/** Documents that ask a question. */
export const documentsAsking = (state: StudyState, questionId: Id): Document[] =>
  Object.values(state.tables.document).filter((document) => document.answers.some((answer) => answer.questionId === questionId));

/**
 * Rewords a question for the study, and in the documents whose texts are given also where it stands in the words.
 * @param texts of the documents to be reworded; none leaves the documents as they are
 */
export function rewordQuestion(questionId: Id, raw: string, texts: readonly Text[]): Command {
  return (state, context) => {
    const question = found(state.tables.question[questionId], 'question');
    const words = normaliseText(raw).replace(/\s+/g, ' ').trim();
    if (!words) throw new CommandError('A question needs its words.');
    if (words.length > 5_000) throw new CommandError('A question may have up to 5,000 characters.');
    const corrections = texts.map((text): Correction => {
      const answers = found(state.tables.document[text.id], 'document').answers;
      const edits = answers.flatMap(({ questionId: id, asked }) =>
        id === questionId && asked ? [{ from: asked.start, to: asked.end, insert: words }] : [],
      );
      return { text, edits };
    });
    const inTexts = correctTexts(corrections)(state, context);
    const own = words === question.text ? [] : [updated('question', question, { text: words })];
    if (own.length === 0 && !inTexts) return null;
    return { ...inTexts, change: [...own, ...(inTexts?.change ?? [])], sentence: `reworded the question ${short(question.text)}` };
  };
}

/** Joins questions that are the same: their answers belong to the first from then on. */
export function joinQuestions(intoId: Id, otherIds: readonly Id[]): Command {
  return (state) => {
    const into = found(state.tables.question[intoId], 'question');
    const others = otherIds.filter((id) => id !== intoId).map((id) => found(state.tables.question[id], 'question'));
    if (others.length === 0) return null;
    return {
      change: others.map((one) => removed('question', one)),
      heirs: { records: { question: new Map(others.map((one) => [one.id, intoId])) } },
      sentence: `joined ${counted(others.length + 1, 'question')} into ${short(into.text)}`,
    };
  };
}

/** Moves a question to another place in the list. */
export function moveQuestion(questionId: Id, by: -1 | 1): Command {
  return (state) => {
    const all = questionsOf(state);
    const from = all.findIndex((one) => one.id === questionId);
    const question = found(all[from], 'question');
    if (!all[from + by]) return null;
    all.splice(from, 1);
    all.splice(from + by, 0, question);
    return {
      change: all.flatMap((one, at) => (one.order === at ? [] : [updated('question', one, { order: at })])),
      sentence: `moved the question ${short(question.text)}`,
    };
  };
}

/** What removing a question takes away: the tie between question and answers, no words and no codings. */
export function removeQuestion(questionId: Id): Command {
  return (state) => {
    const question = found(state.tables.question[questionId], 'question');
    const documents = documentsAsking(state, questionId);
    return {
      change: [removed('question', question)],
      sentence: `removed the question ${short(question.text)} from ${counted(documents.length, 'document')}; their words stay`,
    };
  };
}
