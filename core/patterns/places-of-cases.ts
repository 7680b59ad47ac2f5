import type { Text } from '../model/document';
import type { CasesOfRows } from '../passages/case-finder';
import { wordsByPlace } from '../passages/coverage';
import type { Within } from '../queries/narrowing';

/** What of a document is in a scope, by whose it is: by the lists of cases that its places belong to. */
export interface PlacesOfCases {
  /** One place of each list of which any is in the scope. */
  readonly one: readonly number[];
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

function onesOf({ listOf }: CasesOfRows, { rows }: Within): number[] {
  const ones = new Map<number, number>();
  for (let row = 0; row < rows.length; row++) if (rows[row]) ones.set(listOf[row]!, row);
  return [...ones.values()];
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
