declare module 'snowball-stemmers' {
  export interface Stemmer {
    stem(word: string): string;
  }
  /** @throws Error where there is no stemmer of the name */
  export function newStemmer(name: string): Stemmer;
}
