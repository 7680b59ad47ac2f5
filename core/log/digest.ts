import type { JournalEntry } from '../change/journal-schema';
import { fold } from '../text/fold';
import type { Id } from '../model/ids';
import { kindOf, type LogKind } from './group-log';
import type { LogWish } from './wish';

/** Entries of the journal that one digest sums up: those numbered `block * DIGEST_SPAN + 1` to `(block + 1) * DIGEST_SPAN`. */
export const DIGEST_SPAN = 128;

/** Bits of the filter of letters: about one in six is set by so many sentences, so that a longer word is hardly ever taken for there. */
const BITS = 8_192;

/**
 * What a block of journal entries has in it, coarsely: enough to say of most blocks that nothing wanted is there,
 * without reading them. Entries never change once written, so a digest never grows old.
 */
export interface LogDigest {
  readonly block: number;
  readonly coders: readonly Id[];
  readonly kinds: readonly LogKind[];
  /** When the first and the last entry were made, ms since 1970. */
  readonly from: number;
  readonly to: number;
  /**
   * A Bloom filter (Bloom 1970, doi:10.1145/362686.362692) of every two and three characters that follow each other
   * in a sentence, folded as in every search.
   */
  readonly letters: Uint8Array;
}

/** The number of the block that an entry is in. */
export const blockOf = (seq: number): number => Math.floor((seq - 1) / DIGEST_SPAN);

/** Sums up a whole block of entries, in any order. */
export function digestOf(block: number, entries: readonly JournalEntry[]): LogDigest {
  const letters = new Uint8Array(BITS / 8);
  for (const entry of entries) for (const bit of bitsOf(fold(entry.sentence))) letters[bit >> 3]! |= 1 << (bit & 7);
  return {
    block,
    coders: [...new Set(entries.map((entry) => entry.coderId))],
    kinds: [...new Set(entries.map(kindOf))],
    from: entries.reduce((least, entry) => Math.min(least, entry.at), Infinity),
    to: entries.reduce((most, entry) => Math.max(most, entry.at), -Infinity),
    letters,
  };
}

/**
 * Whether something wanted may be in a block, to be asked of thousands of them. Never false where it is; now and then
 * true where it is not.
 */
export function mayHold({ coderId, kind, words = [] }: LogWish): (digest: LogDigest) => boolean {
  const bits = [...new Set(words.flatMap(bitsOf))];
  return ({ coders, kinds, letters }) =>
    (!coderId || coders.includes(coderId)) &&
    (!kind || kinds.includes(kind)) &&
    bits.every((bit) => (letters[bit >> 3]! & (1 << (bit & 7))) !== 0);
}

/** The bits that stand for the characters of some words. */
function bitsOf(folded: string): number[] {
  const bits: number[] = [];
  for (let at = 1; at < folded.length; at++) {
    const two = Math.imul(folded.charCodeAt(at - 1) + 1, 0x9e3779b1) ^ Math.imul(folded.charCodeAt(at) + 1, 0x85ebca6b);
    bits.push((two >>> 15) % BITS);
    if (at < 2) continue;
    const three = Math.imul(two ^ (folded.charCodeAt(at - 2) + 1), 0xc2b2ae35);
    bits.push((three >>> 17) % BITS, ((three ^ (three << 13)) >>> 16) % BITS);
  }
  return bits;
}
