import type { Id } from '../model/ids';
import { MOST_LINKS, type Memo, type MemoSubject } from '../model/memo';
import { sameSubject, subjectsOf } from '../memos/references';
import { tidyLine, tidyWords } from '../text/normalise';
import { added, removed, updated, type RecordChange } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import { passageById } from './passages';

/** A memo to be written. The first entry may be empty and written later. */
export interface NewMemo {
  readonly id?: Id;
  readonly title: string;
  readonly kind: string;
  readonly about: MemoSubject | null;
  readonly text: string;
  readonly tags?: readonly string[];
  /** More things it is linked to, as many as a memo can be. */
  readonly also?: readonly MemoSubject[];
  /** It asks something to come back to. */
  readonly question?: 'open';
}

/** Writes a new memo. */
export function addMemo(wanted: NewMemo): Command {
  return (_state, context) => {
    const tags = tagsOf(wanted.tags ?? []);
    const memo: Memo = {
      id: wanted.id ?? context.newId(),
      title: titleOf(wanted.title),
      kind: titleOf(wanted.kind),
      about: wanted.about,
      entries: wanted.text.trim()
        ? [{ id: context.newId(), writtenAt: context.now, coderId: context.coderId, text: wanted.text.trim() }]
        : [],
      createdAt: context.now,
      ...(wanted.also && wanted.also.length > 0 && { also: wanted.also.slice(0, MOST_LINKS) }),
      ...(tags.length > 0 && { tags }),
      ...(wanted.question && { question: wanted.question }),
    };
    return { change: [added('memo', memo)], sentence: `wrote the memo ${short(memo.title)}` };
  };
}

/** What of a memo can be changed besides its entries. `false` takes a sign away. */
export interface MemoFields {
  readonly title?: string;
  readonly kind?: string;
  readonly tags?: readonly string[];
  /** One tag more, beside those that are there. */
  readonly alsoTag?: string;
  readonly pinned?: boolean;
  readonly archived?: boolean;
  readonly question?: Memo['question'] | false;
}

/** Changes the headings and signs of memos, all alike. */
export function editMemos(memoIds: readonly Id[], fields: MemoFields): Command {
  return (state) => {
    const change = memoIds.flatMap((id): RecordChange[] => {
      const memo = found(state.tables.memo[id], 'memo');
      const after = withFields(memo, fields);
      return JSON.stringify(after) === JSON.stringify(memo) ? [] : [{ type: 'memo', before: memo, after }];
    });
    if (change.length === 0) return null;
    const what = change.length === 1 ? `the memo ${short((change[0]!.after as Memo).title)}` : counted(change.length, 'memo');
    return { change, sentence: sentenceOf(fields, what) };
  };
}

/** Changes the heading and signs of one memo. */
export const editMemo = (memoId: Id, fields: MemoFields): Command => editMemos([memoId], fields);

function withFields(memo: Memo, fields: MemoFields): Memo {
  const { pinned, archived, question, tags, ...rest } = memo;
  const nextTags = fields.tags || fields.alsoTag ? tagsOf([...(fields.tags ?? tags ?? []), fields.alsoTag ?? '']) : tags;
  const nextQuestion = fields.question === undefined ? question : fields.question || undefined;
  return {
    ...rest,
    title: titleOf(fields.title ?? memo.title),
    kind: titleOf(fields.kind ?? memo.kind),
    ...(nextTags?.length ? { tags: nextTags } : {}),
    ...((fields.pinned ?? pinned) ? { pinned: true as const } : {}),
    ...((fields.archived ?? archived) ? { archived: true as const } : {}),
    ...(nextQuestion ? { question: nextQuestion } : {}),
  };
}

function sentenceOf(fields: MemoFields, what: string): string {
  if (fields.archived !== undefined) return `${fields.archived ? 'put away' : 'took out again'} ${what}`;
  if (fields.pinned !== undefined) return `${fields.pinned ? 'pinned' : 'unpinned'} ${what}`;
  if (fields.question === 'open') return `marked ${what} as a question to come back to`;
  if (fields.question === 'answered') return `answered the question of ${what}`;
  if (fields.tags || fields.alsoTag) return `changed the tags of ${what}`;
  return `changed the heading of ${what}`;
}

