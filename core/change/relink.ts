import { quoted } from '../text/quoted';
import type { Id } from '../model/ids';
import { kindsHeldBy, mapped, POINTING_TYPES, StillNeededError, type Moves } from '../model/references';
import { entryOf, nameOfRecord, RECORDS, type RecordShapes, type RecordType, type TableType } from '../model/records';
import type { StudyState } from '../model/study-state';
import { idOf, type Change, type RecordChange } from './change';
import { CommandError, short } from './command';

/** Changes that make records do without what they ask for; worked out by those who know what they ask. */
export type Settle = (state: StudyState, moves: Moves) => Change;

/**
 * A change, and with it everything that points at what it takes away or moves: memos and their texts, conditions,
 * anchors, queries, sets, relations, whatever a record type says it holds. Records that cannot be without what goes,
 * go too. Codings are the command's own to change: there are tens of thousands of them, often worked out ahead.
 * @param own what a command changes
 * @param heirs what takes the place of records that go, and where parts of documents are now; what the change removes
 * and nobody takes the place of is gone
 * @param settle turns what asks for something that goes into what it answers now; see `setsSettled`
 * @throws CommandError where something that cannot be without it still needs what is to go
 */
export function relinked(state: StudyState, own: Change, heirs: Moves, settle: Settle): Change {
  let going = movesOf(own, heirs);
  if (!going) return own;
  const nameOf = (of: string, id: Id): string => nameOfRecord(state.tables[of as TableType]?.[id] ?? {});
  // passages come first and as they are: there may be tens of thousands, and what they lead to may be foreseen
  const passages = own.filter((one) => one.type === 'passage');
  const change = new Map<string, RecordChange>();
  for (const one of own) if (one.type !== 'passage') change.set(keyOf(one.type, idOf(one)), one);
  for (const one of settle(state, going)) {
    const key = keyOf(one.type, idOf(one));
    if (!change.has(key)) change.set(key, one);
  }
  while (going) {
    const gone: RecordChange[] = relinkOnce(state, change, { nameOf, ...going });
    // what went because of this is gone for others in its turn
    going = movesOf(gone, {});
  }
  return [...passages, ...change.values()];
}

const keyOf = (type: RecordType, id: Id): string => `${type} ${id}`;

/** What a change takes away and moves, or null where it does neither. */
function movesOf(change: Change, heirs: Moves): Moves | null {
  const records: Partial<Record<RecordType, Map<Id, Id | null>>> = {};
  const passages = new Map<Id, { documentId: Id; id: Id } | null>();
  for (const one of change) {
    if (one.type === 'passage') {
      const { before, after } = one;
      if (!before || (after && after.documentId === before.documentId)) continue;
      passages.set(before.id, after && { documentId: after.documentId, id: after.id });
    } else if (one.after === null && RECORDS[one.type].kept === 'row') {
      (records[one.type] ??= new Map()).set(idOf(one), null);
    }
  }
  for (const [type, ids] of Object.entries(heirs.records ?? {}))
    for (const [id, heir] of ids) (records[type as RecordType] ??= new Map()).set(id, heir);
  for (const [id, place] of heirs.passages ?? []) passages.set(id, place);
  if (passages.size === 0 && Object.keys(records).length === 0 && !heirs.stretch) return null;
  return { ...heirs, records, passages };
}

/** Relinks every record that can hold what moves. @returns the removals of records that went because of it */
function relinkOnce(state: StudyState, change: Map<string, RecordChange>, moves: Moves): RecordChange[] {
  const gone: RecordChange[] = [];
  const kinds = kindsMoved(moves);
  const relink = <K extends RecordType>(type: K, id: Id, before: RecordShapes[K]): void => {
    const key = keyOf(type, id);
    const known = change.get(key);
    if (known && !known.after) return;
    const record = (known?.after ?? before) as RecordShapes[K];
    const after = mappedOrRefused(state, type, record, moves);
    if (after === record) return;
    const relinking = { type, before: known ? known.before : before, after } as unknown as RecordChange;
    if (relinking.before === null && after === null) change.delete(key);
    else change.set(key, relinking);
    if (after === null) gone.push(relinking);
  };
  const holding = POINTING_TYPES.filter((type) => kinds.some((kind) => kindsHeldBy(type).has(kind)));
  for (const type of holding) {
    if (type === 'study') relink('study', state.study.id, state.study);
    else if (RECORDS[type].kept === 'row')
      for (const [id, record] of Object.entries(state.tables[type as TableType])) relink(type as TableType, id, record);
  }
  // what the change adds points at things too
  for (const one of [...change.values()])
    if (one.before === null && one.after && RECORDS[one.type].kept === 'row' && holding.includes(one.type))
      relink(one.type, one.after.id, one.after as never);
  return gone;
}

const kindsMoved = ({ records = {}, passages, stretch }: Moves): string[] => [
  ...Object.keys(records),
  ...(passages?.size || records.document ? ['passage'] : []),
  ...(stretch || records.document ? ['stretch'] : []),
];

function mappedOrRefused<K extends RecordType>(state: StudyState, type: K, record: RecordShapes[K], moves: Moves): RecordShapes[K] | null {
  try {
    return mapped(type, record, moves);
  } catch (error) {
    if (!(error instanceof StillNeededError)) throw error;
    const what = nameOfRecord(state.tables[error.of as TableType]?.[error.id] ?? {});
    const by = nameOfRecord(record);
    throw new CommandError(
      `The ${error.of}${what && ` ${quoted(short(what))}`} is still needed by the ${entryOf(type).called}${by && ` ${quoted(short(by))}`}. Nothing was changed.`,
    );
  }
}
