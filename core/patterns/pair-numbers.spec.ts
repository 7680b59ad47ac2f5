import assert from 'node:assert/strict';
import fc from 'fast-check';
import { PairNumbers } from './pair-numbers';

describe('numbers of pairs', () => {
  it('are those a map would give, also after growing', () => {
    const some = fc.tuple(fc.integer({ min: -40, max: 400 }), fc.nat(300));
    fc.assert(
      fc.property(fc.array(some, { maxLength: 200 }), (pairs) => {
        const numbers = new PairNumbers();
        const known = new Map<string, number>();
        for (const [first, second] of pairs) {
          const key = `${first} ${second}`;
          if (!known.has(key)) known.set(key, known.size);
          assert.equal(numbers.of(first, second), known.get(key));
        }
        assert.equal(numbers.size, known.size);
      }),
    );
    const many = new PairNumbers();
    for (let one = 0; one < 200_000; one++) assert.equal(many.of(one % 1_000, one), one);
    for (let one = 0; one < 200_000; one++) assert.equal(many.of(one % 1_000, one), one);
  });
});
