import type { Id } from '@core/model/ids';
import type { MemoSubject } from '@core/model/memo';

const KEY = 'filum-writing ';

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

/** What is being written, kept in this browser within a second, so that a crash loses none of it. It is not part of the study yet. */
export const memoDrafts = {
  keep(studyId: Id, draft: MemoDraft): void {
    if (!draft.text.trim()) return this.drop(studyId);
    try {
      localStorage.setItem(KEY + studyId, JSON.stringify(draft));
    } catch {
      // the browser's room for such things is full: the words are still on the screen
    }
  },

  /** What was begun and neither kept nor dropped, or null. */
  of(studyId: Id): MemoDraft | null {
    try {
      const draft = JSON.parse(localStorage.getItem(KEY + studyId) ?? 'null') as Partial<MemoDraft> | null;
      const fits =
        draft !== null &&
        typeof draft === 'object' &&
        typeof draft.text === 'string' &&
        typeof draft.title === 'string' &&
        typeof draft.kind === 'string' &&
        typeof draft.tags === 'string' &&
        typeof draft.task === 'object';
      return fits ? (draft as MemoDraft) : null;
    } catch {
      return null;
    }
  },

  drop(studyId: Id): void {
    localStorage.removeItem(KEY + studyId);
  },
};
