import type { ListedMemo } from '../../memos/exchange/memo-tables';
import type { Memo } from '../../model/memo';
import { tidyLine } from '../../text/normalise';
import { added, updated, type RecordChange } from '../change';
import { counted, type Command } from '../command';

/** Whether a memo of this title already says this. */
export const isThere = (memos: Iterable<Memo>, listed: ListedMemo): boolean =>
  [...memos].some((memo) => memo.title === tidyLine(listed.title) && memo.entries.some((entry) => entry.text === listed.text.trim()));

/**
 * Takes memos in as one step. Rows of one title and kind become entries of one memo, each with its date; a title that
 * is there already takes them on as further entries, and what it already says is passed over.
 */
export function importMemos(listed: readonly ListedMemo[], source: string): Command {
  return (state, context) => {
    const key = (title: string, kind: string): string => `${kind}\u0000${title}`;
    const memos = new Map(Object.values(state.tables.memo).map((memo) => [key(memo.title, memo.kind), memo]));
    const changed = new Map<string, { before: Memo | null; after: Memo }>();
    for (const one of listed) {
      const title = tidyLine(one.title) || 'A memo';
      const kind = tidyLine(one.kind) || 'analytic';
      const at = key(title, kind);
      const known = changed.get(at)?.after ?? memos.get(at) ?? null;
      const text = one.text.trim();
      if (known?.entries.some((entry) => entry.text === text)) continue;
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
            ...(one.tags.length > 0 && { tags: [...new Set(one.tags.map(tidyLine).filter(Boolean))] }),
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
