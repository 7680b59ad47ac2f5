import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { JournalEntry } from '@core/change/journal';
import type { OpenedStudy } from '../storage/study-storage';
import type { Id } from '@core/model/ids';
import type { Scope } from '@core/model/scope';
import type { AnsweredHere, SpokenHere } from './narrowing-here';

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
    Chosen: props<{ scope: Scope }>(),
    /** Who speaks where in some documents, for scopes that ask for it. */
    'Spoken Learnt': props<{ spoken: SpokenHere }>(),
    /** What kept queries find that live sets ask for. */
    'Sets Answered': props<{ answered: AnsweredHere }>(),
  },
});
