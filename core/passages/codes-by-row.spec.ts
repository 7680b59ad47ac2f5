import fc from 'fast-check';
import { somePassages } from '../testing/make';
import { packPassages, unpackPassages } from './columns';
import { codesByRow } from './codes-by-row';

describe('codes by passage', () => {
  it('are those of the coders that count, each once', () => {
    fc.assert(
      fc.property(somePassages('d'), fc.constantFrom(0, 1, 2), (passages, how) => {
        const columns = packPassages('d', passages);
        const coders = how === 2 ? null : new Set(columns.coders.slice(how, how + 1));
        const found = codesByRow(columns, coders).map((codes) => codes?.map((code) => columns.codes[code]));
        const expected = unpackPassages(columns).map(({ codings }) => {
          const ids = [...new Set(codings.filter((coding) => !coders || coders.has(coding.coderId)).map((coding) => coding.codeId))];
          return ids.length > 0 ? ids : undefined;
        });
        expect(Array.from(found)).toEqual(expected);
      }),
    );
  });
});
