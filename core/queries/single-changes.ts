import type { Id } from '../model/ids';
import { nestFrom, nestOf, type PassageCondition } from '../model/passage-condition';
import type { Question } from '../model/query';

/** One step away from a question. `at` is the part it changes, as it stands in the question. */
export type SingleChange =
  | { readonly do: 'without'; readonly at: PassageCondition }
  | { readonly do: 'without code'; readonly at: PassageCondition; readonly codeId: Id }
  | { readonly do: 'any of' | 'with under' | 'overlapping' | 'at any distance'; readonly at: PassageCondition }
  | { readonly do: 'at least' | 'further'; readonly at: PassageCondition; readonly number: number };

interface Variant {
  readonly change: SingleChange;
  /** Null where the part is gone. */
  readonly condition: PassageCondition | null;
}

/** Every single change of a question that could find more; one that asks for nothing any more is given up, not answered better. */
export function singleChanges(question: Question): { readonly change: SingleChange; readonly question: Question }[] {
  return listVariants(question.all).flatMap(({ change, conditions }) =>
    conditions.length > 0 ? [{ change, question: { ...question, all: [...conditions] } }] : [],
  );
}

function listVariants(
  some: readonly PassageCondition[],
): { readonly change: SingleChange; readonly conditions: readonly PassageCondition[] }[] {
  return some.flatMap((one, at) =>
    variantsOf(one).map(({ change, condition }) => ({
      change,
      conditions: [...some.slice(0, at), ...(condition ? [condition] : []), ...some.slice(at + 1)],
    })),
  );
}

function variantsOf(condition: PassageCondition): Variant[] {
  const gone: Variant = { change: { do: 'without', at: condition }, condition: null };
  const nest = nestOf(condition);
  if (nest) {
    const within = listVariants(nest.parts).map(({ change, conditions }) => ({
      change,
      condition: conditions.length > 0 ? nestFrom(nest.how, conditions) : null,
    }));
    return nest.parts.length > 1 ? [gone, ...within] : within;
  }
  if ('standing' in condition) {
    const { within } = condition;
    const further: Variant[] = within
      ? [
          {
            change: { do: 'further', at: condition, number: Math.max(1, within.count * 2) },
            condition: { ...condition, within: { ...within, count: Math.max(1, within.count * 2) } },
          },
          ...(condition.standing === 'near'
            ? []
            : [{ change: { do: 'at any distance', at: condition } as const, condition: withoutLimit(condition) }]),
        ]
      : [];
    const loosened = variantsOf(condition.to).flatMap(({ change, condition: to }) =>
      to ? [{ change, condition: { ...condition, to } }] : [],
    );
    return [gone, ...further, ...loosened];
  }
  return 'carries' in condition ? [gone, ...looserCarrying(condition)] : [gone];
}

const withoutLimit = ({ within: _, ...rest }: Extract<PassageCondition, { standing: unknown }>): PassageCondition => rest;

function looserCarrying(condition: Extract<PassageCondition, { carries: unknown }>): Variant[] {
  const { carries, codes, number = 1, reach } = condition;
  const { codeIds, setIds, withUnder } = codes;
  const named = codeIds.length + setIds.length;
  const variants: Variant[] = [];
  if (named > 1 && (carries === 'all' || carries === 'none'))
    for (const codeId of codeIds)
      variants.push({
        change: { do: 'without code', at: condition, codeId },
        condition: { ...condition, codes: { ...codes, codeIds: codeIds.filter((id) => id !== codeId) } },
      });
  if (carries === 'all' && named > 1)
    variants.push({ change: { do: 'any of', at: condition }, condition: { ...condition, carries: 'any' } });
  if (carries === 'at least' && number > 1)
    variants.push({ change: { do: 'at least', at: condition, number: number - 1 }, condition: { ...condition, number: number - 1 } });
  if (!withUnder && named > 0)
    variants.push({ change: { do: 'with under', at: condition }, condition: { ...condition, codes: { ...codes, withUnder: true } } });
  if (reach === 'passage') variants.push({ change: { do: 'overlapping', at: condition }, condition: { ...condition, reach: 'overlap' } });
  return variants;
}
