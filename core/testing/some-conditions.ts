import fc from 'fast-check';
import type { Id } from '../model/ids';
import { NEARNESS_UNITS, STANDINGS, type PassageCondition } from '../model/passage-condition';
import { WORD_MATCHES } from '../model/word-search';

/** What random conditions ask for. */
export interface AskedFor {
  readonly codes: readonly Id[];
  readonly codeSets: readonly Id[];
  readonly coders: readonly Id[];
  readonly cases: readonly Id[];
  readonly documents: readonly Id[];
  readonly sets: readonly Id[];
  readonly attributes: readonly Id[];
  readonly questions: readonly Id[];
  readonly queries: readonly Id[];
}

/** Conditions on passages, of every kind, up to so many parts within each other. */
export function someCondition(asked: AskedFor, depth = 3): fc.Arbitrary<PassageCondition> {
  const some = (ids: readonly Id[], maxLength = 3): fc.Arbitrary<Id[]> =>
    fc.subarray([...ids], { maxLength: Math.min(maxLength, ids.length) });
  const carries = fc.record({
    carries: fc.constantFrom('any' as const, 'all' as const, 'none' as const, 'at least' as const),
    number: fc.integer({ min: 0, max: 3 }),
    codes: fc.record({ codeIds: some(asked.codes), setIds: some(asked.codeSets, 1), withUnder: fc.boolean() }),
    reach: fc.constantFrom('passage' as const, 'overlap' as const),
    given: fc.option(
      fc.record(
        {
          coderIds: some(asked.coders).filter((ids) => ids.length > 0),
          ratedFrom: fc.integer({ min: 1, max: 3 }),
          swept: fc.boolean(),
          from: fc.constant('1970-01-05'),
        },
        { requiredKeys: [] },
      ),
      { nil: undefined },
    ),
  });
  const leaves: fc.Arbitrary<PassageCondition>[] = [
    carries.map(({ given, ...rest }): PassageCondition => ({ ...rest, ...(given && { given }) })),
    carries.map(({ given: _, ...rest }): PassageCondition => rest),
    fc.record({
      spokenBy: fc.constantFrom('interviewers' as const, 'others' as const, 'these' as const),
      caseIds: some(asked.cases),
      names: fc.constantFrom<string[]>([], ['Bob']),
    }),
    some(asked.questions).map((answers) => ({ answers })),
    fc.record({
      comment: fc.constantFrom('some' as const, 'none' as const, 'open question' as const, 'holds' as const),
      words: fc.constantFrom('WHY', 'x'),
    }),
    fc
      .record({
        typed: fc.constantFrom('late', '"it was"', 'rain or not waited', '(', '呀'),
        match: fc.constantFrom(...WORD_MATCHES),
        capitals: fc.boolean(),
        accents: fc.boolean(),
        unit: fc.constant('words' as const),
      })
      .map((hasWords) => ({ hasWords })),
    fc.boolean().map((memo) => ({ memo })),
    fc.record({
      attributeId: fc.constantFrom(...asked.attributes),
      comparison: fc.constantFrom('is' as const, 'is not' as const, 'is over' as const, 'is known' as const, 'is not known' as const),
      values: fc.constantFrom<(string | number)[]>([40], ['Saltpans']),
    }),
    fc
      .record({ documentIds: some(asked.documents), folderIds: fc.constant<Id[]>([]), setIds: some(asked.sets) })
      .map((liesIn) => ({ liesIn })),
    fc.subarray(['interview' as const, 'recording' as const]).map((kinds) => ({ kinds })),
    fc.subarray(['text' as const, 'time' as const, 'picture' as const]).map((grounds) => ({ grounds })),
    fc.constantFrom(...asked.queries).map((queryId) => ({ queryId })),
  ];
  if (depth <= 1) return fc.oneof(...leaves);
  const inner = fc.oneof({ arbitrary: fc.oneof(...leaves), weight: 2 }, { arbitrary: someConditionDeeper(asked, depth - 1), weight: 1 });
  const several = fc.array(inner, { maxLength: 3 });
  return fc.oneof(
    fc.oneof(...leaves),
    several.map((all) => ({ all })),
    several.map((any) => ({ any })),
    several.map((none) => ({ none })),
    fc
      .record({
        standing: fc.constantFrom(...STANDINGS),
        to: inner,
        within: fc.option(fc.record({ count: fc.nat(3), unit: fc.constantFrom(...NEARNESS_UNITS) }), { nil: undefined }),
      })
      .map(({ within, ...rest }): PassageCondition => ({ ...rest, ...(within && { within }) })),
  );
}

const someConditionDeeper = (asked: AskedFor, depth: number): fc.Arbitrary<PassageCondition> => someCondition(asked, depth);
