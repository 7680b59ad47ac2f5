import assert from 'node:assert/strict';
import fc from 'fast-check';
import { sequentialIds, type Id } from '../model/ids';
import type { Passage } from '../model/passage';
import { codesCarried, columnsLeft } from './left-in';
import { packPassages, unpackPassages } from './columns';

describe('the passages that are left', () => {
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

  const someLooking = fc.record({
    coderIds: fc.option(fc.subarray(coders, { minLength: 1 }).map((ids) => new Set(ids))),
    from: fc.constantFrom(-Infinity, 5, 6),
    until: fc.constantFrom(Infinity, 7, 8),
  });
  const someFlags = fc.option(fc.array(fc.constantFrom(0, 1), { minLength: 1, maxLength: 5 }));

  it('are those where one looks, marked or coded as one looks, with those codings alone', () => {
    fc.assert(
      fc.property(fc.array(passage, { maxLength: 12 }), someLooking, someFlags, (made, looking, flags) => {
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
        const left = columnsLeft(columns, { rows: flags && Uint8Array.from(passages, (_, row) => flags[row % flags.length]!), ...looking });
        const fits = (one: { readonly coderId: Id; readonly createdAt: number }) =>
          (looking.coderIds?.has(one.coderId) ?? true) && one.createdAt >= looking.from && one.createdAt < looking.until;
        const wanted = unpackPassages(columns)
          .filter((_, row) => !flags || flags[row % flags.length] === 1)
          .map((one) => ({ ...one, codings: one.codings.filter(fits) }))
          .filter((one) => fits(one) || one.codings.length > 0);
        assert.deepEqual(left ? unpackPassages(left) : [], wanted);
        if (left) assert.equal(codesCarried(left), new Set(wanted.flatMap((one) => one.codings.map((coding) => coding.codeId))).size);
      }),
    );
  });

  it('are the very same columns where nothing is left out, and none where nothing is left', () => {
    const columns = packPassages(documentId, [
      { id: newId(), documentId, start: 0, end: 5, comment: '', coderId: coders[0]!, createdAt: 5, codings: [] },
    ]);
    const all = { rows: null, coderIds: null, from: -Infinity, until: Infinity };
    expect(columnsLeft(columns, all)).toBe(columns);
    expect(columnsLeft(columns, { ...all, coderIds: new Set([coders[1]!]) })).toBeNull();
    expect(columnsLeft(columns, { ...all, rows: new Uint8Array(1) })).toBeNull();
  });
});
