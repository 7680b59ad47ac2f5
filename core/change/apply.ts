import type { Document } from '../model/document';
import type { GroundName } from '../model/ground';
import type { Id } from '../model/ids';
import type { RecordShapes, TableType } from '../model/records';
import type { StudyState, Table } from '../model/study-state';
import type { Passage } from '../model/passage';
import { isUnpacked, packPassages, unpackPassages } from '../passages/columns';
import type { PassageColumns } from '../model/passage-columns';
import { withOtherCodings } from '../passages/other-codings';
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
  const known = last?.state.deref() === state && last.change.deref() === change ? last.after.deref() : undefined;
  if (known) return known;
  const after = outcome(state, change);
  last = { state: new WeakRef(state), change: new WeakRef(change), after: new WeakRef(after) };
  return after;
}

/**
 * The outcome worked out last: who tries a change before it is made need not pay for it twice. It is held weakly, so that
 * it goes with its study, and no state keeps those that came after it.
 */
let last: { readonly state: WeakRef<StudyState>; readonly change: WeakRef<Change>; readonly after: WeakRef<StudyState> } | null = null;

function outcome(state: StudyState, change: Change): StudyState {
  let study = state.study;
  const tables: Partial<Record<TableType, Record<Id, unknown>>> = {};
  const passages = new Map<Id, RecordChange[]>();
  const known = outcomeOf(state.passages, change);
  for (let at = known ? known.count : 0; at < change.length; at++) {
    const one = change[at]!;
    if (one.type === 'text') continue;
    if (one.type === 'study') {
      // a copy of a study has an id of its own, and its journal speaks of the one it was copied from
      if (one.after) study = { ...one.after, id: study.id };
    } else if (one.type === 'passage') {
      for (const [documentId, part] of partsOf(one)) {
        const some = passages.get(documentId);
        if (some) some.push(part);
        else passages.set(documentId, [part]);
      }
    } else {
      const table = (tables[one.type] ??= { ...state.tables[one.type] }) as Record<Id, RecordShapes[TableType]>;
      const id = idOf(one);
      mustFit(one, Object.hasOwn(table, id));
      if (one.after === null) delete table[id];
      else table[id] = one.after;
    }
  }
  const foreseen = known?.after ?? state.passages;
  const documents = (tables.document ?? state.tables.document) as Table<Document>;
  return {
    study,
    tables: Object.keys(tables).length > 0 ? ({ ...state.tables, ...tables } as StudyState['tables']) : state.tables,
    passages: passages.size > 0 ? applyToPassages(foreseen, passages, documents) : foreseen,
  };
}

type PassageChange = Extract<RecordChange, { readonly type: 'passage' }>;

/** A passage's change by document: one that goes over to another document leaves the first and comes to the second. */
function partsOf(one: PassageChange): (readonly [Id, PassageChange])[] {
  const { before, after } = one;
  if (!before || !after || before.documentId === after.documentId) return [[(after ?? before)!.documentId, one]];
  return [
    [before.documentId, { ...one, after: null }],
    [after.documentId, { ...one, before: null }],
  ];
}

/** What a change of passages leads to, worked out before it was made. */
interface Outcome {
  readonly before: Table<PassageColumns>;
  readonly after: Table<PassageColumns>;
  /** How many record changes it is the outcome of, from the first on. */
  readonly count: number;
}
const outcomes = new WeakMap<RecordChange, Outcome>();

/**
 * Remembers what passage changes lead to, for when a change begins with just these: changing tens of thousands of
 * passages is then a look-up. For work that can be done while the researcher still thinks about it.
 */
export function foresee(before: Table<PassageColumns>, changes: Change, after: Table<PassageColumns>): void {
  if (changes[0]) outcomes.set(changes[0], { before, after, count: changes.length });
}

function outcomeOf(before: Table<PassageColumns>, change: Change): Outcome | undefined {
  const [first] = change;
  const outcome = first && outcomes.get(first);
  if (!outcome) return undefined;
  // asked for once, and then let go: it holds passages of before
  outcomes.delete(first);
  return outcome.before === before ? outcome : undefined;
}

/** Ids of the documents whose passages a change touches. */
export function documentsWithChangedPassages(change: Change): Set<Id> {
  return new Set(change.flatMap((one) => (one.type === 'passage' ? partsOf(one).map(([documentId]) => documentId) : [])));
}

/** @throws ChangeConflictError */
function mustFit(change: RecordChange, there: boolean): void {
  if (change.before === null && there) throw new ChangeConflictError(change, 'is already there');
  if (change.before !== null && !there) throw new ChangeConflictError(change, 'is no longer there');
}

function applyToPassages(
  all: Table<PassageColumns>,
  changes: ReadonlyMap<Id, readonly RecordChange[]>,
  documents: Table<Document>,
): Table<PassageColumns> {
  const next: Record<Id, PassageColumns> = { ...all };
  for (const [documentId, some] of changes) {
    const columns = applyToDocument(documentId, all[documentId], some, documents[documentId]?.ground.of);
    if (columns) next[documentId] = columns;
    else delete next[documentId];
  }
  return next;
}

/**
 * The passages of one document after changes of some of them, or null if none is left.
 * @param ground what they stand in; where there are passages already, what those stand in
 * @throws ChangeConflictError
 */
export function applyToDocument(
  documentId: Id,
  columns: PassageColumns | undefined,
  changes: readonly RecordChange[],
  ground: GroundName = columns?.ground ?? 'text',
): PassageColumns | null {
  const recoded = columns && !isUnpacked(columns) ? onlyCodings(changes) : null;
  const quickly = recoded && withOtherCodings(columns!, recoded);
  if (quickly) return quickly;
  const passages = new Map((columns ? unpackPassages(columns) : []).map((passage) => [passage.id, passage]));
  for (const one of changes) {
    if (one.type !== 'passage') continue;
    mustFit(one, passages.has(idOf(one)));
    if (one.after === null) passages.delete(idOf(one));
    else passages.set(one.after.id, one.after);
  }
  return passages.size > 0 ? packPassages(documentId, [...passages.values()], ground) : null;
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
      before.area === now.area &&
      before.comment === now.comment &&
      before.open === now.open &&
      before.coderId === now.coderId &&
      before.createdAt === now.createdAt;
    if (!same) return null;
    after.push(now);
  }
  return after;
}
