import fc from 'fast-check';
import { invert } from '../change/change';
import { applyChange } from '../change/apply';
import type { Id } from '../model/ids';
import { unpackPassages } from '../passages/columns';
import { Bench } from '../testing/make';
import { contextsOf } from '../words/contexts';
import { joinCodes } from './join-codes';
import { recode } from './reshape-passages';
import { keepSwept, sweep, sweptLeft } from './sweep';

describe('a sweep', () => {
  let bench: Bench;
  let wait: Id;
  let documentId: Id;
  const places = (...pairs: [number, number][]) => [{ documentId, places: pairs.map(([start, end]) => ({ start, end })) }];
  const passages = () => Object.values(bench.state.passages).flatMap(unpackPassages);
  const left = () => sweptLeft(bench.state, wait, Object.keys(bench.state.tables.document)).map((one) => [one.start, one.end]);

  beforeEach(() => {
    bench = new Bench();
    wait = bench.addCode('Waiting');
    documentId = bench.addDocument('One', ['We waited at the pier. It was late.', 'The boat came.', 'We had waited.']).id;
  });

  it('codes each place once, as one step that undo takes back, and marks it until it is looked at', () => {
    bench.code(bench.state.tables.document[documentId]!, 0, 12, wait);
    const before = bench.state;
    const action = bench.run(sweep(places([3, 9], [36, 40], [51, 64]), { codeIds: [wait] }))!;
    expect(action.sentence).toBe('swept Waiting over 2 places; 1 place carried it already');
    expect(left()).toEqual([
      [36, 40],
      [51, 64],
    ]);
    expect(bench.run(sweep(places([36, 40]), { codeIds: [wait] }))).toBeNull();
    expect(applyChange(bench.state, invert(action.change)).passages).toEqual(before.passages);
    const [, one] = passages();
    bench.run(keepSwept([{ documentId, passageId: one!.id }], wait));
    expect(left()).toEqual([[51, 64]]);
    expect(bench.run(keepSwept([{ documentId, passageId: one!.id }], wait))).toBeNull();
  });

  it('takes on a code where a passage of the coder stands already, and makes a new code on the way', () => {
    const boat = bench.addCode('Boat');
    bench.code(bench.state.tables.document[documentId]!, 36, 40, boat);
    bench.run(sweep(places([36, 40]), { codeIds: [wait] }));
    expect(passages().map((one) => one.codings.map((coding) => [coding.codeId, coding.swept]))).toEqual([
      [
        [boat, undefined],
        [wait, true],
      ],
    ]);
    bench.run(sweep(places([0, 2]), { codeIds: [], newCodes: [{ name: 'We', parentId: null }] }));
    expect(Object.values(bench.state.tables.code).map((code) => code.name)).toContain('We');
  });

  it('stays to be looked at when its code is joined into another, and is looked at when the code is exchanged', () => {
    const boat = bench.addCode('Boat');
    bench.run(sweep(places([0, 2], [36, 40]), { codeIds: [boat] }));
    bench.run(joinCodes(wait, [boat]));
    expect(left().length).toBe(2);
    const other = bench.addCode('Other');
    bench.run(recode(documentId, passages()[0]!.id, wait, { codeIds: [other] }));
    expect(left().length).toBe(1);
    expect(passages()[0]!.codings[0]!.swept).toBeUndefined();
  });

  it('is refused where a text became shorter meanwhile, and nothing is coded', () => {
    const before = bench.state;
    expect(() => bench.run(sweep(places([0, 2], [60, 5_000]), { codeIds: [wait] }))).toThrowError(/Search again/);
    expect(bench.state).toBe(before);
  });

  it('has contexts that hold every hit, are made of whole units, and do not touch', () => {
    const text = bench.texts.get(documentId)!;
    const at = (word: string) => ({ start: text.text.indexOf(word), end: text.text.indexOf(word) + word.length });
    const words = (...some: Parameters<typeof contextsOf>) => contextsOf(...some).map(({ start, end }) => text.text.slice(start, end));
    expect(words(text, [at('waited')], { unit: 'sentence', around: 0 }, 'en')).toEqual(['We waited at the pier.']);
    expect(words(text, [at('boat')], { unit: 'paragraph', around: 1 }, 'en')).toEqual([text.text]);
    expect(words(text, [at('waited'), at('boat')], 'hit', 'en')).toEqual(['waited', 'boat']);
    const hit = fc.nat(text.text.length - 6).map((start) => ({ start, end: start + 5 }));
    fc.assert(
      fc.property(
        fc.array(hit),
        fc.constantFrom('sentence' as const, 'paragraph' as const, 'turn' as const),
        fc.nat(2),
        (made, unit, around) => {
          const hits = made.sort((a, b) => a.start - b.start);
          const contexts = contextsOf(text, hits, { unit, around }, 'en');
          return (
            contexts.every((one, nth) => nth === 0 || contexts[nth - 1]!.end < one.start) &&
            hits.every((one) => contexts.some((all) => all.start <= one.start || all.end >= one.end))
          );
        },
      ),
    );
  });
});
