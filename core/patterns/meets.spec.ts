import fc from 'fast-check';
import type { Passage } from '../model/passage';
import { packPassages } from '../passages/columns';
import { overlaps } from '../passages/relations';
import { someId, somePassages } from '../testing/make';
import { codesByRow } from '../passages/codes-by-row';
import type { PassageColumns } from '../model/passage-columns';
import { meets as meetsOf } from './meets';

const meets = (columns: PassageColumns, codeIds: ReadonlySet<string>) => meetsOf(columns, codesByRow(columns), codeIds);

describe('codes that meet', () => {
  it('are counted in pairs of passages: worked out by hand', () => {
    const passage = (at: number, start: number, end: number, ...codes: string[]): Passage => ({
      ...{ id: `00000000-0000-4000-9000-${String(at).padStart(12, '0')}`, documentId: 'd', start, end, comment: '', coderId: 'p' },
      ...{ createdAt: 0, codings: codes.map((codeId) => ({ codeId, coderId: 'p', createdAt: 0 })) },
    });
    const columns = packPassages('d', [
      passage(1, 0, 10, 'A', 'B'), // with itself
      passage(2, 5, 15, 'B'), // meets 1, and 3
      passage(3, 14, 20, 'A'), // meets 2
      passage(4, 20, 30, 'B', 'C'), // only touches 3
    ]);
    expect([...meets(columns, new Set(['A']))]).toEqual([['B', 3]]);
    expect([...meets(columns, new Set(['B']))]).toEqual([
      ['A', 3],
      ['C', 1],
    ]);
    expect([...meets(columns, new Set(['A', 'B']))]).toEqual([['C', 1]]);
  });

  it('are as many as one finds who looks at every pair', () => {
    fc.assert(
      fc.property(somePassages('d'), fc.uniqueArray(someId('a0'), { maxLength: 3 }), (passages, ids) => {
        const columns = packPassages('d', passages);
        const asked = new Set(ids);
        const codes = (one: Passage) => new Set(one.codings.map((coding) => coding.codeId));
        const naive = new Map<string, number>();
        for (const one of passages)
          for (const two of passages)
            if ([...codes(one)].some((id) => asked.has(id)) && overlaps(one, two))
              for (const id of codes(two)) if (!asked.has(id)) naive.set(id, (naive.get(id) ?? 0) + 1);
        expect(meets(columns, asked)).toEqual(naive);
      }),
    );
  });
});
