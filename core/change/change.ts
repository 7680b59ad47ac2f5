import type { Id } from '../model/ids';
import type { RecordShapes, RecordType } from '../model/records';

/**
 * One record before and after. `before` null: it was added; `after` null: it was removed; both: it was
 * updated. A passage's document is found in the passage itself; one that goes over to another document is an update
 * whose two sides name different ones.
 */
export type RecordChange = {
  [K in RecordType]: { readonly type: K; readonly before: RecordShapes[K] | null; readonly after: RecordShapes[K] | null };
}[RecordType];

/** What one action does to a study: record changes in the order they apply, each record at most once. */
export type Change = readonly RecordChange[];

/** The record's id, the same before and after. */
export function idOf(change: RecordChange): Id {
  return (change.after ?? change.before)!.id;
}

/**
 * The change that takes everything back.
 * @example invert([{ type: 'code', before: null, after: code }]) // → [{ type: 'code', before: code, after: null }]
 */
export function invert(change: Change): Change {
  return [...change].reverse().map((one) => ({ type: one.type, before: one.after, after: one.before }) as RecordChange);
}

/**
 * Joins changes that follow each other into one: for each record the first `before` and the last
 * `after`; what was added and removed again disappears.
 */
export function squash(...changes: readonly Change[]): Change {
  const joined = new Map<string, RecordChange>();
  for (const one of changes.flat()) {
    const key = `${one.type} ${idOf(one)}`;
    const earlier = joined.get(key);
    joined.set(key, earlier ? ({ type: one.type, before: earlier.before, after: one.after } as RecordChange) : one);
  }
  return [...joined.values()].filter((one) => one.before !== null || one.after !== null);
}

/** A record change that adds. */
export const added = <K extends RecordType>(type: K, record: RecordShapes[K]): RecordChange =>
  ({ type, before: null, after: record }) as RecordChange;

/** A record change that removes. */
export const removed = <K extends RecordType>(type: K, record: RecordShapes[K]): RecordChange =>
  ({ type, before: record, after: null }) as RecordChange;

/** A record change that sets some fields. */
export const updated = <K extends RecordType>(type: K, record: RecordShapes[K], fields: Partial<RecordShapes[K]>): RecordChange =>
  ({ type, before: record, after: { ...(record as object), ...fields } }) as unknown as RecordChange;
