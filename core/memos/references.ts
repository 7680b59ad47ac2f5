import type { Id } from '../model/ids';
import type { Memo, MemoSubject } from '../model/memo';
import type { Table } from '../model/study-state';

/** What a memo can speak of in its text: what it can be about, and other memos. */
export type Reference = MemoSubject | { readonly type: 'memo'; readonly id: Id };

const ADDRESS = /^filum:(code|document|case|query|memo|passage)\/([0-9a-f-]{36})(?:\/([0-9a-f-]{36}))?$/;

/** A reference as the address of a Markdown link: `filum:code/ID`, `filum:passage/DOCUMENT/ID`. */
export const addressOf = (reference: Reference): string =>
  reference.type === 'passage' ? `filum:passage/${reference.documentId}/${reference.id}` : `filum:${reference.type}/${reference.id}`;

/** The reference that an address stands for, or null where it is another address. */
export function referenceOf(address: string): Reference | null {
  const [, type, id = '', second] = ADDRESS.exec(address) ?? [];
  if (!type) return null;
  if (type === 'passage') return second ? { type, documentId: id, id: second } : null;
  return { type: type as Exclude<Reference['type'], 'passage'>, id };
}

/** References in a memo's text, each once. */
export function referencesIn(markdown: string): Reference[] {
  const found = new Map<string, Reference>();
  for (const [, address = ''] of markdown.matchAll(/\]\((filum:[^)\s]+)\)/g)) {
    const reference = referenceOf(address);
    if (reference) found.set(address, reference);
  }
  return [...found.values()];
}

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

/**
 * What a memo is linked to after things have moved or gone; nothing twice.
 * @param to what a thing has become: itself, another, or null where it is gone
 * @returns null where nothing changes
 */
export function relinked(memo: Memo, to: (subject: MemoSubject) => MemoSubject | null): Pick<Memo, 'about' | 'also'> | null {
  const before = subjectsOf(memo);
  const moved = before.map(to);
  if (moved.every((subject, at) => subject === before[at])) return null;
  const left: MemoSubject[] = [];
  for (const subject of moved) if (subject && !left.some((one) => sameSubject(one, subject))) left.push(subject);
  const [about = null, ...also] = left;
  return { about, ...((memo.also || also.length > 0) && { also }) };
}

/** Whether two subjects are the same thing. */
export const sameSubject = (a: MemoSubject, b: MemoSubject): boolean => a.type === b.type && a.id === b.id;
