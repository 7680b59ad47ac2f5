import { createFeature, createReducer, on } from '@ngrx/store';
import { applyChange } from '@core/change/apply';
import { movesIn } from '@core/change/moves-in';
import { advance, EMPTY_HISTORY, type History, type JournalEntry } from '@core/change/journal';
import { NOTHING_ANSWERED } from '@core/model/answered';
import type { Id } from '@core/model/ids';
import { EVERYTHING, type Scope } from '@core/model/scope';
import type { StudyState } from '@core/model/study-state';
import { spokenOf } from '@core/queries/narrowing';
import { scopeAfter } from '@core/queries/scope-moves';
import type { Backup } from '../storage/study-storage';
import type { AnsweredHere, SpokenHere } from './narrowing-here';
import { ScopeActions, StudyActions, type Role } from './study.actions';

/** What is on disk: everything, or not yet everything, or something could not be written. */
export interface SaveState {
  /** Number of the newest entry that is on disk. */
  readonly through: number;
  /** When it got there, ms since 1970; null before the first in this tab. */
  readonly at: number | null;
  /** Why the newest entry could not be written, or null. */
  readonly trouble: string | null;
}

export interface StudyFeature {
  /** The open study, or null. */
  readonly data: StudyState | null;
  readonly history: History;
  readonly role: Role;
  readonly save: SaveState;
  readonly backup: Backup | null;
  /** What everything is looking at. */
  readonly scope: Scope;
  /** Who speaks where, of the documents for which a scope has asked. */
  readonly spoken: SpokenHere;
  /** What kept queries find that live sets ask for. */
  readonly answered: AnsweredHere;
  /** Codes used last in this tab, the newest first. */
  readonly recentCodeIds: readonly Id[];
}

const CLOSED: StudyFeature = {
  data: null,
  history: EMPTY_HISTORY,
  role: 'follower',
  save: { through: 0, at: null, trouble: null },
  backup: null,
  scope: EVERYTHING,
  spoken: {},
  answered: { of: null, sign: '', found: NOTHING_ANSWERED },
  recentCodeIds: [],
};

const withEntry = (state: StudyFeature, entry: JournalEntry): StudyFeature =>
  state.data
    ? {
        ...state,
        data: applyChange(state.data, entry.change),
        history: advance(state.history, entry),
        scope: scopeNow(state.scope, entry),
        spoken: spokenNow(state.spoken, entry),
        recentCodeIds: recentAfter(state.recentCodeIds, entry),
      }
    : state;

function scopeNow(scope: Scope, { change }: JournalEntry): Scope {
  const moves = movesIn(change);
  return moves ? scopeAfter(scope, moves) : scope;
}

/** Who speaks where after some texts have changed; of a text that is gone nothing is known. */
function spokenNow(spoken: SpokenHere, { change }: JournalEntry): SpokenHere {
  const texts = change.filter((one) => one.type === 'text').filter((one) => Object.hasOwn(spoken, (one.after ?? one.before)!.id));
  if (texts.length === 0) return spoken;
  const now = { ...spoken };
  for (const { before, after } of texts) {
    if (after) now[after.id] = spokenOf(after);
    else delete now[before!.id];
  }
  return now;
}

/** Codes used last, those that were joined under the code they are now. */
function recentAfter(ids: readonly Id[], { change }: JournalEntry): readonly Id[] {
  const gone = movesIn(change)?.records.code;
  return gone ? [...new Set(ids.flatMap((id) => (gone.has(id) ? (gone.get(id) ?? []) : [id])))] : ids;
}

export const studyFeature = createFeature({
  name: 'study',
  reducer: createReducer(
    CLOSED,
    on(StudyActions.opened, (state, { opened, role }): StudyFeature => ({
      ...CLOSED,
      // reading the same study anew leaves the scope where it was
      scope: state.data?.study.id === opened.state.study.id ? state.scope : EVERYTHING,
      data: opened.state,
      history: opened.history,
      backup: opened.backup,
      role,
      save: { through: opened.history.seq, at: null, trouble: null },
    })),
    on(StudyActions.closed, (): StudyFeature => CLOSED),
    on(StudyActions.acted, (state, { entry }): StudyFeature => withEntry(state, entry)),
    on(StudyActions.followed, (state, { entry }): StudyFeature => ({
      ...withEntry(state, entry),
      save: { through: entry.seq, at: entry.at, trouble: null },
    })),
    on(StudyActions.saved, (state, { seq, at }): StudyFeature => ({ ...state, save: { through: seq, at, trouble: null } })),
    on(StudyActions.saveFailed, (state, { message }): StudyFeature => ({ ...state, save: { ...state.save, trouble: message } })),
    on(StudyActions.roleChanged, (state, { role }): StudyFeature => ({ ...state, role })),
    on(StudyActions.backupNoted, (state, backup): StudyFeature => ({ ...state, backup: { at: backup.at, through: backup.through } })),
    on(StudyActions.codeUsed, (state, { codeId }): StudyFeature => ({
      ...state,
      recentCodeIds: [codeId, ...state.recentCodeIds.filter((id) => id !== codeId)].slice(0, 12),
    })),
    on(ScopeActions.chosen, (state, { scope }): StudyFeature => ({ ...state, scope })),
    on(ScopeActions.spokenLearnt, (state, { spoken }): StudyFeature => ({ ...state, spoken: { ...state.spoken, ...spoken } })),
    on(ScopeActions.setsAnswered, (state, { answered }): StudyFeature => ({ ...state, answered })),
  ),
});
