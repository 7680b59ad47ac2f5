import type { Absence } from '../model/absence';
import type { Question } from '../model/query';
import type { Scope } from '../model/scope';
import { signOf } from '../text/sign-of';

/** What is asked, where. */
interface AskedIn {
  readonly question: Question;
  readonly scope: Scope;
}

/** A sign of what is asked, the same for whatever asks the same. */
const askedSign = ({ question, scope }: AskedIn): string => signOf([question.all, scope.parts, scope.given ?? null]);

/** Whether two ask the same of the same material. */
export const sameAsked = (one: AskedIn, other: AskedIn): boolean => askedSign(one) === askedSign(other);

/** Looks up what was marked as expected and not found in a scope. */
export function absencesIn(absences: readonly Absence[], scope: Scope): (question: Question | null) => Absence | null {
  const bySign = new Map(absences.map((one) => [askedSign(one), one]));
  return (question) => (question && bySign.size > 0 ? (bySign.get(askedSign({ question, scope })) ?? null) : null);
}
