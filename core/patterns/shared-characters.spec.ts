import fc from 'fast-check';
import { packPassages } from '../passages/columns';
import { somePassages } from '../testing/make';
import { jaccard } from './jaccard';
import { sharedCharacters } from './shared-characters';

describe('characters that codes share', () => {
  it('are counted once however many passages cover them: a checked example', () => {
    // A covers 0–10 and 5–15, B covers 10–20: together 0–20, shared 10–15
    const passage = (at: number, codeId: string, start: number, end: number) => ({
      ...{ id: `00000000-0000-4000-9000-00000000000${at}`, documentId: 'd', start, end, comment: '', coderId: 'c', createdAt: 0 },
      codings: [{ codeId, coderId: 'c', createdAt: 0 }],
    });
    const [pair] = sharedCharacters([packPassages('d', [passage(1, 'A', 0, 10), passage(2, 'A', 5, 15), passage(3, 'B', 10, 20)])]);
    expect(pair).toEqual({ codeIds: ['A', 'B'], both: 5, either: 20 });
    expect(jaccard(pair!)).toBe(0.25);
    expect(jaccard({ both: 0, either: 0 })).toBe(0);
  });

  it('are what looking at every character says, for any passages', () => {
    fc.assert(
      fc.property(somePassages('d'), (passages) => {
        const covered = new Map<string, Set<number>>();
        for (const { codings, start, end } of passages)
          for (const { codeId } of codings) {
            const some = covered.get(codeId) ?? new Set<number>();
            covered.set(codeId, some);
            for (let at = start; at < end; at++) some.add(at);
          }
        const ids = [...covered.keys()].sort();
        const expected = ids.flatMap((a, i) =>
          ids.slice(i + 1).flatMap((b) => {
            const both = [...covered.get(a)!].filter((at) => covered.get(b)!.has(at)).length;
            return both > 0 ? [{ codeIds: [a, b], both, either: new Set([...covered.get(a)!, ...covered.get(b)!]).size }] : [];
          }),
        );
        const key = (one: { codeIds: readonly string[] }) => one.codeIds.join();
        expect(sharedCharacters([packPassages('d', passages)]).sort((a, b) => (key(a) < key(b) ? -1 : 1)) as unknown[]).toEqual(expected);
      }),
    );
  });
});
