import assert from 'node:assert/strict';
import fc from 'fast-check';
import { Naive } from '../testing/naive-answer';
import { someCondition } from '../testing/some-conditions';
import { studyToAsk } from '../testing/study-to-ask';
import { EVERYTHING } from '../model/scope';
import { FoundIn } from './found-by';

describe('where a question finds something', () => {
  const { bench, documents, asked, somePassagesOf, packed, studyOf } = studyToAsk();

  it('is every document with a passage that answers, and every case of whom one is', () => {
    const [talk, note, tape, plan] = documents;
    const passages = fc.tuple(somePassagesOf(talk), somePassagesOf(note), somePassagesOf(tape), somePassagesOf(plan));
    fc.assert(
      fc.property(passages, fc.array(someCondition(asked, 2), { minLength: 1, maxLength: 2 }), (all, parts) => {
        const state = packed(all);
        const naive = new Naive(state, bench.texts, all.flat(), EVERYTHING);
        const found = new FoundIn({ all: parts }, studyOf(state));
        documents.forEach(({ id }, at) => {
          const document = state.tables.document[id]!;
          const text = found.needsText(document) ? (bench.texts.get(document.id) ?? null) : null;
          const answers = all[at]!.filter((passage) => naive.meets(passage, { all: parts }));
          const cases = Object.keys(state.tables.case).filter((id) => answers.some((passage) => naive.meets(passage, { ofCases: [id] })));
          assert.deepEqual(
            found.casesIn(state.passages[id] ?? null, document, text)?.toSorted() ?? null,
            answers.length === 0 ? null : cases.toSorted(),
          );
        });
      }),
      { numRuns: 400 },
    );
  });

  it('is nowhere for a question that asks nothing', () => {
    const state = packed([[], [], [], []]);
    const columns = Object.values(state.passages)[0]!;
    expect(new FoundIn({ all: [] }, studyOf(state)).casesIn(columns, documents[0], null)).toBeNull();
  });
});
