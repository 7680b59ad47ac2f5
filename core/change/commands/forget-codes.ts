import type { Id } from '../../model/ids';
import type { StudyState } from '../../model/study-state';
import { removed, updated, type Change } from '../change';
import { relinkMemos } from './relink-memos';

/**
 * What else speaks of codes that go: memos, saved questions, sets, relations, sorting tables, proposals. With an
 * heir it is spoken of in their place; without one nothing is, and memos about them stay, about nothing.
 */
export function forgetCodes(state: StudyState, gone: ReadonlySet<Id>, heir: Id | null): Change {
  const { tables } = state;
  const change: Change[number][] = [];
  const instead = (ids: readonly Id[]): Id[] => [...new Set(ids.flatMap((id) => (gone.has(id) ? (heir === null ? [] : [heir]) : [id])))];
  const speaks = (ids: readonly Id[]): boolean => ids.some((id) => gone.has(id));

  change.push(
    ...relinkMemos(state, (subject) =>
      subject.type !== 'code' || !gone.has(subject.id) ? subject : heir ? { type: 'code', id: heir } : null,
    ),
  );
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
