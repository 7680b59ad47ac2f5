import fc from 'fast-check';
import { somePassages } from '../testing/make';
import { packPassages, unpackPassages } from './columns';
import { codesByRow } from './codes-by-row';

describe('codes by passage', () => {
  it('are those given by anybody, each once', () => {
    fc.assert(
      fc.property(somePassages('d'), (passages) => {
        const columns = packPassages('d', passages);
        const found = codesByRow(columns).map((codes) => codes?.map((code) => columns.codes[code]));
        const expected = unpackPassages(columns).map(({ codings }) => {
          const ids = [...new Set(codings.map((coding) => coding.codeId))];
          return ids.length > 0 ? ids : undefined;
        });
        expect(Array.from(found)).toEqual(expected);
      }),
    );
  });
});
