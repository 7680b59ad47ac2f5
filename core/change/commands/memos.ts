import type { Id } from '../../model/ids';
import type { Memo, MemoSubject } from '../../model/memo';
import { tidyLine } from '../../text/normalise';
import { added, removed, updated } from '../change';
import { CommandError, found, short, type Command } from '../command';

/** A memo to be written. The first entry may be empty and written later. */
export interface NewMemo {
  readonly id?: Id;
  readonly title: string;
  readonly kind: string;
  readonly about: MemoSubject | null;
  readonly text: string;
}

/** Writes a new memo. */
export function addMemo(wanted: NewMemo): Command {
  return (_state, context) => {
    const memo: Memo = {
      id: wanted.id ?? context.newId(),
      title: titleOf(wanted.title),
      kind: titleOf(wanted.kind),
      about: wanted.about,
      entries: wanted.text.trim()
        ? [{ id: context.newId(), writtenAt: context.now, coderId: context.coderId, text: wanted.text.trim() }]
        : [],
      createdAt: context.now,
    };
    return { change: [added('memo', memo)], sentence: `wrote the memo ${short(memo.title)}` };
  };
}

/** Changes a memo's title or kind. */
export function editMemo(memoId: Id, fields: Partial<Pick<Memo, 'title' | 'kind'>>): Command {
  return (state) => {
    const memo = found(state.tables.memo[memoId], 'memo');
    const next = { title: titleOf(fields.title ?? memo.title), kind: titleOf(fields.kind ?? memo.kind) };
    if (next.title === memo.title && next.kind === memo.kind) return null;
    return { change: [updated('memo', memo, next)], sentence: `changed the heading of the memo ${short(memo.title)}` };
  };
}

/** Adds a dated entry to a memo. */
export function addMemoEntry(memoId: Id, text: string): Command {
  return (state, context) => {
    const memo = found(state.tables.memo[memoId], 'memo');
    if (!text.trim()) return null;
    const entry = { id: context.newId(), writtenAt: context.now, coderId: context.coderId, text: text.trim() };
    return {
      change: [updated('memo', memo, { entries: [...memo.entries, entry] })],
      sentence: `wrote on in the memo ${short(memo.title)}`,
    };
  };
}

/** Corrects the text of an entry; its date stays. An empty text takes the entry away. */
export function editMemoEntry(memoId: Id, entryId: Id, text: string): Command {
  return (state) => {
    const memo = found(state.tables.memo[memoId], 'memo');
    const entry = found(
      memo.entries.find((one) => one.id === entryId),
      'entry',
    );
    if (entry.text === text.trim()) return null;
    const entries = text.trim()
      ? memo.entries.map((one) => (one === entry ? { ...one, text: text.trim() } : one))
      : memo.entries.filter((one) => one !== entry);
    return { change: [updated('memo', memo, { entries })], sentence: `changed an entry of the memo ${short(memo.title)}` };
  };
}

/** Deletes a memo with all its entries. */
export function deleteMemo(memoId: Id): Command {
  return (state) => {
    const memo = found(state.tables.memo[memoId], 'memo');
    return { change: [removed('memo', memo)], sentence: `deleted the memo ${short(memo.title)}` };
  };
}

function titleOf(raw: string): string {
  const title = tidyLine(raw);
  if (!title) throw new CommandError('A memo needs a title and a kind.');
  return title;
}
