import type { ListedMemo } from '../memos/exchange/listed-memo';
import type { Id } from '../model/ids';
import type { Memo, MemoEntry, MemoSubject } from '../model/memo';
import type { StudyState } from '../model/study-state';
import { passageOf } from '../passages/columns';
import { tidyLine, tidyWords } from '../text/normalise';
import { added, updated, type RecordChange } from '../change/change';
import { counted, type Command, type CommandContext } from '../change/command';

/** Rows are entries of one memo where title and kind are the same. */
const keyOf = (title: string, kind: string): string => `${kind}\u0000${title}`;
const titleOf = (listed: ListedMemo): string => tidyLine(listed.title) || 'A memo';
const kindOf = (listed: ListedMemo): string => tidyLine(listed.kind) || 'analytic';
const says = (memo: Memo, text: string): boolean => (text === '' ? true : memo.entries.some((entry) => entry.text === text));

function groupedBy<T>(things: Iterable<T>, keyOfThing: (thing: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const thing of things) {
    const key = keyOfThing(thing);
    const group = groups.get(key);
    if (group) group.push(thing);
    else groups.set(key, [thing]);
  }
  return groups;
}

function byKey(memos: Iterable<Memo>): Map<string, Memo[]> {
  return groupedBy(memos, (memo) => keyOf(memo.title, memo.kind));
}

/** How many listed entries some memo of their title and kind already says: taking them in passes these over. */
export function countKnown(memos: Iterable<Memo>, listed: readonly ListedMemo[]): number {
  const known = byKey(memos);
  return listed.filter((one) => known.get(keyOf(titleOf(one), kindOf(one)))?.some((memo) => says(memo, one.text.trim()))).length;
}

/**
 * Takes memos in as one step. Entries that their file says are of one memo stay together, and memos that it tells apart
 * stay apart, whatever their titles; where it does not say, rows of one title and kind are entries of one memo. A memo
 * that is there already takes further entries on, and what it already says is passed over.
 */
export function importMemos(listed: readonly ListedMemo[], source: string): Command {
  return (state, context) => {
    const known = byKey(Object.values(state.tables.memo));
    const coders = new Map(Object.values(state.tables.coder).map((coder) => [coder.name, coder.id]));
    const changed = new Map<string, { before: Memo | null; after: Memo }>();
    const groups = groupedBy(listed, (one) =>
      one.memo === null ? keyOf(titleOf(one), kindOf(one)) : `number ${one.memo}\u0000${titleOf(one)}`,
    );
    const taken = new Set<Id>();
    for (const [at, rows] of groups) {
      const [first] = rows as [ListedMemo, ...ListedMemo[]];
      const same = (known.get(keyOf(titleOf(first), kindOf(first))) ?? []).filter((memo) => !taken.has(memo.id));
      // of several that are called the same, the one that says most of it already
      const before = same.sort((a, b) => told(b, rows) - told(a, rows))[0] ?? null;
      if (before) taken.add(before.id);
      const entries = rows.flatMap((one): MemoEntry[] => {
        const text = one.text.trim();
        if (text === '' || (before && says(before, text))) return [];
        const { editedAt } = one;
        const coderId = coders.get(one.by) ?? context.coderId;
        return [{ id: context.newId(), writtenAt: one.writtenAt ?? context.now, coderId, text, ...(editedAt !== null && { editedAt }) }];
      });
      if (before && entries.length === 0) continue;
      const after: Memo = before
        ? { ...before, entries: [...before.entries, ...entries].sort((a, b) => a.writtenAt - b.writtenAt) }
        : newMemo(first, entries, context, linksThere(state, first.links));
      changed.set(at, { before, after });
    }
    if (changed.size === 0) return null;
    const change = [...changed.values()].map(({ before, after }): RecordChange =>
      before ? updated('memo', before, after) : added('memo', after),
    );
    return { change, sentence: `brought in ${counted(change.length, 'memo')} from ${source}`.slice(0, 500) };
  };
}

const told = (memo: Memo, rows: readonly ListedMemo[]): number => rows.filter((one) => says(memo, one.text.trim())).length;

function newMemo(first: ListedMemo, entries: MemoEntry[], context: CommandContext, links: readonly MemoSubject[]): Memo {
  const [about = null, ...also] = links;
  return {
    id: context.newId(),
    title: titleOf(first),
    kind: kindOf(first),
    about,
    ...(also.length > 0 && { also }),
    entries,
    createdAt: first.writtenAt ?? context.now,
    ...(first.tags.length > 0 && { tags: tidyWords(first.tags) }),
    ...(first.question && { question: first.question }),
    ...(first.pinned && { pinned: true as const }),
    ...(first.archived && { archived: true as const }),
  };
}

/** Links to what this study knows; a file from elsewhere may speak of other things. */
const linksThere = (state: StudyState, links: readonly MemoSubject[]): MemoSubject[] =>
  links.filter((link) =>
    link.type === 'passage'
      ? passageOf(state.passages[link.documentId], link.id) !== undefined
      : Object.hasOwn(state.tables[link.type], link.id),
  );
