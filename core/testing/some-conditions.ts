import fc from 'fast-check';
import type { Id } from '../model/ids';
import { NEARNESS_UNITS, PLACED, STANDINGS, type PassageCondition } from '../model/passage-condition';
import type { Scope, ScopePart } from '../model/scope';

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

const someOf = (ids: readonly Id[], maxLength = 3): fc.Arbitrary<Id[]> =>
  fc.subarray([...ids], { maxLength: Math.min(maxLength, ids.length) });

/** Parts that a scope can have: they ask of a place, not of what a passage there carries. */
const somePlaceParts = (asked: AskedFor): fc.Arbitrary<ScopePart>[] => [
  fc.record({
    spokenBy: fc.constantFrom('interviewers' as const, 'others' as const, 'these' as const),
    caseIds: someOf(asked.cases),
    names: fc.constantFrom<string[]>([], ['Bob']),
  }),
  someOf(asked.questions).map((answers) => ({ answers })),
  someOf(asked.cases).map((ofCases) => ({ ofCases })),
  fc.record({
    attributeId: fc.constantFrom(...asked.attributes),
    comparison: fc.constantFrom('is' as const, 'is not' as const, 'is over' as const, 'is known' as const, 'is not known' as const),
    values: fc.constantFrom<(string | number)[]>([40], ['Saltpans']),
  }),
  fc
    .record({ documentIds: someOf(asked.documents), folderIds: fc.constant<Id[]>([]), setIds: someOf(asked.sets) })
    .map((liesIn) => ({ liesIn })),
  fc.subarray(['interview' as const, 'recording' as const]).map((kinds) => ({ kinds })),
  fc
    .record({ from: fc.constantFrom('2025-01-01', '2025-03-01'), to: fc.constantFrom('2025-02-01', '2025-12-31') }, { requiredKeys: [] })
    .map((dated) => ({ dated })),
  fc.constantFrom(...PLACED).map((placed) => ({ placed })),
];

/** Scopes of every kind: few parts, since most leave little. */
export const someScope = (asked: AskedFor): fc.Arbitrary<Scope> =>
  fc
    .record({
      parts: fc.array(fc.oneof(...somePlaceParts(asked)), { maxLength: 2 }),
      given: fc.option(
        fc.record(
          { coderIds: someOf(asked.coders).filter((ids) => ids.length > 0), from: fc.constant('1970-01-05') },
          { requiredKeys: [] },
        ),
        { nil: undefined },
      ),
    })
    .map(({ parts, given }) => ({ parts, ...(given && { given }) }));

/** Conditions on passages, of every kind, up to so many parts within each other. */
export function someCondition(asked: AskedFor, depth = 3): fc.Arbitrary<PassageCondition> {
  const some = someOf;
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
    ...somePlaceParts(asked),
    fc.record({
      comment: fc.constantFrom('some' as const, 'none' as const, 'open question' as const, 'holds' as const),
      words: fc.constantFrom('WHY', 'x'),
    }),
    fc
      .record({
        typed: fc.constantFrom('late', '"it was"', 'rain or not waited', '(', '呀'),
        match: fc.constantFrom('whole words' as const, 'parts of words' as const, 'all forms' as const),
        capitals: fc.boolean(),
        accents: fc.boolean(),
        unit: fc.constant('words' as const),
      })
      .map((hasWords) => ({ hasWords })),
    fc.boolean().map((memo) => ({ memo })),
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
