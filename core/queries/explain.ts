import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { Question } from '../model/query';
import type { Table } from '../model/study-state';
import type { PassageColumns } from '../model/passage-columns';
import { evaluate, type Scope } from './evaluate';

/** One step away from a question that found nothing, and how many passages it would find. */
export interface WayOut {
  readonly step:
    | { readonly do: 'drop'; readonly from: 'all' | 'none'; readonly codeId: Id }
    | { readonly do: 'drop any' }
    | { readonly do: 'reach overlap' }
    | { readonly do: 'with codes under' }
    | { readonly do: 'all documents' }
    | { readonly do: 'whole study' };
  readonly question: Question;
  readonly found: number;
}

/**
 * Why a question found nothing: every single step that would bring something back, the one that
 * brings most first. The question without a condition is asked for each condition in turn.
 * @param everything the scope with nothing left out, for the last step
 */
export function waysOut(
  question: Question,
  documents: readonly PassageColumns[],
  codes: Table<Code>,
  scope: Scope,
  everything: Scope,
): WayOut[] {
  const steps: WayOut[] = [];
  const tryStep = (step: WayOut['step'], changed: Question, within: Scope = scope): void => {
    // a question that asks for no code any more is not answered better, it is given up
    if (changed.all.length + changed.any.length + changed.none.length === 0) return;
    const found = evaluate(changed, documents, codes, within).length;
    if (found > 0) steps.push({ step, question: changed, found });
  };
  for (const from of ['all', 'none'] as const) {
    for (const codeId of question[from])
      tryStep({ do: 'drop', from, codeId }, { ...question, [from]: question[from].filter((id) => id !== codeId) });
  }
  if (question.any.length > 0) tryStep({ do: 'drop any' }, { ...question, any: [] });
  if (question.reach === 'passage') tryStep({ do: 'reach overlap' }, { ...question, reach: 'overlap' });
  if (!question.withCodesUnder) tryStep({ do: 'with codes under' }, { ...question, withCodesUnder: true });
  if (question.documentIds) tryStep({ do: 'all documents' }, { ...question, documentIds: null });
  tryStep({ do: 'whole study' }, question, everything);
  return steps.sort((a, b) => b.found - a.found);
}
