import fc from 'fast-check';
import { somePassages } from '../testing/make';
import { inReadingOrder } from './columns';
import { cutSegments, layThreads } from './threads';
import { overlaps } from './relations';

const DOCUMENT = '00000000-0000-4000-8000-00000000000d';
const sorted = somePassages(DOCUMENT).map((passages) => [...passages].sort(inReadingOrder));

describe('threads under the words', () => {
  it('never lie on each other in a lane', () => {
    fc.assert(
      fc.property(sorted, (passages) => {
        const threads = layThreads(passages);
        threads.forEach((a, i) => threads.slice(i + 1).forEach((b) => expect(a.lane === b.lane && overlaps(a, b)).toBeFalse()));
      }),
    );
  });

  it('need no more lanes than overlap at the busiest position', () => {
    fc.assert(
      fc.property(sorted, (passages) => {
        const threads = layThreads(passages);
        let busiest = 0;
        for (let at = 0; at < 60; at++)
          busiest = Math.max(busiest, threads.filter((thread) => thread.start <= at && at < thread.end).length);
        expect(Math.max(-1, ...threads.map((thread) => thread.lane)) + 1).toBe(busiest);
      }),
    );
  });

  it('are one for a code that two coders gave one passage, and leave out codes that are not shown', () => {
    const passage = {
      id: DOCUMENT,
      documentId: DOCUMENT,
      start: 0,
      end: 5,
      comment: '',
      coderId: 'a',
      createdAt: 0,
      codings: [
        { codeId: 'x', coderId: 'a', createdAt: 0 },
        { codeId: 'x', coderId: 'b', createdAt: 0 },
        { codeId: 'y', coderId: 'a', createdAt: 0 },
      ],
    };
    expect(layThreads([passage]).map((thread) => thread.codeId)).toEqual(['x', 'y']);
    expect(layThreads([passage], (id) => id === 'y').map((thread) => thread.lane)).toEqual([0]);
  });

  it('are cut into segments that show at each position the threads that run there', () => {
    fc.assert(
      fc.property(sorted, (passages) => {
        const threads = layThreads(passages);
        const segments = cutSegments(threads);
        for (let at = 0; at < 60; at++) {
          const running = threads.filter((thread) => thread.start <= at && at < thread.end);
          const here = segments.filter((segment) => segment.start <= at && at < segment.end);
          expect(here.length).toBe(running.length > 0 ? 1 : 0);
          if (here[0]) expect(new Set(here[0].threads)).toEqual(new Set(running));
        }
      }),
    );
  });
});
