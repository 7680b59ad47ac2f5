import { updated, type Change } from '../change/change';
import { rewritten, type PassageCondition } from '../model/passage-condition';
import type { ScopePart } from '../model/scope';
import type { StudyState } from '../model/study-state';

/**
 * Kept queries, scopes and propositions after what they ask for has become something else.
 * @param change the part as it is now, itself where it stays; of a part a scope can have it makes such a part
 */
export function askingRewritten({ tables }: StudyState, change: (part: PassageCondition) => PassageCondition): Change {
  const now = (part: PassageCondition): PassageCondition => rewritten(part, change)!;
  return [
    ...Object.values(tables.query).flatMap((query) => {
      const question = { ...query.question, all: query.question.all.map(now) };
      return isSame(question, query.question) ? [] : [updated('query', query, { question })];
    }),
    ...Object.values(tables.scope).flatMap((kept) => {
      const scope = { ...kept.scope, parts: kept.scope.parts.map((part) => change(part) as ScopePart) };
      return isSame(scope, kept.scope) ? [] : [updated('scope', kept, { scope })];
    }),
    ...Object.values(tables.proposition).flatMap((proposition) => {
      const [where, then] = ([proposition.where, proposition.then] as const).map((claims) =>
        claims.map((claim) => ({ ...claim, that: now(claim.that) })),
      ) as [typeof proposition.where, typeof proposition.then];
      return isSame([where, then], [proposition.where, proposition.then]) ? [] : [updated('proposition', proposition, { where, then })];
    }),
  ];
}

const isSame = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);
