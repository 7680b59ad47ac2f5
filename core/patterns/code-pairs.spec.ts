import assert from 'node:assert/strict';
import fc from 'fast-check';
import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';
import { NEARNESS_UNITS } from '../model/passage-condition';
import { CODERS_COUNT, TOGETHER_BY, type TogetherAsked } from '../model/pattern';
import { EVERYTHING, type Scope } from '../model/scope';
import type { StudyState } from '../model/study-state';
import { caseFinderOf } from '../passages/case-finder';
import { unpackPassages } from '../passages/columns';
import { overlaps } from '../passages/relations';
import { Narrowing } from '../queries/narrowing';
import { someScope } from '../testing/some-conditions';
import { studyToAsk } from '../testing/study-to-ask';
import { findWords } from '../text/words';
import { unitsOf } from '../text/units';
import { isTimed, timeAt } from '../text/timeline';
import { PairCounter } from './code-pairs';

describe('codes together', () => {
  const { bench, documents, asked, packed, someStudy, studyOf } = studyToAsk();
  const [talk, note, tape] = documents;
  const [sea, waiting, boat] = asked.codes as [Id, Id, Id];
  const textOf = (id: Id) => bench.texts.get(id) ?? null;
  const plain: Omit<TogetherAsked, 'pattern'> = {
    ...{ rows: { of: 'codes', codeIds: null, withUnder: false }, by: 'overlap', within: { count: 1, unit: 'paragraph' } },
    ...{ coders: 'each passage', as: 'counts' },
  };

  function count(state: StudyState, asking: Omit<TogetherAsked, 'pattern'>, scope: Scope = EVERYTHING) {
    const study = studyOf(state);
    const counter = new PairCounter(asking, study, new Narrowing(scope, study));
    const all = Object.values(state.passages);
    for (const columns of all) counter.add(columns, state.tables.document[columns.documentId]!, textOf(columns.documentId));
    const result = counter.result(all);
    const size = result.entries.length;
    const placeOf = (id: Id) => result.entries.findIndex((one) => one.key === id);
    return {
      ...result,
      counter,
      all,
      at: (a: Id, b: Id) => result.counts[placeOf(a) * size + placeOf(b)]!,
      jaccardAt: (a: Id, b: Id) => result.jaccard![placeOf(a) * size + placeOf(b)]!,
      placeOf,
    };
  }

  const passage = (documentId: Id, start: number, end: number, ...codings: [codeId: Id, coder: number][]): Passage => ({
    ...{ id: bench.newId(), documentId, start, end, comment: '', coderId: asked.coders[0]!, createdAt: 1 },
    codings: codings.map(([codeId, coder]) => ({ codeId, coderId: asked.coders[coder]!, createdAt: 1 })),
  });

  it('are counted as pairs of passages, or as documents or cases that have both: worked out by hand', () => {
    const state = packed([
      [passage(talk.id, 5, 20, [sea, 0]), passage(talk.id, 10, 25, [waiting, 0]), passage(talk.id, 12, 14, [waiting, 0], [sea, 0])],
      [passage(note.id, 0, 8, [sea, 0]), passage(note.id, 43, 48, [boat, 0])],
      [passage(tape.id, 0, 10, [boat, 0]), passage(tape.id, 10, 20, [waiting, 0])],
      [],
    ]);
    // (1,2), (1,3), (3,2) and 3 with itself; what only touches is not together
    const overlapping = count(state, plain);
    expect(overlapping.at(sea, waiting)).toBe(4);
    expect(overlapping.at(waiting, sea)).toBe(4);
    expect(overlapping.at(waiting, boat)).toBe(0);
    expect(overlapping.at(sea, sea)).toBe(3);
    const near = (within: TogetherAsked['within']) => count(state, { ...plain, by: 'near', within });
    expect(near({ count: 0, unit: 'second' }).at(waiting, boat)).toBe(1);
    expect(near({ count: 2, unit: 'paragraph' }).at(sea, boat)).toBe(1);
    expect(near({ count: 1, unit: 'paragraph' }).at(sea, boat)).toBe(0);
    const inDocuments = count(state, { ...plain, by: 'document' });
    expect([inDocuments.at(sea, waiting), inDocuments.at(sea, boat), inDocuments.at(sea, sea), inDocuments.of]).toEqual([1, 1, 2, 3]);
    expect(inDocuments.jaccardAt(sea, waiting)).toBeCloseTo(1 / 3);
    // Ann speaks in the talk and owns the note; the tape is Tom's
    const ofCases = count(state, { ...plain, by: 'case' });
    expect([ofCases.at(sea, waiting), ofCases.at(sea, boat), ofCases.at(boat, boat), ofCases.of]).toEqual([1, 1, 2, 2]);
  });

  it('share words in both of those in either', () => {
    const state = packed([[passage(talk.id, 5, 15, [sea, 0]), passage(talk.id, 8, 29, [waiting, 0])], [], [], []]);
    const words = (from: number, to: number) => {
      const { text, paragraphs } = textOf(talk.id)!;
      return paragraphs.flatMap(({ body, end }) =>
        findWords(text.slice(body, end)).filter((word) => body + word.start < to && from < body + word.end),
      ).length;
    };
    expect(count(state, { ...plain, as: 'jaccard' }).jaccardAt(sea, waiting)).toBeCloseTo(words(8, 15) / words(5, 29));
  });

  it('take what coders marked over each other as one, if that is asked', () => {
    const state = packed([
      [passage(talk.id, 5, 20, [sea, 0]), passage(talk.id, 6, 22, [sea, 1]), passage(talk.id, 10, 25, [waiting, 0])],
      [],
      [],
      [],
    ]);
    expect(count(state, plain).at(sea, waiting)).toBe(2);
    expect(count(state, { ...plain, coders: 'together' }).at(sea, waiting)).toBe(1);
    expect(count(state, { ...plain, coders: 'together' }).at(sea, sea)).toBe(1);
  });

  it('are as many as one finds who looks at every two passages, and open to as many', () => {
    const asking = fc.record({
      by: fc.constantFrom(...TOGETHER_BY),
      within: fc.record({ count: fc.nat(2), unit: fc.constantFrom(...NEARNESS_UNITS) }),
    });
    fc.assert(
      fc.property(someStudy(), asking, fc.oneof(fc.constant(EVERYTHING), someScope(asked)), (state, { by, within }, scope) => {
        const counted = count(state, { ...plain, by, within }, scope);
        const narrowing = new Narrowing(scope, studyOf(state));
        const finder = caseFinderOf(state.tables.case);
        const left = Object.values(state.passages).flatMap((columns) => {
          const some = narrowing.leftOf(columns, state.tables.document[columns.documentId]!, textOf(columns.documentId));
          return some ? unpackPassages(some) : [];
        });
        const carries = (one: Passage, id: Id) => one.codings.some((coding) => coding.codeId === id);
        const groups = (id: Id): Set<Id> => {
          const some = left.filter((one) => carries(one, id));
          return new Set(
            by === 'document'
              ? some.map((one) => one.documentId)
              : some.flatMap((one) => finder.of(state.tables.document[one.documentId]!, textOf(one.documentId), one)),
          );
        };
        for (const a of asked.codes)
          for (const b of asked.codes) {
            if (a === b) continue;
            let expected = 0;
            if (by === 'document' || by === 'case') expected = [...groups(a)].filter((id) => groups(b).has(id)).length;
            else
              for (const one of left)
                for (const two of left)
                  if (carries(one, a) && carries(two, b) && together(one, two, by === 'near' ? within : null)) expected++;
            assert.equal(counted.at(a, b), expected);
            if (by !== 'overlap' && by !== 'near') continue;
            const pairs = counted.all.flatMap((columns) =>
              counted.counter.pairsIn(
                columns,
                state.tables.document[columns.documentId]!,
                textOf(columns.documentId),
                counted.placeOf(a),
                counted.placeOf(b),
              ),
            );
            assert.equal(pairs.length, expected);
          }
      }),
      { numRuns: 200 },
    );
  });

  const someAsking = fc.record({
    rows: fc.constantFrom<TogetherAsked['rows']>(
      plain.rows,
      { of: 'codes', codeIds: null, withUnder: true },
      { of: 'code sets', setIds: null },
      { of: 'queries', queryIds: null },
    ),
    to: fc.constantFrom<TogetherAsked['rows'] | undefined>(undefined, { of: 'top codes' }),
    by: fc.constantFrom(...TOGETHER_BY),
    coders: fc.constantFrom(...CODERS_COUNT),
    as: fc.constantFrom<TogetherAsked['as']>('counts', 'jaccard'),
  });
  const askingOf = ({ to, ...asking }: typeof someAsking extends fc.Arbitrary<infer T> ? T : never) => ({
    ...plain,
    ...asking,
    ...(to && { to }),
  });

  it('open to as many pairs as are counted, whoever coded them and whatever codes are taken together', () => {
    fc.assert(
      fc.property(someStudy(), someAsking, (state, asking) => {
        if (asking.by !== 'overlap' && asking.by !== 'near') return;
        const { counter, all, counts, entries } = count(state, askingOf(asking));
        for (let a = 0; a < entries.length; a++)
          for (let b = 0; b < entries.length; b++) {
            const pairs = all.flatMap((columns) =>
              counter.pairsIn(columns, state.tables.document[columns.documentId]!, textOf(columns.documentId), a, b),
            );
            assert.equal(counts[a * entries.length + b], pairs.length, `${entries[a]!.path} with ${entries[b]!.path}`);
          }
      }),
      { numRuns: 100 },
    );
  });

  it('are after any change what counting all anew says', () => {
    fc.assert(
      fc.property(someStudy(), someStudy(), someAsking, (before, after, asking) => {
        if (asking.rows.of === 'queries' || asking.rows.of === 'code sets') return;
        const study = studyOf(before);
        const counter = new PairCounter(askingOf(asking), study, new Narrowing(EVERYTHING, study));
        const changed = { ...before, passages: { ...before.passages, [talk.id]: after.passages[talk.id]! } };
        const fewer = { ...changed, passages: { [talk.id]: changed.passages[talk.id]! } };
        for (const state of [before, changed, fewer, changed, before]) {
          const all = Object.values(state.passages);
          for (const one of all) if (!counter.knows(one)) counter.add(one, state.tables.document[one.documentId]!, textOf(one.documentId));
          const [now, anew] = [counter.result(all), count(state, askingOf(asking))];
          assert.deepEqual([now.counts, now.jaccard, now.of], [anew.counts, anew.jaccard, anew.of]);
        }
      }),
      { numRuns: 100 },
    );
  });

  /** Two passages are together: they overlap, or, where nearness is asked for, stand at most so many units apart. */
  function together(a: Passage, b: Passage, within: TogetherAsked['within'] | null): boolean {
    if (a.documentId !== b.documentId) return false;
    if (overlaps(a, b)) return true;
    const document = documents.find((one) => one.id === a.documentId)!;
    if (!within || document.ground.of === 'picture') return false;
    const [first, second] = a.start <= b.start ? [a, b] : [b, a];
    const text = textOf(document.id);
    if (within.unit === 'second') {
      if (!text) return second.start - first.end <= within.count * 1_000;
      return isTimed(text) && timeAt(text, second.start) - timeAt(text, first.end) <= within.count * 1_000;
    }
    if (!text) return false;
    const units = unitsOf(text, within.unit, 'en');
    const unitOf = (position: number) =>
      Math.max(
        0,
        units.findLastIndex((unit) => unit.start <= position),
      );
    return unitOf(second.start) - unitOf(first.end - 1) <= within.count;
  }
});
