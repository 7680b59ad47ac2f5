import type { Id } from '../model/ids';
import type { RecordShapes } from '../model/records';
import type { TableType } from '../model/record-types';
import type { StudyState, Table } from '../model/study-state';
import type { Passage } from '../model/passage';
import { isUnpacked, packPassages, unpackPassages, withOtherCodings, type PassageColumns } from '../passages/columns';
import { idOf, type Change, type RecordChange } from './change';

/** A change does not fit the state: it adds what is there, or removes or updates what is not. */
export class ChangeConflictError extends Error {
  constructor(change: RecordChange, what: string) {
    super(`The ${change.type} ${idOf(change)} ${what}.`);
    this.name = 'ChangeConflictError';
  }
}

/**
 * The state after a change. What the change does not touch is shared with the state before; of the
 * passages only the documents concerned are packed anew. Texts are not in the state and pass by.
 * @throws ChangeConflictError, and then the state before is still whole
 */
export function applyChange(state: StudyState, change: Change): StudyState {
  let study = state.study;
  const tables: Partial<Record<TableType, Record<Id, unknown>>> = {};
  const passages = new Map<Id, RecordChange[]>();
  for (const one of change) {
    if (one.type === 'text') continue;
    if (one.type === 'study') {
      // a copy of a study has an id of its own, and its journal speaks of the one it was copied from
      if (one.after) study = { ...one.after, id: study.id };
    } else if (one.type === 'passage') {
      const documentId = (one.after ?? one.before)!.documentId;
      const some = passages.get(documentId);
      if (some) some.push(one);
      else passages.set(documentId, [one]);
    } else {
      const table = (tables[one.type] ??= { ...state.tables[one.type] }) as Record<Id, RecordShapes[TableType]>;
      const id = idOf(one);
      mustFit(one, Object.hasOwn(table, id));
      if (one.after === null) delete table[id];
      else table[id] = one.after;
    }
  }
  return {
    study,
    tables: Object.keys(tables).length > 0 ? ({ ...state.tables, ...tables } as StudyState['tables']) : state.tables,
    passages: passages.size > 0 ? applyToPassages(state.passages, passages) : state.passages,
  };
}

/** Ids of the documents whose passages a change touches. */
export function documentsWithChangedPassages(change: Change): Set<Id> {
  return new Set(change.flatMap((one) => (one.type === 'passage' ? [(one.after ?? one.before)!.documentId] : [])));
}

/** @throws ChangeConflictError */
function mustFit(change: RecordChange, there: boolean): void {
  if (change.before === null && there) throw new ChangeConflictError(change, 'is already there');
  if (change.before !== null && !there) throw new ChangeConflictError(change, 'is no longer there');
}

function applyToPassages(all: Table<PassageColumns>, changes: ReadonlyMap<Id, readonly RecordChange[]>): Table<PassageColumns> {
  const next: Record<Id, PassageColumns> = { ...all };
  for (const [documentId, some] of changes) {
    const columns = all[documentId];
    const recoded = columns && !isUnpacked(columns) ? onlyCodings(some) : null;
    const quickly = recoded && withOtherCodings(columns!, recoded);
    if (quickly) {
      next[documentId] = quickly;
      continue;
    }
    const passages = new Map((columns ? unpackPassages(columns) : []).map((passage) => [passage.id, passage]));
    for (const one of some) {
      if (one.type !== 'passage') continue;
      mustFit(one, passages.has(idOf(one)));
      if (one.after === null) passages.delete(idOf(one));
      else passages.set(one.after.id, one.after);
    }
    if (passages.size > 0) next[documentId] = packPassages(documentId, [...passages.values()]);
    else delete next[documentId];
  }
  return next;
}

/** The passages after changes that touch nothing but their codings, or null if one touches more. */
function onlyCodings(changes: readonly RecordChange[]): Passage[] | null {
  const after: Passage[] = [];
  for (const one of changes) {
    if (one.type !== 'passage' || !one.before || !one.after) return null;
    const { before, after: now } = one;
    const same =
      before.start === now.start &&
      before.end === now.end &&
      before.comment === now.comment &&
      before.open === now.open &&
      before.coderId === now.coderId &&
      before.createdAt === now.createdAt;
    if (!same) return null;
    after.push(now);
  }
  return after;
}
