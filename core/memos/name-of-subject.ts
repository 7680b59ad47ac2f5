import type { MemoSubject } from '../model/memo';
import type { StudyState } from '../model/study-state';

/** What a subject is called, or null if it is gone. */
export function nameOfSubject(state: Pick<StudyState, 'tables' | 'passages'>, subject: MemoSubject): string | null {
  const { tables } = state;
  switch (subject.type) {
    case 'code':
      return tables.code[subject.id]?.name ?? null;
    case 'document':
      return tables.document[subject.id]?.title ?? null;
    case 'case':
      return tables.case[subject.id]?.name ?? null;
    case 'query':
      return tables.query[subject.id]?.name ?? null;
    case 'passage':
      return state.passages[subject.documentId]?.ids.includes(subject.id)
        ? `a passage in ${tables.document[subject.documentId]?.title ?? ''}`
        : null;
  }
}
