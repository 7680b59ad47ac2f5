import { added, removed } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';
import type { Absence } from '../model/absence';
import type { Id } from '../model/ids';
import type { MemoSubject } from '../model/memo';
import type { PassageCondition } from '../model/passage-condition';
import type { Question } from '../model/query';
import type { Scope } from '../model/scope';
import type { StudyState } from '../model/study-state';
import { addMemo } from './memos';
import { sameAsked } from '../patterns/absence';

/** Something expected and not found. */
export interface NewAbsence {
  readonly question: Question;
  readonly scope: Scope;
  /** What the memo is called. */
  readonly title: string;
  /** Why it was expected, or what its absence may mean. */
  readonly note: string;
}

/**
 * Marks something as expected and not found. The note becomes a memo, linked to the codes, documents and cases that it
 * speaks of: it is found where memos are.
 */
export function noteAbsence({ question, scope, title, note }: NewAbsence): Command {
  return (state, context) => {
    if (question.all.length === 0) throw new CommandError('It is not said what is absent.');
    if (!note.trim()) throw new CommandError('Say why it was expected, or what its absence may mean.');
    if (Object.values(state.tables.absence).some((one) => sameAsked(one, { question, scope })))
      throw new CommandError('It is marked as expected and not found already.');
    const memoId = context.newId();
    const [about = null, ...also] = subjectsIn(state, question);
    const memo = addMemo({ id: memoId, title, kind: 'analytic', about, also, text: note, tags: ['absence'] })(state, context)!;
    const absence: Absence = { id: context.newId(), question, scope, memoId, coderId: context.coderId, createdAt: context.now };
    return { change: [...memo.change, added('absence', absence)], sentence: `marked as expected and not found: ${short(title)}` };
  };
}

/** Takes the mark away; its memo stays. */
export function takeAbsenceBack(absenceId: Id): Command {
  return (state) => {
    const absence = found(state.tables.absence[absenceId], 'mark of an absence');
    const memo = state.tables.memo[absence.memoId];
    return {
      change: [removed('absence', absence)],
      sentence: `no longer marked as expected and not found: ${short(memo?.title ?? 'a cell')}`,
    };
  };
}

/** What a question names that a memo can be about. */
function subjectsIn({ tables }: StudyState, { all }: Question): MemoSubject[] {
  const subjects = (part: PassageCondition): MemoSubject[] => {
    if ('carries' in part) return part.codes.codeIds.map((id) => ({ type: 'code', id }));
    if ('liesIn' in part) return part.liesIn.documentIds.map((id) => ({ type: 'document', id }));
    if ('ofCases' in part) return part.ofCases.map((id) => ({ type: 'case', id }));
    return 'queryId' in part ? [{ type: 'query', id: part.queryId }] : [];
  };
  return all.flatMap(subjects).filter(({ type, id }) => type !== 'passage' && tables[type][id]);
}
