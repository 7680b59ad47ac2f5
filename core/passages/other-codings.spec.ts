import fc from 'fast-check';
import type { Coding, Passage } from '../model/passage';
import { someId, somePassages } from '../testing/make';
import { codeNumber, codeNumbersOf } from './code-numbers';
import { packPassages, passagesCarrying, passagesInRows, rowsCarrying, unpackPassages } from './columns';
import { countCodes } from './counting';
import { withOtherCodings } from './other-codings';

const DOCUMENT = '00000000-0000-4000-8000-00000000000d';
const CODER = 'c0c0c0c0-0000-4000-8000-000000000001';
const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const coding = (code: number): Coding => ({ codeId: id(code), coderId: CODER, createdAt: code });
const passage = (n: number, ...codes: number[]): Passage => ({
  id: id(100 + n),
  documentId: DOCUMENT,
  start: n * 10,
  end: n * 10 + 5,
  comment: '',
  coderId: CODER,
  createdAt: 0,
  codings: codes.map(coding),
});

describe('columns with other codings', () => {
  it('takes other codings in as if packed anew, whatever else the document holds', () => {
    const codings = fc.uniqueArray(
      fc.record({
        codeId: someId('b0'),
        coderId: someId('c0', 3),
        createdAt: fc.nat(1e9),
        rating: fc.constantFrom(undefined, 2),
        swept: fc.constantFrom(undefined, true as const),
      }),
      {
        selector: (coding) => coding.codeId + coding.coderId,
        maxLength: 3,
      },
    );
    fc.assert(
      fc.property(
        somePassages(DOCUMENT),
        fc.array(codings, { minLength: 25, maxLength: 25 }),
        fc.array(fc.boolean(), { minLength: 25, maxLength: 25 }),
        (some, others, chosen) => {
          const clean = others.map((list) =>
            list.map(({ rating, swept, ...coding }) => ({ ...coding, ...(rating !== undefined && { rating }), ...(swept && { swept }) })),
          );
          const after = some.map((passage, at) => (chosen[at] ? { ...passage, codings: clean[at]! } : passage));
          const quick = withOtherCodings(
            packPassages(DOCUMENT, some),
            after.filter((_, at) => chosen[at]),
          )!;
          const bare = structuredClone(quick);
          expect(unpackPassages(bare)).toEqual(unpackPassages(packPassages(DOCUMENT, after)));
          expect(new Set(quick.codes)).toEqual(new Set(after.flatMap((passage) => passage.codings.map((coding) => coding.codeId))));
          const wanted = passagesInRows(bare, (row) => row % 2 === 0);
          expect(wanted).toEqual(unpackPassages(bare).filter((_, row) => row % 2 === 0));
        },
      ),
    );
  });

  it('gives codes their numbers without looking them up again, also where some leave the list and others come', () => {
    const columns = packPassages(DOCUMENT, [passage(0, 1, 2), passage(1, 3), passage(2, 4)]);
    codeNumbersOf(columns.codes);
    const next = withOtherCodings(columns, [passage(1, 5, 6), passage(0, 2)])!;
    expect(next.codes).toEqual([id(2), id(4), id(5), id(6)]);
    expect([...codeNumbersOf(next.codes)]).toEqual(next.codes.map(codeNumber));
    expect(unpackPassages(structuredClone(next)).map((one) => one.codings.map((each) => each.codeId))).toEqual([
      [id(2)],
      [id(5), id(6)],
      [id(4)],
    ]);
  });

  it('takes codings off all passages, and gives some to passages that had none', () => {
    const columns = packPassages(DOCUMENT, [passage(0), passage(1, 1), passage(2)]);
    const none = withOtherCodings(columns, [passage(1)])!;
    expect([none.codingRow.length, none.codes]).toEqual([0, []]);
    const some = withOtherCodings(none, [passage(0, 7), passage(2, 7, 8)])!;
    expect([...some.codingRow]).toEqual([0, 2, 2]);
    expect(some.codes).toEqual([id(7), id(8)]);
  });

  it('knows nothing of a passage that is not in the document', () => {
    expect(withOtherCodings(packPassages(DOCUMENT, [passage(0, 1)]), [passage(9, 1)])).toBeNull();
  });

  it('leaves the columns it began with as they were', () => {
    const columns = packPassages(DOCUMENT, [passage(0, 1), passage(1, 2)]);
    const before = structuredClone(columns);
    withOtherCodings(columns, [passage(0, 3)]);
    expect(structuredClone(columns)).toEqual(before);
  });

  it('finds and counts what carries a code as a walk over all passages does, before and after', () => {
    fc.assert(
      fc.property(somePassages(DOCUMENT), fc.uniqueArray(someId('a0'), { minLength: 1, maxLength: 3 }), (some, wanted) => {
        const columns = structuredClone(packPassages(DOCUMENT, some));
        const set = new Set(wanted);
        const expected = unpackPassages(columns).filter((one) => one.codings.some((each) => set.has(each.codeId)));
        expect(passagesCarrying(columns, set)).toEqual(expected);
        expect(rowsCarrying(columns, set).size).toBe(expected.length);
        const bare = withOtherCodings(
          columns,
          expected.map((one) => ({ ...one, codings: [] })),
        )!;
        expect(rowsCarrying(bare, set).size).toBe(0);
        const counts = countCodes([bare], {});
        for (const code of wanted) expect(counts.own.get(code)).toBeUndefined();
      }),
      { numRuns: 60 },
    );
  });
});
