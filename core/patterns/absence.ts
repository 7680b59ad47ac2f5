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

/** As {@link absencesIn}, by cells. @param questionOf what a cell asks: not looked at where nothing is marked, as a table has thousands */
export function absentCells<Cell>(
  absences: readonly Absence[],
  scope: Scope,
  questionOf: (cell: Cell) => Question | null,
): (cell: Cell) => Absence | null {
  if (absences.length === 0) return () => null;
  const find = absencesIn(absences, scope);
  return (cell) => find(questionOf(cell));
}
