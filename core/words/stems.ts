import { newStemmer, type Stemmer } from 'snowball-stemmers';

/** The Snowball stemmer of each language (BCP 47, without its region). */
const STEMMERS: Readonly<Record<string, string>> = {
  ar: 'arabic',
  ca: 'catalan',
  cs: 'czech',
  da: 'danish',
  de: 'german',
  en: 'english',
  es: 'spanish',
  eu: 'basque',
  fi: 'finnish',
  fr: 'french',
  ga: 'irish',
  hu: 'hungarian',
  hy: 'armenian',
  it: 'italian',
  nb: 'norwegian',
  nl: 'dutch',
  nn: 'norwegian',
  no: 'norwegian',
  pt: 'portuguese',
  ro: 'romanian',
  ru: 'russian',
  sl: 'slovene',
  sv: 'swedish',
  ta: 'tamil',
  tr: 'turkish',
};

/** Languages whose stemmers change how a word begins: their stems are not looked for by their first letters. */
const CHANGING = new Set(['ar', 'ga', 'ta']);

const stemmers = new Map<string, Stemmer>();

/** How word forms of a language are brought to one stem. */
export interface Stems {
  readonly of: (word: string) => string;
  /** Letters that all forms of a word begin with alike; 0 where they may begin otherwise. */
  readonly alike: number;
}

/**
 * Brings word forms to their stem by the Snowball algorithm of a language (Porter 2001; `snowball-stemmers`).
 * @param language BCP 47 tag
 * @returns null where there is none for the language
 */
export function stemsOf(language: string): Stems | null {
  const [short = ''] = language.toLowerCase().split('-');
  const name = STEMMERS[short];
  if (!name) return null;
  let stemmer = stemmers.get(name);
  if (!stemmer) stemmers.set(name, (stemmer = newStemmer(name)));
  const known = stemmer;
  return { of: (word) => known.stem(word), alike: CHANGING.has(short) ? 0 : 2 };
}
