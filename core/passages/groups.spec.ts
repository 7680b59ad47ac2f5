import fc from 'fast-check';
import { somePassages } from '../testing/make';
import { inReadingOrder } from './columns';
import { firstStartingAt, PassageGroups } from './groups';
import { overlaps } from './relations';
import { layThreads, type Thread } from './threads';

const DOCUMENT = '00000000-0000-4000-8000-00000000000d';
const sorted = somePassages(DOCUMENT).map((passages) => [...passages].sort(inReadingOrder));
const said = (threads: readonly Thread[]) => threads.map((one) => `${one.passageId} ${one.codeId} ${one.lane}`).sort();

describe('groups of passages', () => {
  it('give a window the same threads as laying out the whole document', () => {
    fc.assert(
      fc.property(sorted, fc.nat(70), fc.nat(30), (passages, start, length) => {
        const window = { start, end: start + length };
        const { first, last } = new PassageGroups(passages).touching(window);
        const there = (one: Thread) => overlaps(one, window);
        expect(said(layThreads(passages.slice(first, last)).filter(there))).toEqual(said(layThreads(passages).filter(there)));
      }),
    );
  });

  it('hold no more than the passages that hang together with the window', () => {
    fc.assert(
      fc.property(sorted, fc.nat(70), (passages, start) => {
        const window = { start, end: start + 1 };
        const { first, last } = new PassageGroups(passages).touching(window);
        const some = passages.slice(first, last);
        const [from, to] = [Math.min(...some.map((one) => one.start)), Math.max(...some.map((one) => one.end))];
        // every position between the first start and the last end is covered, so there is no gap to cut at
        for (let at = from; at < to; at++) expect(some.some((one) => one.start <= at && at < one.end)).toBeTrue();
      }),
    );
  });

  it('find the first passage at or after a position', () => {
    fc.assert(
      fc.property(sorted, fc.nat(70), (passages, position) => {
        const naive = passages.findIndex((one) => one.start >= position);
        expect(firstStartingAt(passages, position)).toBe(naive < 0 ? passages.length : naive);
      }),
    );
  });
});
