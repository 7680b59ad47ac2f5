import type { Id } from '../model/ids';
import type { PassageColumns } from './columns';

/**
 * Numbers of codes, given in the order in which they are first met and kept as long as the program runs. Counting
 * hundreds of thousands of codings looks nothing up by id: each document's codes are numbered once.
 */
const ids: Id[] = [];
const numbers = new Map<Id, number>();
const ofColumns = new WeakMap<PassageColumns, Int32Array>();

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

/** Numbers of a document's codes, in the order of its own list of them. */
export function codeNumbersOf(columns: PassageColumns): Int32Array {
  let known = ofColumns.get(columns);
  if (!known) ofColumns.set(columns, (known = Int32Array.from(columns.codes, codeNumber)));
  return known;
}
