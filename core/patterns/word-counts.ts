import type { Document, Text } from '../model/document';
import type { WordsAsked } from '../model/pattern';
import type { Stretch } from '../model/stretch';
import type { Narrowing } from '../queries/narrowing';
import { stemsOf } from '../words/stems';
import { stopWordsOf } from '../words/stop-words';
import { foldedBy, type IndexedWords } from '../words/vocabulary';
import { isWhole, type GroupAxis } from './axis';
import { keyness, type Keyness } from './keyness';
import { PairNumbers } from './pair-numbers';

/** A word, or a run of words, and how often it is found. */
export interface WordCount {
  readonly words: string;
  readonly count: number;
  readonly documents: number;
  /** Where one group is held against the others: how often it is in those, and how far it stands out. */
  readonly against?: Keyness & { readonly count: number };
}

/** Words counted, the most frequent or the most typical first. */
export interface WordCounts {
  readonly rows: readonly WordCount[];
  /** Words there are, or runs, stop words among them; of the group where there is one. */
  readonly total: number;
  readonly others: number;
  /** There are more than are given. */
  readonly more: boolean;
}

/** Words given at most: more are not looked through by a person. */
const MOST = 5_000;

/**
 * Counts words, or runs of words within a paragraph, in what a scope leaves of the texts; labels of speakers are not
 * counted. Capitals are folded, accents are not. Forms of a word count as one by their Snowball stem, under the form that
 * is found most. Runs that begin or end with a word that is left out are left out.
 */
export class WordCounter {
  /** Of each number of the vocabulary the number of what it counts as, and whether it is left out. */
  private classes = new Int32Array(0);
  private leftOut = new Uint8Array(0);
  private readonly classNumbers = new Map<string, number>();
  /** The forms of a class, and how often each is found: of the vocabulary's numbers. */
  private formCounts = new Float64Array(0);
  private readonly members = new Map<number, number[]>();
  /** Numbers of runs by that of the run without its last word, and that word. */
  private readonly runs = new PairNumbers();
  private readonly runWords: (Int32Array | null)[] = [];
  private counts = new Float64Array(1_024);
  private otherCounts = new Float64Array(1_024);
  private documents = new Uint32Array(1_024);
  private lastDocument = new Int32Array(1_024).fill(-1);
  private document = 0;
  private total = 0;
  private others = 0;
  private readonly isLeftOut: (word: string) => boolean;
  private readonly classOf: (word: string) => string;

  /** @param groups of one of which, by its place, the words are held against all others; null to count all alike */
  constructor(
    private readonly asked: WordsAsked,
    private readonly words: IndexedWords,
    private readonly narrowing: Narrowing,
    private readonly groups: { readonly axis: GroupAxis; readonly at: number } | null,
    language: string,
  ) {
    const stop = asked.withoutStopWords ? stopWordsOf(language) : null;
    const [kept, left] = [new Set(asked.kept), new Set(asked.left)];
    this.isLeftOut = (word) => left.has(word) || (stop !== null && stop(word) && !kept.has(word));
    const stems = asked.forms ? stemsOf(language) : null;
    this.classOf = stems ? (word) => stems.of(word) : (word) => word;
  }

  add(document: Document, text: Text): void {
    const { words, starts, paragraphs } = this.words.of(text);
    this.learn();
    const pieces = this.piecesOf(document, text);
    this.document++;
    let piece = 0;
    for (let paragraph = 0; paragraph + 1 < paragraphs.length; paragraph++) {
      const [first, last] = [paragraphs[paragraph]!, paragraphs[paragraph + 1]!];
      if (pieces === null) this.count(words, first, last, true);
      else {
        // a paragraph can be cut where an answer begins or a case's part ends
        for (let at = first; at < last;) {
          while (piece < pieces.length && pieces[piece]!.end <= starts[at]!) piece++;
          const here = pieces[piece];
          if (!here) return;
          let to = at;
          while (to < last && starts[to]! < here.end) to++;
          if (starts[at]! < here.start) {
            while (at < last && starts[at]! < here.start) at++;
            continue;
          }
          this.count(words, at, to, here.own);
          at = to;
        }
      }
    }
  }

  result(): WordCounts {
    const { run, minimum } = this.asked;
    const found: (Omit<WordCount, 'words'> & { readonly at: number })[] = [];
    const known = run === 1 ? this.classNumbers.size : this.runWords.length;
    // the vocabulary is that of the whole study: what was never found here has no room among the counts
    for (let at = 0; at < Math.min(known, this.counts.length); at++) {
      const [count, other] = [this.counts[at]!, this.otherCounts[at]!];
      if (count + other === 0 || count < minimum) continue;
      const against = this.groups && { count: other, ...keyness(count, other, this.total, this.others) };
      // of the others' words nothing is typical of the group
      if (against && against.ratio <= 0) continue;
      found.push({ at, count, documents: this.documents[at]!, ...(against && { against }) });
    }
    found.sort((a, b) => (b.against?.likelihood ?? b.count) - (a.against?.likelihood ?? a.count) || b.count - a.count);
    return {
      rows: found.slice(0, MOST).map(({ at, ...row }) => ({ words: this.nameOf(at), ...row })),
      total: this.total,
      others: this.others,
      more: found.length > MOST,
    };
  }

