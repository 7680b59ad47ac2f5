import { fold } from '../text/fold';
import type { Id } from '../model/ids';
import type { Memo, MemoSubject } from '../model/memo';
import { subjectsOf } from './references';

/** Which memos are wanted. Every part that is given must hold. */
export interface MemoFilter {
  readonly words?: string;
  readonly kind?: string;
  readonly tag?: string;
  /** What kind of thing it is about; `nothing` for those about nothing. */
  readonly about?: MemoSubject['type'] | 'nothing';
  readonly coderId?: Id;
  /** Written in between, ms since 1970, the end not included. */
  readonly from?: number;
  readonly to?: number;
  readonly archived?: boolean;
  readonly openQuestions?: boolean;
}

/** A memo's words folded for searching: once for each memo, since a change makes another. */
const folded = new WeakMap<Memo, string>();

function foldedOf(memo: Memo): string {
  let text = folded.get(memo);
  if (text === undefined)
    folded.set(memo, (text = fold(`${memo.title}\n${(memo.tags ?? []).join(' ')}\n${memo.entries.map((entry) => entry.text).join('\n')}`)));
  return text;
}

/** When a memo was last written on, ms since 1970. */
export const lastWritten = (memo: Memo): number => memo.entries.at(-1)?.writtenAt ?? memo.createdAt;

/** Memos that fit a filter; every word must be found somewhere in title, tags or entries. */
export function findMemos(memos: Iterable<Memo>, filter: MemoFilter): Memo[] {
  const words = fold(filter.words ?? '')
    .split(/\s+/)
    .filter(Boolean);
  const { from = -Infinity, to = Infinity } = filter;
  const found: Memo[] = [];
  for (const memo of memos) {
    if (filter.archived !== undefined && Boolean(memo.archived) !== filter.archived) continue;
    if (filter.kind && memo.kind !== filter.kind) continue;
    if (filter.tag && !memo.tags?.includes(filter.tag)) continue;
    if (filter.openQuestions && memo.question !== 'open') continue;
    if (filter.coderId && !memo.entries.some((entry) => entry.coderId === filter.coderId)) continue;
    if (filter.about) {
      const subjects = subjectsOf(memo);
      if (filter.about === 'nothing' ? subjects.length > 0 : !subjects.some((subject) => subject.type === filter.about)) continue;
    }
    if ((from > -Infinity || to < Infinity) && !memo.entries.some((entry) => entry.writtenAt >= from && entry.writtenAt < to)) continue;
    if (words.length > 0) {
      const text = foldedOf(memo);
      if (!words.every((word) => text.includes(word))) continue;
    }
    found.push(memo);
  }
  return found;
}

export const MEMO_ORDERS = ['last written', 'made', 'title', 'kind'] as const;
export type MemoOrder = (typeof MEMO_ORDERS)[number];

/** Memos in an order, the pinned first. */
export function sortMemos(memos: readonly Memo[], order: MemoOrder): Memo[] {
  const compare: Record<MemoOrder, (a: Memo, b: Memo) => number> = {
    'last written': (a, b) => lastWritten(b) - lastWritten(a),
    made: (a, b) => b.createdAt - a.createdAt,
    title: (a, b) => COLLATOR.compare(a.title, b.title),
    kind: (a, b) => COLLATOR.compare(a.kind, b.kind) || lastWritten(b) - lastWritten(a),
  };
  return [...memos].sort((a, b) => Number(b.pinned ?? false) - Number(a.pinned ?? false) || compare[order](a, b));
}

const COLLATOR = new Intl.Collator(undefined, { numeric: true });

/** Words around the first hit in a memo's entries, for a list; or the beginning of what was written last. @param length in characters */
export function snippetOf(memo: Memo, words: string, length = 140): string {
  const wanted = fold(words).split(/\s+/).filter(Boolean);
  for (const entry of [...memo.entries].reverse()) {
    const plain = entry.text
      .replace(/\]\([^)]*\)/g, '')
      .replace(/[*_#>[]/g, '')
      .replace(/\s+/g, ' ')
      .trim();
    if (wanted.length === 0) return plain.slice(0, length);
    const at = Math.min(...wanted.map((word) => fold(plain).indexOf(word)).filter((one) => one >= 0));
    if (Number.isFinite(at)) return (at > 30 ? '…' : '') + plain.slice(Math.max(0, at - 30), at - 30 + length);
  }
  return memo.entries.at(-1)?.text.slice(0, length) ?? '';
}
