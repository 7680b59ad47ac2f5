import fc from 'fast-check';
import { sequentialIds } from '../model/ids';
import type { Passage } from '../model/passage';
import { codesCarried, columnsOfCoder } from './by-coder';
import { packPassages, passageCount, unpackPassages } from './columns';

describe('the passages of one coder', () => {
  const newId = sequentialIds(3);
  const documentId = newId();
  const coders = [newId(), newId(), newId()];
  const codes = [newId(), newId()];
  const passage = fc.record({
    start: fc.nat(50),
    length: fc.integer({ min: 1, max: 20 }),
    coderId: fc.constantFrom(...coders),
    comment: fc.constantFrom('', 'late'),
    codings: fc.array(
      fc.record({
        codeId: fc.constantFrom(...codes),
        coderId: fc.constantFrom(...coders),
        rating: fc.option(fc.integer({ min: 1, max: 5 }), { nil: undefined }),
      }),
      {
        maxLength: 4,
      },
    ),
  });

  it('are those they marked or coded, with their codings alone', () => {
    fc.assert(
      fc.property(fc.array(passage, { maxLength: 12 }), (made) => {
        const passages = made.map(({ start, length, codings, ...rest }): Passage => ({
          id: newId(),
          documentId,
          start,
          end: start + length,
          ...rest,
          createdAt: 5,
          codings: codings.map(({ rating, ...coding }) => ({ ...coding, createdAt: 7, ...(rating !== undefined && { rating }) })),
        }));
        const columns = packPassages(documentId, passages);
        for (const coderId of coders) {
          const wanted = unpackPassages(columns)
            .map((one) => ({ ...one, codings: one.codings.filter((coding) => coding.coderId === coderId) }))
            .filter((one) => one.coderId === coderId || one.codings.length > 0);
          const own = columnsOfCoder(columns, coderId);
          expect(own ? unpackPassages(own) : []).toEqual(wanted);
          expect(own ? passageCount(own) : 0).toBe(wanted.length);
          if (own) expect(codesCarried(own)).toBe(new Set(wanted.flatMap((one) => one.codings.map((coding) => coding.codeId))).size);
        }
      }),
    );
    expect(columnsOfCoder(packPassages(documentId, []), coders[0]!)).toBeNull();
  });
});