  /** Counts the words of a stretch, or the runs in it. */
  private count(words: Uint32Array, from: number, to: number, own: boolean): void {
    const { run } = this.asked;
    if (run === 1) {
      for (let at = from; at < to; at++) {
        const word = words[at]!;
        if (this.leftOut[word] === 0) this.found(this.classes[word]!, own, word);
      }
      if (own) this.total += to - from;
      else this.others += to - from;
      return;
    }
    for (let at = from; at < to; at++) this.formCounts[words[at]!]!++;
    for (let at = from; at + run <= to; at++) {
      if (own) this.total++;
      else this.others++;
      if (this.leftOut[words[at]!] === 1 || this.leftOut[words[at + run - 1]!] === 1) continue;
      this.found(this.runOf(words, at), own, -1);
    }
  }

  private found(one: number, own: boolean, word: number): void {
    if (one >= this.counts.length) this.grow(one);
    if (own) this.counts[one]!++;
    else this.otherCounts[one]!++;
    if (word >= 0) this.formCounts[word]!++;
    if (own && this.lastDocument[one] !== this.document) {
      this.lastDocument[one] = this.document;
      this.documents[one]!++;
    }
  }

  /** The number of a run of classes, given when it is first met: each word leads from one run to the next longer. */
  private runOf(words: Uint32Array, at: number): number {
    const { run } = this.asked;
    // a run of one is told from longer ones by its sign
    let number = -1 - this.classes[words[at]!]!;
    for (let nth = 1; nth < run; nth++) number = this.runs.of(number, this.classes[words[at + nth]!]!);
    while (this.runWords.length <= number) this.runWords.push(null);
    this.runWords[number] ??= Int32Array.from({ length: run }, (_, nth) => this.classes[words[at + nth]!]!);
    return number;
  }

  private grow(one: number): void {
    const size = Math.max(one + 1, this.counts.length * 2);
    const wider = <A extends Float64Array | Uint32Array | Int32Array>(before: A, after: A): A => {
      after.set(before);
      return after;
    };
    this.counts = wider(this.counts, new Float64Array(size));
    this.otherCounts = wider(this.otherCounts, new Float64Array(size));
    this.documents = wider(this.documents, new Uint32Array(size));
    this.lastDocument = wider(this.lastDocument, new Int32Array(size).fill(-1));
  }

  /** Takes in what the vocabulary has come to know. */
  private learn(): void {
    const { words } = this.words.vocabulary;
    const before = this.classes.length;
    if (words.length === before) return;
    const [classes, leftOut, forms] = [new Int32Array(words.length), new Uint8Array(words.length), new Float64Array(words.length)];
    classes.set(this.classes);
    leftOut.set(this.leftOut);
    forms.set(this.formCounts);
    for (let word = before; word < words.length; word++) {
      const folded = foldedBy(words[word]!, { capitals: false, accents: true });
      if (this.isLeftOut(folded)) leftOut[word] = 1;
      const name = this.classOf(folded);
      let number = this.classNumbers.get(name);
      if (number === undefined) this.classNumbers.set(name, (number = this.classNumbers.size));
      classes[word] = number;
      const members = this.members.get(number);
      if (members) members.push(word);
      else this.members.set(number, [word]);
    }
    [this.classes, this.leftOut, this.formCounts] = [classes, leftOut, forms];
  }

  private nameOf(one: number): string {
    if (this.asked.run === 1) return this.formOf(one);
    return [...this.runWords[one]!].map((each) => this.formOf(each)).join(' ');
  }

  /** The form of a class that is found most. */
  private formOf(one: number): string {
    const members = this.members.get(one)!;
    const most = members.reduce((best, word) => (this.formCounts[word]! > this.formCounts[best]! ? word : best), members[0]!);
    return foldedBy(this.words.vocabulary.words[most]!, { capitals: false, accents: true });
  }

  /** What of a document counts, and whether for the group or for the others; null where all of it does, for one. */
  private piecesOf(document: Document, text: Text): (Stretch & { readonly own: boolean })[] | null {
    if (!this.groups && this.narrowing.isEverything) return null;
    const groups = this.groups?.axis.of({ document, spoken: text });
    const isOwn = (piece: Stretch): boolean =>
      groups === undefined || (isWhole(groups) ? groups : groups.at(piece)).includes(this.groups!.at);
    const pieces: { start: number; end: number; own: boolean }[] = [];
    for (const piece of this.narrowing.piecesIn(document, text)) {
      const [before, own] = [pieces.at(-1), isOwn(piece)];
      // a run goes over where another case's part begins, if both count alike
      if (before && before.end === piece.start && before.own === own) before.end = piece.end;
      else pieces.push({ start: piece.start, end: piece.end, own });
    }
    return pieces;
  }
}
