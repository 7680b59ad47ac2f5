import type { Id } from '@core/model/ids';
import type { MemoSubject } from '@core/model/memo';
import { draftsAt } from './drafts';

/** The drafts of a study lie side by side, each under what it is written to; see `forgetDrafts`. */
const draftKey = (studyId: Id, task: MemoTask): string => draftsAt(studyId, 'memo') + nameOf(task);
const openKey = (studyId: Id): string => `${draftsAt(studyId, 'desk')}open`;

/** A memo to write on in, or what a new one is about. */
export type MemoTask = { readonly memoId: Id; readonly entryId?: Id } | { readonly about: MemoSubject | null };

/** Writing that was begun and not kept yet. */
export interface MemoDraft {
  readonly task: MemoTask;
  readonly title: string;
  readonly kind: string;
  readonly tags: string;
  readonly question: boolean;
  /** Markdown. */
  readonly text: string;
}

const nameOf = (task: MemoTask): string =>
  'memoId' in task ? `${task.memoId} ${task.entryId ?? 'new entry'}` : task.about ? `about ${task.about.type} ${task.about.id}` : 'new';

/** What is being written, kept in this browser so that a crash loses none of it. It is not part of the study yet. */
export const memoDrafts = {
  /** @returns false where the browser has no room for it */
  keep(studyId: Id, draft: MemoDraft): boolean {
    try {
      localStorage.setItem(draftKey(studyId, draft.task), JSON.stringify(draft));
      return true;
    } catch {
      return false;
    }
  },

  /** What was begun for a task and neither kept nor dropped, or null. */
  of(studyId: Id, task: MemoTask): MemoDraft | null {
    return parse(localStorage.getItem(draftKey(studyId, task)));
  },

  /** Everything that was begun and neither kept nor dropped. */
  all(studyId: Id): MemoDraft[] {
    const head = draftsAt(studyId, 'memo');
    return Object.keys(localStorage).flatMap((key) => (key.startsWith(head) ? (parse(localStorage.getItem(key)) ?? []) : []));
  },

  drop(studyId: Id, task: MemoTask): void {
    localStorage.removeItem(draftKey(studyId, task));
  },

  /** Which writing lies open on the desk: after a reload it does again. */
  setOpen(studyId: Id, task: MemoTask | null): void {
    if (!task) return localStorage.removeItem(openKey(studyId));
    try {
      localStorage.setItem(openKey(studyId), JSON.stringify(task));
    } catch {
      // only that it lay open is forgotten
    }
  },

  /** What lay open on the desk with words on it, or null. */
  open(studyId: Id): MemoTask | null {
    try {
      const task = JSON.parse(localStorage.getItem(openKey(studyId)) ?? 'null') as MemoTask | null;
      return task && this.of(studyId, task) ? task : null;
    } catch {
      return null;
    }
  },
};

function parse(stored: string | null): MemoDraft | null {
  try {
    const draft = JSON.parse(stored ?? 'null') as Partial<MemoDraft> | null;
    const fits =
      draft !== null &&
      typeof draft === 'object' &&
      typeof draft.text === 'string' &&
      typeof draft.title === 'string' &&
      typeof draft.kind === 'string' &&
      typeof draft.tags === 'string' &&
      typeof draft.task === 'object' &&
      draft.task !== null;
    return fits ? (draft as MemoDraft) : null;
  } catch {
    return null;
  }
}
