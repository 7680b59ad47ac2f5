import { analyse } from 'chardet';

/** An encoding that a text may be written in, and words in which it shows. */
export interface EncodingSample {
  readonly encoding: string;
  readonly words: readonly string[];
}

/** What the bytes of a text that is not Unicode may be written in, the likeliest first. */
export interface EncodingGuess {
  readonly samples: readonly EncodingSample[];
  /** Whether the first clearly fits better than the others. */
  readonly clear: boolean;
}

/** The detector's names, as the WHATWG Encoding Standard calls what browsers read under them. */
const STANDARD: Readonly<Record<string, string>> = {
  'ISO-8859-1': 'windows-1252',
  'ISO-8859-5': 'iso-8859-5',
  'ISO-8859-6': 'windows-1256',
  'ISO-8859-7': 'windows-1253',
  'ISO-8859-8': 'windows-1255',
  'ISO-8859-9': 'windows-1254',
};
/** What the detector does not know, or not in a few words, with how much is believed of it, 0 to 100. */
const ALSO: readonly (readonly [encoding: string, confidence: number])[] = [
  ['windows-1252', 20],
  ['macintosh', 16],
  ['windows-1250', 8],
  ['windows-1251', 8],
  ['koi8-r', 8],
];
/** From this confidence on an encoding fits, where the next has no more than this share of it. */
const FITS = 15;
const NEXT = 0.82;
/** Bytes that are looked at: whole lines of them. */
const LOOKED_AT = 200_000;
/** Encodings and words that are shown. */
const SHOWN = 4;
const WORDS = 6;

/**
 * Guesses what bytes that are not Unicode are written in: by a detector that knows the frequent letters of many languages,
 * and by what is odd in the words that come out. @param known encodings on offer
 */
export function guessEncoding(bytes: Uint8Array, known: readonly string[]): EncodingGuess {
  const head = bytes.subarray(0, LOOKED_AT);
  const confidence = new Map(ALSO);
  for (const { name, confidence: found } of analyse(head)) {
    const encoding = (STANDARD[name] ?? name).toLowerCase();
    confidence.set(encoding, Math.max(found, confidence.get(encoding) ?? 0));
  }
  const seen = new Set<string>();
  const fitting = [...confidence]
    .filter(([encoding]) => known.includes(encoding) && !encoding.startsWith('utf'))
    .flatMap(([encoding, believed]) => {
      const words = wordsIn(head, encoding);
      return words ? [{ encoding, words, score: believed * (1 - oddness(words)) ** 2 }] : [];
    })
    .sort((a, b) => b.score - a.score)
    // two that read the same are one
    .filter(({ words }) => !seen.has(words.join(' ')) && seen.add(words.join(' ')))
    .slice(0, SHOWN)
    // what cannot be written so may come late
    .filter(({ encoding }) => head.length === bytes.length || decoded(bytes, encoding) !== null);
  const [first, second] = fitting;
  return {
    samples: fitting.map(({ encoding, words }) => ({
      encoding,
      words: [...new Set(words)].slice(0, WORDS).map((word) => word.slice(0, 40)),
    })),
    clear: first !== undefined && first.score >= FITS && (second?.score ?? 0) <= first.score * NEXT,
  };
}

/** Bytes that no text has. */
const CONTROL = /[^\P{Cc}\t\n\v\f\r]/u;
const BEYOND_ASCII = /\P{ASCII}/u;

/** The words that have signs beyond ASCII, or null where the bytes cannot be written so. */
function wordsIn(head: Uint8Array, encoding: string): string[] | null {
  const text = decoded(head, encoding, true);
  if (text === null || CONTROL.test(text)) return null;
  const beyond = (text.match(/[^\s\p{P}\p{Sc}]+/gu) ?? []).filter((word) => BEYOND_ASCII.test(word));
  return beyond.length > 0 ? beyond : (text.match(/\S+/g) ?? []).filter((word) => BEYOND_ASCII.test(word));
}

/** The text, or null where the bytes cannot be written so. @param cut the end may be in the middle of a sign */
function decoded(bytes: Uint8Array, encoding: string, cut = false): string | null {
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes, { stream: cut });
  } catch {
    return null;
  }
}

const SCRIPTS = [/\p{Script=Latin}/u, /\p{Script=Cyrillic}/u, /\p{Script=Greek}/u, /\p{Script=Hebrew}/u, /\p{Script=Arabic}/u];
/** A mark that stands on nothing; a sign or a fraction within a word or before it; a capital in the midst of small letters. */
const ODD = /^\p{M}|[\p{No}\p{Sk}\p{So}\p{Sm}]\p{L}|[\p{L}\p{M}][^\p{L}\p{M}\p{N}\p{P}]+\p{L}|\p{Ll}\p{Lu}|\p{L}(?!\p{ASCII})\p{Lu}\p{Ll}/u;

/** The share of words that no language would write so, 0 to 1. */
function oddness(words: readonly string[]): number {
  if (words.length === 0) return 0;
  const odd = words.filter((word) => ODD.test(word) || SCRIPTS.filter((script) => script.test(word)).length > 1);
  return odd.length / words.length;
}
