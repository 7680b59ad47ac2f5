import type { ListedMemo } from '../../memos/exchange/memo-tables';
import type { Memo } from '../../model/memo';
import { tidyLine, tidyWords } from '../../text/normalise';
import { added, updated, type RecordChange } from '../change';
import { counted, type Command } from '../command';

/** Rows are entries of one memo where title and kind are the same. */
const keyOf = (title: string, kind: string): string => `${kind}\u0000${title}`;
const titleOf = (listed: ListedMemo): string => tidyLine(listed.title) || 'A memo';
const kindOf = (listed: ListedMemo): string => tidyLine(listed.kind) || 'analytic';
const byKey = (memos: Iterable<Memo>): Map<string, Memo> => new Map([...memos].map((memo) => [keyOf(memo.title, memo.kind), memo]));
const says = (memo: Memo | undefined, text: string): boolean => memo?.entries.some((entry) => entry.text === text) ?? false;

/** How many listed entries some memo of their title and kind already says: taking them in passes these over. */
export function countKnown(memos: Iterable<Memo>, listed: readonly ListedMemo[]): number {
  const known = byKey(memos);
  return listed.filter((one) => says(known.get(keyOf(titleOf(one), kindOf(one))), one.text.trim())).length;
}

/**
 * Takes memos in as one step. Rows of one title and kind become entries of one memo, each with its date; a title that
 * is there already takes them on as further entries, and what it already says is passed over.
 */
export function importMemos(listed: readonly ListedMemo[], source: string): Command {
  return (state, context) => {
    const memos = byKey(Object.values(state.tables.memo));
    const changed = new Map<string, { before: Memo | null; after: Memo }>();
    for (const one of listed) {
      const [title, kind] = [titleOf(one), kindOf(one)];
      const at = keyOf(title, kind);
      const known = changed.get(at)?.after ?? memos.get(at);
      const text = one.text.trim();
      if (says(known, text)) continue;
      const writtenAt = one.writtenAt ?? context.now;
      const entry = { id: context.newId(), writtenAt, coderId: context.coderId, text };
      const entries = text ? [entry] : [];
      const after: Memo = known
        ? { ...known, entries: [...known.entries, ...entries].sort((a, b) => a.writtenAt - b.writtenAt) }
        : {
            id: context.newId(),
            title,
            kind,
            about: null,
            entries,
            createdAt: writtenAt,
            ...(one.tags.length > 0 && { tags: tidyWords(one.tags) }),
          };
      changed.set(at, { before: changed.get(at)?.before ?? memos.get(at) ?? null, after });
    }
    if (changed.size === 0) return null;
    const change = [...changed.values()].map(({ before, after }): RecordChange =>
      before ? updated('memo', before, after) : added('memo', after),
    );
    return { change, sentence: `brought in ${counted(change.length, 'memo')} from ${source}`.slice(0, 500) };
  };
}
