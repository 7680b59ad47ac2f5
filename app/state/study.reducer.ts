import { createFeature, createReducer, on } from '@ngrx/store';
import { applyChange } from '@core/change/apply';
import { movesIn } from '@core/change/moves-in';
import { advance, EMPTY_HISTORY, type History, type JournalEntry } from '@core/change/journal';
import type { DocumentKind } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { StudyState } from '@core/model/study-state';
import type { Backup } from '../storage/study-storage';
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

/** What everything is looking at. */
export interface ScopeState {
  /** Empty for all kinds. */
  readonly kinds: readonly DocumentKind[];
  readonly folderId: Id | null;
  /** A set of documents, or of cases whose documents are meant. */
  readonly setId: Id | null;
  readonly coderId: Id | null;
}

export interface StudyFeature {
  /** The open study, or null. */
  readonly data: StudyState | null;
  readonly history: History;
  readonly role: Role;
  readonly save: SaveState;
  readonly backup: Backup | null;
  readonly scope: ScopeState;
  /** Codes used last in this tab, the newest first. */
  readonly recentCodeIds: readonly Id[];
}

const NO_SCOPE: ScopeState = { kinds: [], folderId: null, setId: null, coderId: null };
const CLOSED: StudyFeature = {
  data: null,
  history: EMPTY_HISTORY,
  role: 'follower',
  save: { through: 0, at: null, trouble: null },
  backup: null,
  scope: NO_SCOPE,
  recentCodeIds: [],
};

const withEntry = (state: StudyFeature, entry: JournalEntry): StudyFeature =>
  state.data
    ? {
        ...state,
        data: applyChange(state.data, entry.change),
        history: advance(state.history, entry),
        scope: scopeAfter(state.scope, entry),
        recentCodeIds: recentAfter(state.recentCodeIds, entry),
      }
    : state;

/** The scope without what is gone: a folder or set that is no longer there would leave nothing, and read like everything. */
function scopeAfter(scope: ScopeState, { change }: JournalEntry): ScopeState {
  const { records } = movesIn(change) ?? {};
  if (!records) return scope;
  const now = (type: 'folder' | 'set' | 'coder', id: Id | null): Id | null =>
    id === null ? null : (records[type]?.get(id) ?? (records[type]?.has(id) ? null : id));
  return { ...scope, folderId: now('folder', scope.folderId), setId: now('set', scope.setId), coderId: now('coder', scope.coderId) };
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
      scope: state.data?.study.id === opened.state.study.id ? state.scope : NO_SCOPE,
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
    on(ScopeActions.kindsChosen, (state, { kinds }): StudyFeature => ({ ...state, scope: { ...state.scope, kinds } })),
    on(ScopeActions.folderChosen, (state, { folderId }): StudyFeature => ({ ...state, scope: { ...state.scope, folderId } })),
    on(ScopeActions.setChosen, (state, { setId }): StudyFeature => ({ ...state, scope: { ...state.scope, setId } })),
    on(ScopeActions.coderChosen, (state, { coderId }): StudyFeature => ({ ...state, scope: { ...state.scope, coderId } })),
    on(ScopeActions.cleared, (state): StudyFeature => ({ ...state, scope: NO_SCOPE })),
  ),
});
