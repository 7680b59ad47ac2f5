import fc from 'fast-check';
import { Bench, someId, somePassages } from '../testing/make';
import type { Question } from '../model/query';
import type { Passage } from '../model/passage';
import { inReadingOrder, packPassages } from '../passages/columns';
import { overlaps } from '../passages/relations';
import { evaluate, type Scope } from './evaluate';
import { waysOut } from './explain';

const DOCUMENT = '00000000-0000-4000-8000-00000000000d';
const NOBODY = { all: [], any: [], none: [], withCodesUnder: false, reach: 'passage', documentIds: null } as const satisfies Question;

/** The definition, word for word, looking at every pair. */
function naive(question: Question, passages: readonly Passage[], coderId: string | null): string[] {
  const codes = (passage: Passage) =>
    new Set(passage.codings.filter((coding) => coderId === null || coding.coderId === coderId).map((coding) => coding.codeId));
  return [...passages].sort(inReadingOrder).flatMap((passage) => {
    const own = codes(passage);
    if (coderId !== null && own.size === 0 && passage.coderId !== coderId) return [];
    const seen =
      question.reach === 'passage'
        ? own
        : new Set(passages.filter((other) => overlaps(other, passage)).flatMap((other) => [...codes(other)]));
    const wanted = [...question.all, ...question.any];
    if (wanted.length > 0 && !wanted.some((id) => own.has(id))) return [];
    const answers =
      question.all.every((id) => seen.has(id)) &&
      (question.any.length === 0 || question.any.some((id) => seen.has(id))) &&
      !question.none.some((id) => seen.has(id));
    return answers ? [passage.id] : [];
  });
}

describe('asking for passages', () => {
  const someCodes = fc.uniqueArray(someId('a0'), { maxLength: 3 });
  const someQuestion = fc
    .record({ all: someCodes, any: someCodes, none: someCodes, reach: fc.constantFrom('passage' as const, 'overlap' as const) })
    .map((parts): Question => ({ ...NOBODY, ...parts }));

  it('finds exactly what the definition says', () => {
    fc.assert(
      fc.property(somePassages(DOCUMENT), someQuestion, fc.option(someId('c0', 2)), (passages, question, coderId) => {
        const hits = evaluate(question, [packPassages(DOCUMENT, passages)], {}, { documentIds: new Set([DOCUMENT]), coderId });
        expect(hits.map((hit) => hit.passageId)).toEqual(naive(question, passages, coderId));
      }),
      { numRuns: 400 },
    );
  });

  describe('in a small study', () => {
    const bench = new Bench();
    const one = bench.addDocument('One', ['The nurse came over on the last boat and nobody saw her land.']);
    const two = bench.addDocument('Two', ['We never locked a door in our lives.']);
    const category = bench.addCode('Being an islander');
    const doors = bench.addCode('Doors', category);
    const help = bench.addCode('Help');
    const rare = bench.addCode('Rare');
    bench.code(one, 0, 20, help);
    bench.code(one, 10, 30, doors);
    bench.code(two, 0, 10, doors);
    const columns = Object.values(bench.state.passages);
    const codes = bench.state.tables.code;
    const everything: Scope = { documentIds: new Set([one.id, two.id]), coderId: null };
    const ask = (question: Partial<Question>, scope = everything) => evaluate({ ...NOBODY, ...question }, columns, codes, scope).length;

    it('counts codes of overlapping passages only when asked to', () => {
      expect(ask({ all: [help, doors] })).toBe(0);
      expect(ask({ all: [help, doors], reach: 'overlap' })).toBe(2);
    });

    it('lets a category stand for what is under it only when asked to', () => {
      expect(ask({ all: [category] })).toBe(0);
      expect(ask({ all: [category], withCodesUnder: true })).toBe(2);
    });

    it('keeps to the chosen documents and to the scope', () => {
      expect(ask({ any: [doors], documentIds: [two.id] })).toBe(1);
      expect(ask({ any: [doors] }, { documentIds: new Set([one.id]), coderId: null })).toBe(1);
      expect(ask({ any: [doors] }, { documentIds: everything.documentIds, coderId: bench.newId() })).toBe(0);
    });

    it('explains an empty answer by the steps that bring something back, the best first', () => {
      const ways = waysOut({ ...NOBODY, all: [help, doors] }, columns, codes, everything, everything);
      expect(ways.map((way) => [way.step.do, way.found])).toEqual([
        ['drop', 2],
        ['reach overlap', 2],
        ['drop', 1],
      ]);
      const narrow: Scope = { documentIds: new Set([two.id]), coderId: null };
      expect(waysOut({ ...NOBODY, all: [help] }, columns, codes, narrow, everything).map((way) => way.step.do)).toContain('whole study');
      // to ask for no code at all would be to give the question up
      expect(waysOut({ ...NOBODY, all: [rare] }, columns, codes, everything, everything)).toEqual([]);
      expect(waysOut({ ...NOBODY, any: [rare] }, columns, codes, everything, everything)).toEqual([]);
    });
  });
});
