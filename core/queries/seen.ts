import type { Id } from '../model/ids';
import type { SeenAnswer } from '../model/query';
import { fingerprint } from '../text/fingerprint';

/** Eight hexadecimal digits of a passage's id: one in four thousand million is taken for another. */
const signOf = (passageId: Id): string => fingerprint(passageId).toString(16).padStart(8, '0');

/** What is remembered of an answer. */
export const seenOf = (passageIds: readonly Id[]): Omit<SeenAnswer, 'at'> => ({
  passages: passageIds.length,
  signs: passageIds.map(signOf).sort().join(''),
});

/** What has changed since an answer was seen. */
export interface SinceSeen {
  /** Ids of passages that it had not. */
  readonly fresh: ReadonlySet<Id>;
  /** How many passages it had that answer no more. */
  readonly gone: number;
}

/** Holds an answer against the one that was seen. */
export function sinceSeen(passageIds: readonly Id[], seen: SeenAnswer): SinceSeen {
  const before = new Set<string>();
  for (let at = 0; at < seen.signs.length; at += 8) before.add(seen.signs.slice(at, at + 8));
  const fresh = new Set(passageIds.filter((id) => !before.has(signOf(id))));
  return { fresh, gone: seen.passages - (passageIds.length - fresh.size) };
}
