import type { Absence } from '../model/absence';
import type { Question } from '../model/query';
import type { Scope } from '../model/scope';

/** What is asked, where. */
interface AskedIn {
  readonly question: Question;
  readonly scope: Scope;
}

/** A sign of what is asked, the same for whatever asks the same, in whatever order its fields were written. */
const signOf = ({ question, scope }: AskedIn): string =>
  JSON.stringify([question.all, scope.parts, scope.given ?? null], (_, value: unknown) =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );

/** Whether two ask the same of the same material. */
export const sameAsked = (one: AskedIn, other: AskedIn): boolean => signOf(one) === signOf(other);

/** Looks up what was marked as expected and not found in a scope. */
export function absencesIn(absences: readonly Absence[], scope: Scope): (question: Question | null) => Absence | null {
  const bySign = new Map(absences.map((one) => [signOf(one), one]));
  return (question) => (question && bySign.size > 0 ? (bySign.get(signOf({ question, scope })) ?? null) : null);
}
