import assert from 'node:assert/strict';
import fc from 'fast-check';
import { addAttribute } from '../commands/attributes';
import { saveQuery } from '../commands/queries';
import { rowsOf } from '../model/area';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';
import type { Carries, PassageCondition } from '../model/passage-condition';
import { nested, QuestionSchema, type Question } from '../model/query';
import { EVERYTHING, type Scope } from '../model/scope';
import type { StudyState } from '../model/study-state';
import { inReadingOrder, packPassages } from '../passages/columns';
import { pixelsCovered } from '../passages/pixels';
import { overlaps } from '../passages/relations';
import { Bench, someArea, somePassages } from '../testing/make';
import { Naive } from '../testing/naive-answer';
import { someCondition, someScope } from '../testing/some-conditions';
import { AskedStudy } from './asked-study';
import { Evaluation } from './evaluate';
import { waysOut } from './explain';
import { Narrowing, spokenOf } from './narrowing';

/** A study with a document of every ground, two coders, speakers, cases, attributes, sets and a kept query; its passages come at random. */
function studyToAsk() {
  const bench = new Bench(21);
  const other = bench.newId();
  bench.state = {
    ...bench.state,
    tables: { ...bench.state.tables, coder: { ...bench.state.tables.coder, [other]: { id: other, name: 'Ben' } } },
  };
  const top = bench.addCode('Sea');
  const codes = [top, bench.addCode('Waiting', top), bench.addCode('Boat', top), bench.addCode('Help'), bench.addCode('Calm')];
  const talk = bench.addDocument(
    'Talk',
    ['Ann: We waited. It was late.', 'Bob: How late?', 'Bob: Go on.', 'Ann: Late. Very.'],
    ['Ann', 'Bob'],
  );
  const note = bench.addDocument('Note', ['The pier was empty. Nobody spoke.', 'We left.', 'Rain.', 'More rain. And wind.']);
  const tape = bench.record('Tape', 60);
  const plan = bench.draw('Plan', 40, 30);
  bench.do(addAttribute('case', 'age', 'number'));
  bench.do(addAttribute('document', 'place', 'text'));
  const [age, place] = Object.keys(bench.state.tables.attribute) as [Id, Id];
  const ann = {
    id: bench.newId(),
    name: 'Ann',
    description: '',
    documentIds: [note.id],
    stretches: [{ documentId: note.id, start: 0, end: 20 }],
    values: { [age]: 41 },
  };
  const tom = { ...ann, id: bench.newId(), name: 'Tom', documentIds: [tape.id], stretches: [], values: {} };
  const question = bench.newId();
  const speakers = talk.speakers.map((one) => ({ ...one, interviewer: one.name === 'Bob', caseId: one.name === 'Ann' ? ann.id : null }));
  const asked: Document = { ...talk, speakers, answers: [{ questionId: question, asked: null, start: 3, end: 30 }] };
  const byHand = { id: bench.newId(), name: 'Notes', of: 'document' as const, memberIds: [note.id], condition: null };
  const cases = { id: bench.newId(), name: 'Women', of: 'case' as const, memberIds: [ann.id], condition: null };
  const codeSet = { id: bench.newId(), name: 'Quiet', codeIds: [codes[3]!, codes[4]!], conditions: null, createdAt: 1 };
  bench.state = {
    ...bench.state,
    tables: {
      ...bench.state.tables,
      document: { ...bench.state.tables.document, [talk.id]: asked, [note.id]: { ...note, values: { [place]: 'Saltpans' } } },
      case: { [ann.id]: ann, [tom.id]: tom },
      question: { [question]: { id: question, text: 'How late?', order: 1 } },
      set: { [byHand.id]: byHand, [cases.id]: cases },
      codeSet: { [codeSet.id]: codeSet },
    },
  };
  // the note is the transcript of something: its marks say when its words are spoken
  const text = bench.texts.get(note.id)!;
  bench.texts.set(note.id, {
    ...text,
    marks: [
      { at: 0, kind: 'time', value: 0 },
      { at: 40, kind: 'time', value: 9_000 },
    ],
  });
  const waiting: Carries = { carries: 'any', codes: { codeIds: [codes[1]!], setIds: [], withUnder: false }, reach: 'passage' };
  bench.do(saveQuery('Waiting', { all: [waiting] }));
  return {
    bench,
    documents: [talk, note, tape, plan] as const,
    coders: [bench.coderId, other] as const,
    asked: {
      codes,
      codeSets: [codeSet.id],
      coders: [bench.coderId, other],
      cases: [ann.id, tom.id],
      documents: [talk.id, note.id, tape.id],
      sets: [byHand.id, cases.id],
      attributes: [age, place],
      questions: [question],
      queries: Object.keys(bench.state.tables.query),
    },
  };
}

describe('asking for passages', () => {
  const { bench, documents, coders, asked } = studyToAsk();
  const [talk, note, tape, plan] = documents;
  const lengths = new Map([...documents].map((one) => [one.id, one.ground.of === 'text' ? one.characters : 60]));

  /** Passages of every document, with codes of the study. */
  const passagesOf = (document: Document) =>
    fc
      .tuple(
        somePassages(document.id, lengths.get(document.id)!),
        fc.array(
          someArea().filter((area) => pixelsCovered([area]) > 0),
          { minLength: 25, maxLength: 25 },
        ),
      )
      .map(([made, areas]) =>
        made.map((passage, at): Passage => {
          const named = passage.codings.map((coding, nth) => ({
            codeId: asked.codes[Number(coding.codeId.slice(-2)) % asked.codes.length]!,
            coderId: coders[Number(coding.coderId.slice(-1))]!,
            createdAt: coding.createdAt,
            ...(nth % 2 ? { rating: 1 + (nth % 3) } : {}),
            ...(nth % 3 === 1 ? { swept: true as const } : {}),
          }));
          const area = document.ground.of === 'picture' ? { area: areas[at]!, ...rowsOf(areas[at]!) } : {};
          return {
            ...passage,
            ...area,
            id: `${document.id.slice(-8)}${passage.id.slice(8)}`,
            coderId: coders[Number(passage.coderId.slice(-1))]!,
            codings: named,
            ...(passage.comment && at % 2 ? { open: true } : {}),
          };
        }),
      );

  const studyOf = (state: StudyState) =>
    new AskedStudy(
      state.tables,
      () => Object.values(state.passages),
      'en',
      () => 0,
    );

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

  const packed = (all: readonly (readonly Passage[])[]): StudyState => ({
    ...bench.state,
    passages: Object.fromEntries(documents.map((document, at) => [document.id, packPassages(document.id, all[at]!, document.ground.of)])),
  });

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
