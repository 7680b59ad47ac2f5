import type { Question } from '../model/query';
import { EVERYTHING, type Scope } from '../model/scope';
import type { SingleChange } from './single-changes';
import { singleChanges } from './single-changes';

/** One step away from a question that found nothing, and how many passages it would find. */
export interface WayOut {
  /** Null for the whole study in place of the scope. */
  readonly change: SingleChange | null;
  readonly question: Question;
  readonly found: number;
}

/** Changes that are tried: a question of hundreds of codes is not asked hundreds of times. */
const MOST_TRIED = 60;

/**
 * Why a question found nothing: every single step that would bring something back, the one that brings most first.
 * @param count asks a question in a scope and says how many passages answer it
 */
export async function waysOut(
  question: Question,
  count: (question: Question, scope: Scope) => Promise<number>,
  scope: Scope,
): Promise<WayOut[]> {
  const ways: WayOut[] = [];
  for (const { change, question: changed } of singleChanges(question).slice(0, MOST_TRIED)) {
    const found = await count(changed, scope);
    if (found > 0) ways.push({ change, question: changed, found });
  }
  const whole = await count(question, EVERYTHING);
  if (whole > 0) ways.push({ change: null, question, found: whole });
  return ways.sort((a, b) => b.found - a.found);
}
