import type { FoundHit } from './found-hit';
import { fingerprint } from '../text/fingerprint';

/** Characters on either side by which a hit is known. */
const BESIDE = 20;

/**
 * What a hit is known by, so that it can be said later which are new: its words and what stands beside them, not where that
 * is. So it is the same after its text was corrected elsewhere, or its document was put together with another.
 */
const keyOfHit = ({ before, said, after }: FoundHit): string => [before.slice(-BESIDE), said, after.slice(0, BESIDE)].join('\u0000');

/** The keys of hits, those that are alike counted through: the second is new where one was seen. */
export function keysOfHits(hits: readonly FoundHit[]): string[] {
  const times = new Map<number, number>();
  return hits.map((hit) => {
    const key = keyOfHit(hit);
    const print = fingerprint(key);
    const nth = (times.get(print) ?? 0) + 1;
    times.set(print, nth);
    return nth === 1 ? key : `${key}\u0000${nth}`;
  });
}
