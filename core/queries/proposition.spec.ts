import assert from 'node:assert/strict';
import fc from 'fast-check';
import { addCase, ownDocuments } from '../commands/cases';
import type { Id } from '../model/ids';
import type { PassageCondition } from '../model/passage-condition';
import type { Claim } from '../model/proposition';
import { EVERYTHING, type Scope } from '../model/scope';
import { Bench } from '../testing/make';
import { AskedStudy } from './asked-study';
import { Narrowing } from './narrowing';
import { PropositionTest } from './proposition';

describe('a proposition', () => {
  const CODES = ['Worry', 'Help', 'Boat', 'Cut off'] as const;
  const carries = (codeId: Id): PassageCondition => ({
    carries: 'any',
    codes: { codeIds: [codeId], setIds: [], withUnder: false },
    reach: 'passage',
  });

  /** Five people with a document each, a sixth with none; who has which code is given. */
  function studyOf(has: readonly (readonly boolean[])[]) {
    const bench = new Bench(5);
    const codes = CODES.map((name) => bench.addCode(name));
    has.forEach((codesOf, at) => {
      const document = bench.addDocument(`Talk ${at}`, ['We waited at the pier for the last boat home.']);
      bench.run(addCase(`Person ${at}`));
      bench.run(ownDocuments(Object.keys(bench.state.tables.case).at(-1)!, [document.id], true));
      codesOf.forEach((holds, code) => holds && bench.code(document, code * 5, code * 5 + 8, codes[code]!));
    });
    bench.run(addCase('Nobody yet'));
    const held = (where: readonly Claim[], then: readonly Claim[], scope: Scope = EVERYTHING) => {
      const study = new AskedStudy(
        bench.state.tables,
        () => Object.values(bench.state.passages),
        'en',
        () => 0,
      );
      const test = new PropositionTest({ where: [...where], then: [...then] }, study, new Narrowing(scope, study));
      for (const document of Object.values(bench.state.tables.document))
        test.add(bench.state.passages[document.id] ?? null, document, bench.texts.get(document.id) ?? null);
      return test.result();
    };
    const named = (says: ReturnType<typeof held>) =>
      says.map((one) => [bench.state.tables.case[one.caseId]!.name, one.verdict, one.hits.map((hits) => hits.length)]);
    return { bench, codes, held, named };
  }

  const [yes, no] = [true, false];

  it('is held against each case: worked out by hand', () => {
    const { codes, held, named } = studyOf([
      [yes, yes, no, yes], // worry and help, no boat; cut off as well
      [yes, yes, no, no], // … but not cut off
      [yes, yes, yes, yes], // the boat: nothing is said of this one
      [yes, no, no, yes], // no help: nothing either
    ]);
    const [worry, help, boat, cutOff] = codes as [Id, Id, Id, Id];
    const where = [
      { has: true, that: carries(worry) },
      { has: true, that: carries(help) },
      { has: false, that: carries(boat) },
    ];
    const says = held(where, [{ has: true, that: carries(cutOff) }]);
    expect(named(says)).toEqual([
      ['Person 0', 'for', [1, 1, 0, 1]],
      ['Person 1', 'against', [1, 1, 0, 0]],
      ['Person 2', 'nothing', [1, 1, 1, 1]],
      ['Person 3', 'nothing', [1, 0, 0, 1]],
    ]);
    expect(says[1]!.holds).toEqual([true, true, true, false]);
  });

  it('looks at those of whom something is in scope, and asks only what is chosen', () => {
    const { bench, codes, held, named } = studyOf([
      [yes, no, no, no],
      [yes, no, no, no],
    ]);
    const [first] = Object.keys(bench.state.tables.document);
    const then = [{ has: true, that: carries(codes[0]!) }];
    const open: Claim = { has: true, that: { carries: 'any', codes: { codeIds: [], setIds: [], withUnder: false }, reach: 'passage' } };
    const scope: Scope = { parts: [{ liesIn: { documentIds: [first!], folderIds: [], setIds: [] } }] };
    expect(named(held([open], then, scope))).toEqual([['Person 0', 'for', [1]]]);
    expect(held([], then).length).toBe(2);
  });

  it('says what its definition says, whoever has what', () => {
    const has = fc.array(fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }), { minLength: 1, maxLength: 5 });
    const claims = fc.array(fc.record({ has: fc.boolean(), code: fc.nat(3) }), { maxLength: 3 });
    fc.assert(
      fc.property(has, claims, claims, (all, where, then) => {
        const { bench, codes, held } = studyOf(all);
        const asked = (some: readonly { has: boolean; code: number }[]): Claim[] =>
          some.map((one) => ({ has: one.has, that: carries(codes[one.code]!) }));
        const verdicts = new Map(held(asked(where), asked(then)).map((one) => [bench.state.tables.case[one.caseId]!.name, one.verdict]));
        const expected = new Map(
          all.map((codesOf, at) => {
            const meets = (some: readonly { has: boolean; code: number }[]) => some.every((one) => codesOf[one.code] === one.has);
            return [`Person ${at}`, !meets(where) ? 'nothing' : meets(then) ? 'for' : 'against'];
          }),
        );
        assert.deepEqual(new Map([...verdicts].sort()), new Map([...expected].sort()));
      }),
      { numRuns: 60 },
    );
  });
});
