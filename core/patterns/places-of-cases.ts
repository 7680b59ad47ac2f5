import type { Text } from '../model/document';
import type { CasesOfRows } from '../passages/case-finder';
import { wordsByPlace } from '../passages/coverage';
import type { Within } from '../queries/narrowing';

/** What of a document is in a scope, by whose it is: by the lists of cases that its places belong to. */
export interface PlacesOfCases {
  /** A place of each list that is in the scope; -1 where none is. */
  readonly one: Int32Array;
  /** Words in the places of each list; null where they are not known, or a place cuts a word, which then is in two of them. */
  readonly words: Float64Array | null;
}

interface Kept {
  readonly rows: Within['rows'];
  readonly text: Text | null;
  readonly found: PlacesOfCases;
}

const kept = new WeakMap<CasesOfRows, Kept>();

/** Sums up a document that has hundreds of places but few people. Remembered with what says whose they are. @param within the places that `cases` was asked for */
export function placesOfCases(cases: CasesOfRows, within: Within, text: Text | null): PlacesOfCases {
  const known = kept.get(cases);
  if (known?.rows === within.rows && known.text === text) return known.found;
  const found = { one: onesOf(cases, within), words: text && wordsOf(cases, within, text) };
  kept.set(cases, { rows: within.rows, text, found });
  return found;
}

function onesOf({ lists, listOf }: CasesOfRows, { rows }: Within): Int32Array {
  const one = new Int32Array(lists.length).fill(-1);
  for (let row = rows.length - 1; row >= 0; row--) if (rows[row]) one[listOf[row]!] = row;
  return one;
}

function wordsOf({ lists, listOf }: CasesOfRows, { places, rows }: Within, text: Text): Float64Array | null {
  const { from, to } = wordsByPlace(text, places);
  const words = new Float64Array(lists.length);
  for (let row = 0, reached = 0; row < rows.length; row++) {
    if (from[row]! < reached) return null;
    reached = Math.max(reached, to[row]!);
    if (rows[row]) words[listOf[row]!]! += to[row]! - from[row]!;
  }
  return words;
}