/** Links a memo to one more thing, or takes the link away. */
export function linkMemo(memoId: Id, subject: MemoSubject, linked: boolean): Command {
  return (state) => {
    const memo = found(state.tables.memo[memoId], 'memo');
    const there = subjectsOf(memo).some((one) => sameSubject(one, subject));
    if (there === linked) return null;
    const rest = subjectsOf(memo).filter((one) => !sameSubject(one, subject));
    const subjects = linked ? [...rest, subject] : rest;
    const { also: _, ...bare } = memo;
    const after: Memo = { ...bare, about: subjects[0] ?? null, ...(subjects.length > 1 && { also: subjects.slice(1) }) };
    return {
      change: [{ type: 'memo', before: memo, after }],
      sentence: `${linked ? 'linked the memo' : 'took a link off the memo'} ${short(memo.title)}${linked ? ` to a ${subject.type}` : ''}`,
    };
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

/** Within this time after it was written an entry is still being written. */
const STILL_WRITING = 60 * 60 * 1_000;

/** Corrects the text of an entry; its date stays, and one that is not of this hour says that it was edited. An empty text takes it away. */
export function editMemoEntry(memoId: Id, entryId: Id, text: string): Command {
  return (state, context) => {
    const memo = found(state.tables.memo[memoId], 'memo');
    const entry = found(
      memo.entries.find((one) => one.id === entryId),
      'entry',
    );
    if (entry.text === text.trim()) return null;
    const late = context.now - entry.writtenAt > STILL_WRITING || entry.editedAt !== undefined;
    const edited = { ...entry, text: text.trim(), ...(late && { editedAt: context.now }) };
    const entries = text.trim() ? memo.entries.map((one) => (one === entry ? edited : one)) : memo.entries.filter((one) => one !== entry);
    return { change: [updated('memo', memo, { entries })], sentence: `changed an entry of the memo ${short(memo.title)}` };
  };
}

/** Deletes memos with all their entries. */
export function deleteMemos(memoIds: readonly Id[]): Command {
  return (state) => {
    const memos = memoIds.map((id) => found(state.tables.memo[id], 'memo'));
    if (memos.length === 0) return null;
    const what = memos.length === 1 ? `the memo ${short(memos[0]!.title)}` : counted(memos.length, 'memo');
    return { change: memos.map((memo) => removed('memo', memo)), sentence: `deleted ${what}` };
  };
}

/** Deletes a memo with all its entries. */
export const deleteMemo = (memoId: Id): Command => deleteMemos([memoId]);

/** Makes a memo of the comment on a passage; the comment goes. */
export function memoFromComment(documentId: Id, passageId: Id): Command {
  return (state, context) => {
    const passage = passageById(state, documentId, passageId);
    if (!passage.comment) throw new CommandError('There is no comment on this passage.');
    const { open, ...rest } = passage;
    const memo: Memo = {
      id: context.newId(),
      title: tidyLine(passage.comment).split(' ').slice(0, 8).join(' ').slice(0, 200),
      kind: 'analytic',
      about: { type: 'passage', id: passageId, documentId },
      entries: [{ id: context.newId(), writtenAt: context.now, coderId: context.coderId, text: passage.comment }],
      createdAt: context.now,
      ...(open && { question: 'open' as const }),
    };
    return {
      change: [added('memo', memo), { type: 'passage', before: passage, after: { ...rest, comment: '' } }],
      sentence: `made a memo of a comment in ${short(state.tables.document[documentId]?.title ?? 'a document')}`,
    };
  };
}

/** Marks a comment as a question to come back to, or as answered. */
export function askComment(documentId: Id, passageId: Id, open: boolean): Command {
  return (state) => {
    const passage = passageById(state, documentId, passageId);
    if (open && !passage.comment) throw new CommandError('There is no comment on this passage.');
    if (Boolean(passage.open) === open) return null;
    const { open: _, ...rest } = passage;
    return {
      change: [{ type: 'passage', before: passage, after: open ? { ...rest, open: true } : rest }],
      sentence: open ? 'marked a comment as a question to come back to' : 'answered the question of a comment',
    };
  };
}

/** Gives kinds of memos their colours, as entries of the palette. */
export function colourKinds(kinds: readonly { readonly name: string; readonly colour: number }[]): Command {
  return (state) => ({
    change: [{ type: 'study', before: state.study, after: { ...state.study, memoKinds: kinds.map((kind) => ({ ...kind })) } }],
    sentence: 'coloured the kinds of memos',
  });
}

/** Gives a kind of memos another name, in every memo. */
export function renameKind(from: string, rawTo: string): Command {
  return (state) => {
    const to = titleOf(rawTo);
    const memos = Object.values(state.tables.memo).filter((memo) => memo.kind === from);
    if (to === from || memos.length === 0) return null;
    const kinds = state.study.memoKinds?.map((kind) => (kind.name === from ? { ...kind, name: to } : kind));
    return {
      change: [
        ...memos.map((memo) => updated('memo', memo, { kind: to })),
        ...(kinds ? [{ type: 'study' as const, before: state.study, after: { ...state.study, memoKinds: kinds } }] : []),
      ],
      sentence: `renamed the kind of memo ${short(from)} to ${short(to)}`,
    };
  };
}

function titleOf(raw: string): string {
  const title = tidyLine(raw);
  if (!title) throw new CommandError('A memo needs a title and a kind.');
  return title;
}

const tagsOf = (raw: readonly string[]): string[] => tidyWords(raw).slice(0, 50);
