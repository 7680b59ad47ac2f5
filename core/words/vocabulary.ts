import type { Text } from '../model/document';
import { eachWord } from './tokens';

/** The words of a text as numbers of a vocabulary, in their order; the labels of speakers are left out. */
export interface IndexedText {
  readonly words: Uint32Array;
  /** Where each begins. */
  readonly starts: Uint32Array;
  /** Of each paragraph the place of its first word, and at the end how many there are. */
  readonly paragraphs: Uint32Array;
}

/** How words are held against each other. */
export interface Folding {
  /** Capitals count. */
  readonly capitals: boolean;
  /** Accents count. */
  readonly accents: boolean;
}

/** Every word that texts were met with, each once and with a number: what is asked of words is asked of these, not of the texts. */
export class Vocabulary {
  private readonly numbers = new Map<string, number>();
  readonly words: string[] = [];
  private readonly folded = new Map<string, string[]>();

  index({ text, paragraphs }: Text): IndexedText {
    const found: number[] = [];
    const starts: number[] = [];
    const firsts = new Uint32Array(paragraphs.length + 1);
    paragraphs.forEach(({ body, end }, at) => {
      firsts[at] = found.length;
      eachWord(text, body, end, (from, to) => {
        found.push(this.numberOf(text.slice(from, to)));
        starts.push(from);
      });
    });
    firsts[paragraphs.length] = found.length;
    return { words: Uint32Array.from(found), starts: Uint32Array.from(starts), paragraphs: firsts };
  }

  private numberOf(word: string): number {
    let number = this.numbers.get(word);
    if (number === undefined) this.numbers.set(word, (number = this.words.push(word) - 1));
    return number;
  }

  /** All words as they are compared. Those that came since the last time are added. */
  foldedWords(folding: Folding): readonly string[] {
    const key = `${folding.capitals} ${folding.accents}`;
    let folded = this.folded.get(key);
    if (!folded) this.folded.set(key, (folded = []));
    for (let at = folded.length; at < this.words.length; at++) folded.push(foldedBy(this.words[at]!, folding));
    return folded;
  }
}

/** Texts as they were indexed, each as long as it is in memory, with the vocabulary they share. */
export class IndexedWords {
  readonly vocabulary = new Vocabulary();
  private readonly indexed = new WeakMap<Text, IndexedText>();

  of(text: Text): IndexedText {
    let index = this.indexed.get(text);
    if (!index) this.indexed.set(text, (index = this.vocabulary.index(text)));
    return index;
  }
}

/** A word as it is compared; apostrophes and hyphens of all shapes are one. */
export function foldedBy(word: string, { capitals, accents }: Folding): string {
  const plain = word.replaceAll('’', "'").replace(/[‐‑]/g, '-');
  const cased = capitals ? plain : plain.toLowerCase();
  return accents ? cased.normalize('NFC') : cased.normalize('NFD').replace(/\p{M}/gu, '');
}
