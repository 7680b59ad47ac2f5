import type { PassageColumns } from './passage-columns';
import type { Id } from './ids';
import { TABLE_TYPES, type RecordShapes, type TableType } from './records';
import type { Study } from './study';

/** Records of one type by id. */
export type Table<T> = Readonly<Record<Id, T>>;

/**
 * An open study in memory: every record but the texts, which are loaded when needed.
 * Immutable: a change makes a new state that shares all it did not touch.
 */
export interface StudyState {
  readonly study: Study;
  readonly tables: { readonly [K in TableType]: Table<RecordShapes[K]> };
  /** Packed passages by document id; a document without passages has no entry. */
  readonly passages: Readonly<Record<Id, PassageColumns>>;
}

export const NO_TABLES = Object.fromEntries(TABLE_TYPES.map((type) => [type, {}])) as unknown as StudyState['tables'];

/** A state with a study and nothing in it. */
export const emptyState = (study: Study): StudyState => ({ study, tables: NO_TABLES, passages: {} });
