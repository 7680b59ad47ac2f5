import fc from 'fast-check';
import { someId, somePassages } from '../testing/make';
import { idOfRow, inReadingOrder, packPassages, passageCount, passagesInRows, rowOfId, unpackPassages } from './columns';
import { withOtherCodings } from './other-codings';

const DOCUMENT = '00000000-0000-4000-8000-00000000000d';

describe('packed passages', () => {
  it('unpack to what was packed, in reading order', () => {
    fc.assert(
      fc.property(somePassages(DOCUMENT), (passages) => {
        const columns = packPassages(DOCUMENT, passages);
        expect(unpackPassages(structuredClone(columns))).toEqual([...passages].sort(inReadingOrder));
        expect(passageCount(columns)).toBe(passages.length);
      }),
    );
  });

  it('find the row of an id and the id of a row', () => {
    fc.assert(
      fc.property(somePassages(DOCUMENT), (passages) => {
        const columns = packPassages(DOCUMENT, passages);
        for (const passage of passages) expect(idOfRow(columns, rowOfId(columns, passage.id))).toBe(passage.id);
        expect(rowOfId(columns, 'ffffffff-0000-4000-8000-000000000000')).toBe(-1);
      }),
    );
  });

  it('do not take a run of digits across two ids for an id', () => {
    const a = '11111111-1111-4111-8111-111111111111';
    const b = '11111111-1111-4111-8111-111111111112';
    const passage = (id: string) => ({ id, documentId: DOCUMENT, start: 0, end: 1, comment: '', coderId: a, createdAt: 0, codings: [] });
    const columns = packPassages(DOCUMENT, [passage(a), passage(b)]);
    expect(rowOfId(columns, columns.ids.slice(10, 46))).toBe(-1);
    expect(rowOfId(columns, b)).toBe(1);
  });

  it('refuse a passage of another document', () => {
    const stray = {
      id: DOCUMENT,
      documentId: 'ffffffff-0000-4000-8000-000000000000',
      start: 0,
      end: 1,
      comment: '',
      coderId: DOCUMENT,
      createdAt: 0,
      codings: [],
    };
    expect(() => packPassages(DOCUMENT, [stray])).toThrowError(RangeError);
  });

  it('takes other codings in as if packed anew, whatever else the document holds', () => {
    const codings = fc.uniqueArray(
      fc.record({ codeId: someId('b0'), coderId: someId('c0', 3), createdAt: fc.nat(1e9), rating: fc.constantFrom(undefined, 2) }),
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
          const clean = others.map((list) => list.map(({ rating, ...coding }) => (rating === undefined ? coding : { ...coding, rating })));
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
});
