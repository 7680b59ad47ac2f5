import assert from 'node:assert/strict';
import fc from 'fast-check';
import { studyToAsk } from '../testing/study-to-ask';
import { caseFinderOf } from './case-finder';

describe('whose the passages of a document are', () => {
  const { bench, documents, someStudy } = studyToAsk();

  it('is the same asked of all rows at once as of each, with and without knowing who speaks', () => {
    fc.assert(
      fc.property(someStudy(), fc.boolean(), (state, spoken) => {
        const finder = caseFinderOf(state.tables.case);
        for (const { id } of documents) {
          const [document, columns] = [state.tables.document[id]!, state.passages[id]!];
          const text = (spoken && bench.texts.get(id)) || null;
          const { lists, listOf } = finder.ofRows(document, text, columns);
          const each = Array.from(columns.starts, (start, row) => finder.of(document, text, { start, end: columns.ends[row]! }));
          assert.deepEqual(
            each,
            Array.from(listOf, (list) => lists[list]),
          );
          assert.equal(new Set(lists.map((list) => list.join())).size, lists.length, 'each list is there once');
        }
      }),
      { numRuns: 100 },
    );
  });

  it('is worked out anew for the same passages once it is known who speaks', () => {
    const [talk] = documents;
    fc.assert(
      fc.property(someStudy(), (state) => {
        const finder = caseFinderOf(state.tables.case);
        const [document, columns] = [state.tables.document[talk.id]!, state.passages[talk.id]!];
        const named = (known: boolean): string[] => {
          const { lists, listOf } = finder.ofRows(document, known ? bench.texts.get(talk.id)! : null, columns);
          return Array.from(listOf, (list) => lists[list]!.map((id) => state.tables.case[id]!.name).join());
        };
        const bobs = bench.texts.get(talk.id)!.text.indexOf('How late?');
        assert.deepEqual(
          named(false),
          Array.from(columns.starts, () => ''),
        );
        assert.deepEqual(
          named(true),
          Array.from(columns.starts, (start) =>
            start < bobs - 'Bob: '.length || start >= bobs + 'How late?\nBob: Go on.\n'.length ? 'Ann' : '',
          ),
        );
      }),
      { numRuns: 30 },
    );
  });
});
