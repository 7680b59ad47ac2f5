import type { Id } from '../../model/ids';
import type { Memo, MemoSubject } from '../../model/memo';
import type { StudyState } from '../../model/study-state';
import { removed, updated, type Change } from '../change';

/**
 * What else speaks of codes that go: memos, saved questions, sets, relations, sorting tables, proposals. With an
 * heir it is spoken of in their place; without one nothing is, and memos about them stay, about nothing.
 */
export function forgetCodes(state: StudyState, gone: ReadonlySet<Id>, heir: Id | null): Change {
  const { tables } = state;
  const change: Change[number][] = [];
  const instead = (ids: readonly Id[]): Id[] => [...new Set(ids.flatMap((id) => (gone.has(id) ? (heir === null ? [] : [heir]) : [id])))];
  const speaks = (ids: readonly Id[]): boolean => ids.some((id) => gone.has(id));

  for (const memo of Object.values(tables.memo)) {
    const next = memoWithout(memo, gone, heir);
    if (next) change.push(updated('memo', memo, next));
  }
  for (const query of Object.values(tables.query)) {
    const { all, any, none } = query.question;
    if (!speaks([...all, ...any, ...none])) continue;
    change.push(updated('query', query, { question: { ...query.question, all: instead(all), any: instead(any), none: instead(none) } }));
  }
  for (const set of Object.values(tables.codeSet)) {
    const named = (set.conditions ?? []).some((one) => one.about === 'under' && gone.has(one.id));
    if (!speaks(set.codeIds) && !named) continue;
    const conditions = set.conditions?.flatMap((one) =>
      one.about === 'under' && gone.has(one.id) ? (heir ? [{ ...one, id: heir }] : []) : [one],
    );
    // a live set whose only condition is gone would take in everything
    if (conditions?.length === 0) change.push(removed('codeSet', set));
    else change.push(updated('codeSet', set, { codeIds: instead(set.codeIds), conditions: conditions ?? null }));
  }
  for (const relation of Object.values(tables.relation)) {
    if (!speaks([relation.fromId, relation.toId])) continue;
    const [fromId, toId] = [relation.fromId, relation.toId].map((id) => (gone.has(id) ? heir : id));
    if (!fromId || !toId || fromId === toId) change.push(removed('relation', relation));
    else change.push(updated('relation', relation, { fromId, toId }));
  }
  for (const sorting of Object.values(tables.sorting)) {
    if (!speaks(sorting.codeIds)) continue;
    const codeIds = instead(sorting.codeIds);
    const slips = sorting.slips.filter((slip) => !gone.has(slip.codeId));
    change.push(updated('sorting', sorting, { codeIds, slips }));
  }
  for (const proposal of Object.values(tables.proposal))
    if (proposal.parentId && gone.has(proposal.parentId)) change.push(updated('proposal', proposal, { parentId: heir }));
  return change;
}

function memoWithout(memo: Memo, gone: ReadonlySet<Id>, heir: Id | null): Partial<Memo> | null {
  const names = (subject: MemoSubject): boolean => subject.type === 'code' && gone.has(subject.id);
  const also = memo.also?.some(names)
    ? memo.also.flatMap((subject) => (names(subject) ? (heir ? [{ type: 'code' as const, id: heir }] : []) : [subject]))
    : memo.also;
  const about = memo.about && names(memo.about) ? (heir ? { type: 'code' as const, id: heir } : null) : memo.about;
  return about === memo.about && also === memo.also ? null : { about, ...(also && { also }) };
}
