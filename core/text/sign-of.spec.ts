import assert from 'node:assert/strict';
import fc from 'fast-check';
import { signOf } from './sign-of';

describe('a sign of a value', () => {
  it('is the same in whatever order fields were written, however deep', () => {
    const turned = (value: unknown): unknown =>
      Array.isArray(value)
        ? value.map(turned)
        : typeof value === 'object' && value !== null
          ? Object.fromEntries(
              Object.entries(value)
                .reverse()
                .map(([key, one]) => [key, turned(one)]),
            )
          : value;
    fc.assert(fc.property(fc.jsonValue(), (value) => assert.equal(signOf(turned(value)), signOf(value))));
  });

  it('tells apart lists in another order, and values that only read alike', () => {
    expect(signOf({ a: [1, 2] })).not.toBe(signOf({ a: [2, 1] }));
    expect(signOf({ a: '1' })).not.toBe(signOf({ a: 1 }));
    expect(signOf({ a: null })).not.toBe(signOf({}));
  });
});
