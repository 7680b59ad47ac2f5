import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { JournalEntry } from '@core/change/journal';
import type { OpenedStudy } from '../storage/study-storage';
import type { Id } from '@core/model/ids';
import type { DocumentKind } from '@core/model/document';

/** This tab may write, or follows another tab that does. */
export type Role = 'writer' | 'follower';

export const StudyActions = createActionGroup({
  source: 'Study',
  events: {
    Opened: props<{ opened: OpenedStudy; role: Role }>(),
    Closed: emptyProps(),
    /** Something was done here: it is on the screen, and on its way to the disk. */
    Acted: props<{ entry: JournalEntry }>(),
    /** The entry is on disk. */
    Saved: props<{ seq: number; at: number }>(),
    'Save Failed': props<{ message: string }>(),
    /** Another tab has written an entry. */
    Followed: props<{ entry: JournalEntry }>(),
    'Role Changed': props<{ role: Role }>(),
    'Backup Noted': props<{ at: number; through: number }>(),
    'Code Used': props<{ codeId: Id }>(),
  },
});

export const ScopeActions = createActionGroup({
  source: 'Scope',
  events: {
    'Kinds Chosen': props<{ kinds: readonly DocumentKind[] }>(),
    'Folder Chosen': props<{ folderId: Id | null }>(),
    'Set Chosen': props<{ setId: Id | null }>(),
    'Coder Chosen': props<{ coderId: Id | null }>(),
    Cleared: emptyProps(),
  },
});
