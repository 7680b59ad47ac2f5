import fc from 'fast-check';
import { somePassages } from '../testing/make';
import { idOfRow, inReadingOrder, packPassages, passageCount, rowOfId, unpackPassages } from './columns';

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
});
