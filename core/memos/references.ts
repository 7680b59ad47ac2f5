import type { Id } from '../model/ids';
import type { Memo, MemoSubject } from '../model/memo';
import type { Table } from '../model/study-state';

/** Everything a memo is linked to: what it is about, first, then what it was linked to later. */
export const subjectsOf = (memo: Memo): readonly MemoSubject[] => [...(memo.about ? [memo.about] : []), ...(memo.also ?? [])];

/** Whether a memo is linked to something. */
export const isAbout = (memo: Memo, type: MemoSubject['type'], id: Id): boolean =>
  subjectsOf(memo).some((subject) => subject.type === type && subject.id === id);

const withMemo = new WeakMap<Table<Memo>, ReadonlySet<Id>>();

/** Ids of everything that some memo is linked to, of whatever type. Remembered with the memos: it is asked for each of thousands of passages. */
export function idsWithMemo(memos: Table<Memo>): ReadonlySet<Id> {
  let ids = withMemo.get(memos);
  if (!ids) withMemo.set(memos, (ids = new Set(Object.values(memos).flatMap((memo) => subjectsOf(memo).map((subject) => subject.id)))));
  return ids;
}

/** Whether two subjects are the same thing. */
export const sameSubject = (a: MemoSubject, b: MemoSubject): boolean => a.type === b.type && a.id === b.id;
