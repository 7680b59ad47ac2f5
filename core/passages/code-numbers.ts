import type { Id } from '../model/ids';

/**
 * Numbers of codes, given in the order in which they are first met and kept as long as the program runs. Counting
 * hundreds of thousands of codings looks nothing up by id: each document's codes are numbered once.
 */
const ids: Id[] = [];
const numbers = new Map<Id, number>();
const ofLists = new WeakMap<readonly Id[], Int32Array>();

/** The number of a code; the same code has the same number always. */
export function codeNumber(id: Id): number {
  let number = numbers.get(id);
  if (number === undefined) numbers.set(id, (number = ids.push(id) - 1));
  return number;
}

/** The code of a number. */
export const codeOfNumber = (number: number): Id => ids[number]!;

/** How many numbers have been given: each is smaller than this. */
export const numbersGiven = (): number => ids.length;

/** Numbers of the codes of a document's own list, in its order. Remembered with the list. */
export function codeNumbersOf(codes: readonly Id[]): Int32Array {
  let known = ofLists.get(codes);
  if (!known) ofLists.set(codes, (known = Int32Array.from(codes, codeNumber)));
  return known;
}

/**
 * Remembers the numbers of a list that came from another by leaving some out and adding others at its end, without
 * looking up those that stayed: after a join each of a thousand documents has such a list.
 * @param gone places in the list before that were left out, ascending
 */
export function numberAfter(codes: readonly Id[], before: readonly Id[], gone: readonly number[]): void {
  const known = ofLists.get(before);
  if (!known) return;
  const numbered = new Int32Array(codes.length);
  let to = 0;
  for (let from = 0, skip = 0; from < known.length; from++) {
    if (gone[skip] === from) skip++;
    else numbered[to++] = known[from]!;
  }
  for (; to < codes.length; to++) numbered[to] = codeNumber(codes[to]!);
  ofLists.set(codes, numbered);
}
