import { updated, type Change } from '../change/change';
import { rewritten, type PassageCondition } from '../model/passage-condition';
import type { AskedPattern } from '../model/pattern';
import type { Scope, ScopePart } from '../model/scope';
import type { StudyState } from '../model/study-state';

/**
 * Whatever is kept that asks for something, after that has become something else: queries, scopes, propositions, absences
 * and the scopes of patterns.
 * @param change the part as it is now, itself where it stays; of a part a scope can have it makes such a part
 * @param patternNow what a pattern asks now, itself where it stays
 */
export function askingRewritten(
  { tables }: StudyState,
  change: (part: PassageCondition) => PassageCondition,
  patternNow: (asked: AskedPattern) => AskedPattern = (asked) => asked,
): Change {
  const now = (part: PassageCondition): PassageCondition => rewritten(part, change)!;
  const scopeNow = (scope: Scope): Scope => ({ ...scope, parts: scope.parts.map((part) => change(part) as ScopePart) });
  return [
    ...Object.values(tables.query).flatMap((query) => {
      const question = { ...query.question, all: query.question.all.map(now) };
      return isSame(question, query.question) ? [] : [updated('query', query, { question })];
    }),
    ...Object.values(tables.scope).flatMap((kept) => {
      const scope = scopeNow(kept.scope);
      return isSame(scope, kept.scope) ? [] : [updated('scope', kept, { scope })];
    }),
    ...Object.values(tables.pattern).flatMap((kept) => {
      const [asked, scope] = [patternNow(kept.asked), scopeNow(kept.scope)];
      return isSame([asked, scope], [kept.asked, kept.scope]) ? [] : [updated('pattern', kept, { asked, scope })];
    }),
    ...Object.values(tables.absence).flatMap((absence) => {
      const [question, scope] = [{ ...absence.question, all: absence.question.all.map(now) }, scopeNow(absence.scope)];
      return isSame([question, scope], [absence.question, absence.scope]) ? [] : [updated('absence', absence, { question, scope })];
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
