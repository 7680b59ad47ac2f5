import type { Answered } from '../model/answered';
import type { Id } from '../model/ids';
import { partsWithin, type PassageCondition } from '../model/passage-condition';
import type { ConditionPart } from '../model/set';
import type { StudyState } from '../model/study-state';

/** What sets are read from. Where live sets ask for queries, `answered` has to be there. */
export interface SetsIn {
  readonly tables: Pick<StudyState['tables'], 'attribute' | 'case' | 'document' | 'folder' | 'query' | 'set'>;
  readonly answered?: Answered;
}

type Asked = Pick<StudyState['tables'], 'query' | 'set'>;

/** The queries that a condition of a live set asks for. */
export const queriesIn = (condition: readonly ConditionPart[] | null): Id[] =>
  (condition ?? []).flatMap(({ what }) => (typeof what === 'object' && 'queryId' in what ? [what.queryId] : []));

/** Whether any live set asks for a query: without one nothing has to be known beside the tables. */
export const setsAskQueries = ({ set }: Pick<Asked, 'set'>): boolean =>
  Object.values(set).some(({ condition }) => queriesIn(condition).length > 0);

/** The queries that live sets ask for, each after those that its own answer depends on through other sets. */
export function queriesOfSets(tables: Asked): Id[] {
  const found = new Set<Id>();
  const visited = new Set<Id>();
  const visitQuery = (queryId: Id, bySet: boolean): void => {
    const query = tables.query[queryId];
    if (!query) return;
    if (!visited.has(queryId)) {
      visited.add(queryId);
      for (const setId of setsAskedIn(tables, query.question.all)) visitSet(setId);
      for (const id of queriesAskedIn(query.question.all)) visitQuery(id, false);
    }
    if (bySet) found.add(queryId);
  };
  const visitSet = (setId: Id): void => {
    for (const id of queriesIn(tables.set[setId]?.condition ?? null)) visitQuery(id, true);
  };
  for (const id of Object.keys(tables.set)) visitSet(id);
  return [...found];
}

/** Whether conditions, through sets, queries, and live sets that ask for queries, come to ask for a query's own answer. */
export function asksForQuery(
  tables: Asked,
  conditions: readonly PassageCondition[],
  queryId: Id,
  through: ReadonlySet<Id> = new Set(),
): boolean {
  const byQuery = (id: Id): boolean => {
    if (id === queryId) return true;
    const kept = through.has(id) ? undefined : tables.query[id];
    return kept !== undefined && asksForQuery(tables, kept.question.all, queryId, new Set([...through, id]));
  };
  return (
    queriesAskedIn(conditions).some(byQuery) ||
    setsAskedIn(tables, conditions).some((setId) => queriesIn(tables.set[setId]?.condition ?? null).some(byQuery))
  );
}

const queriesAskedIn = (conditions: readonly PassageCondition[]): Id[] =>
  conditions.flatMap((one) => ('queryId' in one ? [one.queryId] : queriesAskedIn(partsWithin(one))));

/** The sets of documents and cases that conditions ask for; to be in any set asks for all. */
const setsAskedIn = (tables: Asked, conditions: readonly PassageCondition[]): Id[] =>
  conditions.flatMap((one) => {
    if ('liesIn' in one) return one.liesIn.setIds;
    if ('placed' in one) return one.placed === 'in a set' ? Object.keys(tables.set) : [];
    return setsAskedIn(tables, partsWithin(one));
  });
