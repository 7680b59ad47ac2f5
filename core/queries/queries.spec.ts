import assert from 'node:assert/strict';
import fc from 'fast-check';
import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';
import type { Carries, PassageCondition } from '../model/passage-condition';
import { nested, QuestionSchema, type Question } from '../model/query';
import { EVERYTHING, type Scope } from '../model/scope';
import type { StudyState } from '../model/study-state';
import { inReadingOrder } from '../passages/columns';
import { overlaps } from '../passages/relations';
import { Bench } from '../testing/make';
import { Naive } from '../testing/naive-answer';
import { studyToAsk } from '../testing/study-to-ask';
import { someCondition, someScope } from '../testing/some-conditions';
import { Evaluation } from './evaluate';
import { waysOut } from './explain';
import { Narrowing, spokenOf } from './narrowing';

describe('asking for passages', () => {
  const { bench, documents, coders, asked, somePassagesOf: passagesOf, packed, studyOf } = studyToAsk();
  const [talk, note, tape, plan] = documents;
  function ask(question: Question, scope: Scope = EVERYTHING, state: StudyState = bench.state) {
    const study = studyOf(state);
    const evaluation = new Evaluation(question, study, new Narrowing(scope, study));
    const hits = Object.values(state.passages).flatMap((columns) => {
      const document = state.tables.document[columns.documentId]!;
      const text = evaluation.needsText(document) ? (bench.texts.get(document.id) ?? null) : null;
      return evaluation.mayConcern(document) ? evaluation.hitsIn(columns, document, text) : [];
    });
    return { hits, ids: hits.map((hit) => hit.passageId), parts: evaluation.parts() };
  }

  it('finds exactly what the definition says: every part and relation, nested, on every ground, in the whole study and in every scope', () => {
    const allPassages = fc.tuple(passagesOf(talk), passagesOf(note), passagesOf(tape), passagesOf(plan));
    const someAll = fc.array(someCondition(asked, 3), { maxLength: 3 });
    fc.assert(
      fc.property(allPassages, someAll, fc.oneof(fc.constant(EVERYTHING), someScope(asked)), (all, parts, scope) => {
        const state = packed(all);
        const naive = new Naive(state, bench.texts, all.flat(), scope);
        const sorted = all.flatMap((some) => [...some].sort(inReadingOrder));
        const { ids, parts: counts } = ask({ all: parts }, scope, state);
        const seen = sorted.filter((passage) => naive.isSeen(passage));
        const meeting = (asked: PassageCondition) => seen.filter((passage) => naive.meets(passage, asked)).map((passage) => passage.id);
        assert.deepEqual(ids, meeting({ all: parts }));
        parts.forEach((part, at) => {
          assert.equal(counts[at]!.alone, meeting(part).length);
          assert.equal(counts[at]!.left, meeting({ all: parts.slice(0, at + 1) }).length);
        });
      }),
      { numRuns: 1_500 },
    );
  });

  it('keeps its meaning when it comes from an earlier version', () => {
    const some = fc.subarray(asked.codes, { maxLength: 3 });
    const flat = fc.record({
      all: some,
      any: some,
      none: some,
      withCodesUnder: fc.boolean(),
      reach: fc.constantFrom('passage' as const, 'overlap' as const),
      documentIds: fc.option(fc.subarray([talk.id, note.id])),
    });
    fc.assert(
      fc.property(fc.tuple(passagesOf(talk), passagesOf(note)), flat, (all, old) => {
        const state = packed([...all, [], []]);
        const passages = all.flat();
        const under = (id: Id) =>
          old.withCodesUnder
            ? [
                id,
                ...Object.values(state.tables.code)
                  .filter((one) => one.parentId === id)
                  .map((one) => one.id),
              ]
            : [id];
        const codesOf = (passage: Passage) => new Set(passage.codings.map((coding) => coding.codeId));
        const expected = all
          .flatMap((some) => [...some].sort(inReadingOrder))
          .filter((passage) => {
            if (old.documentIds && !old.documentIds.includes(passage.documentId)) return false;
            const own = codesOf(passage);
            const met =
              old.reach === 'passage'
                ? [passage]
                : passages.filter((one) => one.documentId === passage.documentId && overlaps(one, passage));
            const seen = new Set(met.flatMap((one) => [...codesOf(one)]));
            const wanted = [...old.all, ...old.any].flatMap(under);
            if (wanted.length > 0 && !wanted.some((id) => own.has(id))) return false;
            const has = (id: Id) => under(id).some((one) => seen.has(one));
            return old.all.every(has) && (old.any.length === 0 || old.any.some(has)) && !old.none.some(has);
          });
        const question = QuestionSchema.parse(nested(old));
        assert.deepEqual(
          ask(question, EVERYTHING, state).ids,
          expected.map((one) => one.id),
        );
      }),
      { numRuns: 300 },
    );
    expect(nested({ all: 'no question' })).toEqual({ all: 'no question' });
  });

  it('leaves the same of a scope whether all of a text is known or only who speaks where', () => {
    const allPassages = fc.tuple(passagesOf(talk), passagesOf(note), passagesOf(tape), passagesOf(plan));
    fc.assert(
      fc.property(allPassages, someScope(asked), (all, scope) => {
        const state = packed(all);
        const study = studyOf(state);
        for (const document of documents) {
          const text = bench.texts.get(document.id) ?? null;
          const here = state.tables.document[document.id]!;
          const columns = state.passages[document.id]!;
          const [whole, spoken] = [new Narrowing(scope, study), new Narrowing(scope, study)];
          const turns = text && spokenOf(text);
          const left = whole.leftOf(columns, here, text);
          assert.deepEqual(spoken.leftOf(columns, here, turns)?.ids, left?.ids);
          assert.deepEqual(spoken.casesIn(here, turns), whole.casesIn(here, text));
          // no passage is left of a document that is not in the scope
          if (left) assert.ok(whole.holds(here, text) && whole.mayHold(here));
          // asked again, the very same
          assert.equal(whole.leftOf(columns, here, text), left);
        }
      }),
      { numRuns: 400 },
    );
  });

  it('is answered by nothing where it asks for what is gone, or for itself', () => {
    const state = packed([[], [], [], []]);
    const [queryId] = asked.queries as [Id];
    const circle = { ...state.tables.query[queryId]!, question: { all: [{ queryId }] } };
    const lines: Passage[] = [
      { id: bench.newId(), documentId: talk.id, start: 0, end: 5, comment: '', coderId: coders[0], createdAt: 1, codings: [] },
    ];
    const study = { ...packed([lines, [], [], []]), tables: { ...state.tables, query: { [queryId]: circle } } };
    expect(ask({ all: [{ queryId }] }, EVERYTHING, study).ids).toEqual([]);
    for (const gone of [{ queryId: bench.newId() }, { attributeId: bench.newId(), comparison: 'is not known' as const, values: [] }])
      expect(ask({ all: [gone] }, EVERYTHING, study).ids).toEqual([]);
    expect(ask({ all: [] }, EVERYTHING, study).ids.length).toBe(1);
  });

  describe('that finds nothing', () => {
    const small = new Bench(3);
    const one = small.addDocument('One', ['The nurse came over on the last boat and nobody saw her land.']);
    const two = small.addDocument('Two', ['We never locked a door in our lives.']);
    const category = small.addCode('Being an islander');
    const doors = small.addCode('Doors', category);
    const help = small.addCode('Help');
    const rare = small.addCode('Rare');
    small.code(one, 0, 20, help);
    small.code(one, 10, 30, doors);
    small.code(two, 0, 10, doors);
    const study = studyOf(small.state);
    const count = (question: Question, scope: Scope): Promise<number> => {
      const evaluation = new Evaluation(question, study, new Narrowing(scope, study));
      for (const columns of Object.values(small.state.passages))
        evaluation.hitsIn(columns, small.state.tables.document[columns.documentId]!, null);
      return Promise.resolve(evaluation.found);
    };
    const carries = (how: Carries['carries'], ...codeIds: Id[]): Carries => ({
      carries: how,
      codes: { codeIds, setIds: [], withUnder: false },
      reach: 'passage',
    });
    const ways = async (parts: PassageCondition[], scope = EVERYTHING) =>
      (await waysOut({ all: parts }, count, scope)).map(({ change, found }) => [change?.do ?? 'whole study', found]);

    it('is explained by the single changes that bring something back, the best first', async () => {
      expect(await ways([carries('all', help, doors)])).toEqual([
        ['any of', 3],
        ['without code', 2],
        ['overlapping', 2],
        ['without code', 1],
      ]);
      // in an order that does not matter: both bring back one
      expect(
        (await ways([carries('any', help), carries('none', help)])).filter(([how]) => how === 'without').map(([, found]) => found),
      ).toEqual([2, 1]);
      expect(await ways([carries('any', category)])).toEqual([['with under', 2]]);
      expect(await ways([{ standing: 'before', to: carries('any', doors), within: { count: 0, unit: 'second' } }])).toEqual([]);
      expect(await ways([carries('any', help)], { parts: [{ liesIn: { documentIds: [two.id], folderIds: [], setIds: [] } }] })).toEqual([
        ['whole study', 1],
      ]);
      // to ask for nothing at all would be to give the question up
      expect(await ways([carries('any', rare)])).toEqual([]);
    });
  });

  it('can be kept as it is: random questions fit their schema, and only so deep', () => {
    fc.assert(fc.property(someCondition(asked, 4), (condition) => QuestionSchema.safeParse({ all: [condition] }).success));
    let deep: PassageCondition = { memo: true };
    for (let level = 0; level < 20; level++) deep = { all: [deep] };
    expect(QuestionSchema.safeParse({ all: [deep] }).success).toBeFalse();
  });
});
