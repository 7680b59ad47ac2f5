import assert from 'node:assert/strict';
import fc from 'fast-check';
import { codePlace } from '../commands/passages';
import type { Id } from '../model/ids';
import { TAKEN_UP_SHOWN, type TakingUpAsked } from '../model/pattern';
import { EVERYTHING, type Scope } from '../model/scope';
import type { StudyState } from '../model/study-state';
import { unpackPassages } from '../passages/columns';
import { AskedStudy } from '../queries/asked-study';
import { Narrowing } from '../queries/narrowing';
import { speakerAt } from '../text/paragraphs';
import { unitsOf } from '../text/units';
import { Bench } from '../testing/make';
import { someScope } from '../testing/some-conditions';
import { studyToAsk } from '../testing/study-to-ask';
import { TakingUpCounter, type CountedTaking } from './taking-up';

describe('who takes a theme up', () => {
  const plain = { rows: { of: 'codes', codeIds: null, withUnder: false }, groups: { by: 'speaker' }, apart: 0 } as const;
  const textOf = (bench: Bench, id: Id) => bench.texts.get(id) ?? null;

  function count(bench: Bench, state: StudyState, asked: CountedTaking, scope: Scope = EVERYTHING) {
    const study = new AskedStudy(
      state.tables,
      () => Object.values(state.passages),
      'en',
      () => 0,
    );
    const narrowing = new Narrowing(scope, study);
    const documents = Object.values(state.tables.document).filter((one) => narrowing.holds(one, textOf(bench, one.id)));
    const counter = new TakingUpCounter(asked, study, narrowing, documents);
    for (const document of documents) counter.add(state.passages[document.id] ?? null, document, textOf(bench, document.id));
    const all = documents.flatMap(({ id }) => state.passages[id] ?? []);
    const result = counter.result(all);
    const width = result.groups.length + 1;
    const numberAt = (table: Float64Array, rows: readonly { key: string }[], row: string | null, column: string | null): number => {
      const of = (some: readonly { key: string }[], key: string | null) =>
        key === null ? some.length : some.findIndex((one) => one.key === key);
      const [r, c] = [of(rows, row), of(result.groups, column)];
      return r < 0 || c < 0 ? 0 : table[r * width + c]!;
    };
    return {
      ...result,
      at: (shown: TakingUpAsked['shown'], row: string | null, column: string | null): number =>
        shown === 'from whom to whom'
          ? numberAt(result.whom, result.groups, row, column)
          : numberAt(shown === 'who brings it up' ? result.brought : result.taken, result.rows, row, column),
      evidence: (shown: TakingUpAsked['shown'], row: string | null, column: string | null) =>
        all.map((columns) => counter.evidenceIn(columns, counter.cellOf(shown, row, column))),
    };
  }

  describe('in a talk of three, worked out by hand', () => {
    const bench = new Bench();
    const boat = bench.addCode('Boat');
    const lines = ['Ann: The boat was late.', 'Bob: Late, yes.', 'Eva: I slept.', 'Ann: I ate.', 'Bob: The boat again.', 'Ann: The boat.'];
    const talk = bench.addDocument('Talk', lines, ['Ann', 'Bob', 'Eva']);
    const { paragraphs } = bench.texts.get(talk.id)!;
    for (const at of [0, 1, 4, 5]) {
      const { body, end } = paragraphs[at]!;
      bench.run(codePlace({ documentId: talk.id, place: { start: body, end }, codeIds: [boat] }));
    }

    it('takes a document as one moment where nothing sets moments apart', () => {
      const table = count(bench, bench.state, plain);
      expect(table.groups.map((one) => one.path[0])).toEqual(['Ann', 'Bob', 'Eva']);
      expect(['=Ann', '=Bob', '=Eva'].map((who) => table.at('who brings it up', boat, who))).toEqual([1, 0, 0]);
      expect(['=Ann', '=Bob', '=Eva'].map((who) => table.at('who takes it on', boat, who))).toEqual([0, 1, 0]);
      expect(table.at('from whom to whom', '=Ann', '=Bob')).toBe(1);
    });

    it('says how much each group says, whether or not of it, so that times can be held against it', () => {
      const { groups, sizes } = count(bench, bench.state, { ...plain, words: true });
      expect(groups.map((one, at) => [one.path[0], sizes[at]!.words, sizes[at]!.documents])).toEqual([
        ['Ann', 8, 1],
        ['Bob', 5, 1],
        ['Eva', 2, 1],
      ]);
      expect(sizes.at(-1)!.words).toBe(15);
    });

    it('begins another after so many turns without it', () => {
      const two = count(bench, bench.state, { ...plain, apart: 2 });
      expect(['=Ann', '=Bob'].map((who) => two.at('who brings it up', boat, who))).toEqual([1, 1]);
      expect(['=Ann', '=Bob'].map((who) => two.at('who takes it on', boat, who))).toEqual([1, 1]);
      expect(two.at('from whom to whom', '=Bob', '=Ann')).toBe(1);
      expect(two.at('from whom to whom', null, null)).toBe(2);
      expect(count(bench, bench.state, { ...plain, apart: 3 }).at('who brings it up', null, null)).toBe(1);
      const [behind] = two.evidence('from whom to whom', '=Bob', '=Ann');
      expect(behind!.hits.map((hit) => hit.start)).toEqual([paragraphs[4]!.body, paragraphs[5]!.body]);
    });
  });

  describe('in any study and scope', () => {
    const { bench, asked, someStudy } = studyToAsk();

    it('counts by the definition, passage by passage, and opens to what it counts', () => {
      fc.assert(
        fc.property(someStudy(), fc.integer({ min: 0, max: 2 }), someScope(asked), (state, apart, scope) => {
          const table = count(bench, state, { ...plain, apart }, scope);
          const expected = naive(state, apart, scope);
          const keys = [...table.groups.map((one) => one.key), null];
          for (const shown of TAKEN_UP_SHOWN)
            for (const row of shown === 'from whom to whom' ? keys : [...asked.codes, null])
              for (const column of keys) {
                const wanted = expected[shown].filter(
                  (one) => (row === null || one.row === row) && (column === null || one.column === column),
                );
                assert.equal(table.at(shown, row, column), wanted.length, `${shown} ${row} ${column}`);
                const found = table.evidence(shown, row, column);
                assert.equal(
                  found.reduce((sum, one) => sum + one.times, 0),
                  wanted.length,
                );
                assert.deepEqual(
                  new Set(found.flatMap((one) => one.hits.map((hit) => hit.passageId))),
                  new Set(wanted.flatMap((one) => one.passages)),
                );
              }
        }),
        { numRuns: 100 },
      );
    });

    /** Every time that somebody brings a code up or takes it on: a passage begins a moment if no earlier one ends so few turns before it. */
    function naive(state: StudyState, apart: number, scope: Scope) {
      const study = new AskedStudy(
        state.tables,
        () => Object.values(state.passages),
        'en',
        () => 0,
      );
      const narrowing = new Narrowing(scope, study);
      const times: Record<TakingUpAsked['shown'], { row: string; column: string; passages: string[] }[]> = {
        ...{ 'who brings it up': [], 'who takes it on': [], 'from whom to whom': [] },
      };
      for (const columns of Object.values(state.passages)) {
        const document = state.tables.document[columns.documentId]!;
        const text = textOf(bench, document.id);
        const left = narrowing.leftOf(columns, document, text);
        if (!left || document.ground.of === 'picture') continue;
        const turns = text ? unitsOf(text, 'turn', 'en') : [];
        const turnOf = (at: number): number => Math.max(0, turns.filter((one) => one.start <= at).length - 1);
        const who = (at: number): string => {
          const speaker = speakerAt(document, text, at);
          return speaker ? `=${speaker.name}` : '';
        };
        for (const code of asked.codes) {
          const own = unpackPassages(left).filter((one) => one.codings.some(({ codeId }) => codeId === code));
          let moment: typeof own = [];
          own.forEach((one, at) => {
            const goesOn = own.slice(0, at).some((other) => apart === 0 || !text || turnOf(one.start) - turnOf(other.end - 1) <= apart);
            const speaker = who(one.start);
            if (!goesOn) {
              moment = [one];
              times['who brings it up'].push({ row: code, column: speaker, passages: [one.id] });
              return;
            }
            if (!moment.some((other) => who(other.start) === speaker)) {
              const [first] = moment as [(typeof own)[0]];
              times['who takes it on'].push({ row: code, column: speaker, passages: [one.id] });
              times['from whom to whom'].push({ row: who(first.start), column: speaker, passages: [first.id, one.id] });
            }
            moment.push(one);
          });
        }
      }
      return times;
    }
  });
});
