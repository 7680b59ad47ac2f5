import type { Text } from '../model/document';
import type { Stretch } from '../model/stretch';
import type { HitUnit, WordSearch } from '../model/word-search';
import { wordsWithin } from '../text/stretch';
import { sentencesIn, unitsOf } from '../text/units';
import { ExpressionError, readExpression, type WordExpression, type WordListsByName } from './expression';
import { stemsOf } from './stems';
import { eachWord } from './tokens';
import { foldedBy, type Folding, type IndexedText, type Vocabulary } from './vocabulary';

/** A place where words were found: the unit that was asked for, and the words in it. */
export interface WordHit extends Stretch {
  readonly words: readonly Stretch[];
}

/** Where words stand in a text: from the nth word up to, and not with, the mth. */
interface Run {
  readonly from: number;
  readonly to: number;
}

type Finder = (index: IndexedText) => readonly Run[];

type Compiled =
  { readonly find: Finder } | { readonly all: readonly Compiled[] } | { readonly any: readonly Compiled[] } | { readonly not: Compiled };

/**
 * A search made ready to look through one text after another. Words are compared with the vocabulary once; in the texts
 * only numbers are compared.
 */
export class WordFinder {
  private readonly compiled: Compiled;
  private readonly unit: HitUnit;

  /**
   * @param vocabulary the one that texts are indexed with
   * @param language BCP 47 tag of the study, for sentences and word forms
   * @param lists word lists of the study, by name
   * @throws ExpressionError where what was typed cannot be read, or asks for nothing
   */
  constructor(
    search: WordSearch,
    private readonly vocabulary: Vocabulary,
    private readonly language: string,
    lists?: WordListsByName,
  ) {
    const expression = readExpression(search.typed, lists);
    if (!expression) throw new ExpressionError('Write words to look for.', 0);
    this.unit = search.unit;
    if (search.unit === 'words' && !findsWords(expression))
      throw new ExpressionError('Only “not” is left: write a word to find as well, or look for whole units.', 0);
    this.compiled = this.compile(expression, search);
  }

  /** Places in a text, ascending. */
  in(text: Text, index: IndexedText): WordHit[] {
    const found = new Map<Finder, readonly Run[]>();
    const runsOf = (find: Finder): readonly Run[] => {
      let runs = found.get(find);
      if (!runs) found.set(find, (runs = find(index)));
      return runs;
    };
    const finders = findersIn(this.compiled);
    // nothing to find, and nothing that only leaves out: most texts of a rare word
    if (finders.every((find) => runsOf(find).length === 0) && !holds(this.compiled, () => false)) return [];
    const endOf = (run: Run): number => this.endOf(index, run);
    const stretch = (run: Run): Stretch => ({ start: index.starts[run.from]!, end: endOf(run) });
    const wanted = wantedIn(this.compiled);
    if (this.unit === 'words' && 'find' in this.compiled)
      return joined(
        runsOf(this.compiled.find)
          .filter((run) => inOneParagraph(index, run))
          .map(stretch),
      ).map(hitOf);
    const hits: WordHit[] = [];
    // where nothing is found nothing can hold, unless only absence is asked for
    const anywhere = holds(this.compiled, () => false);
    const places = anywhere ? null : paragraphsWith(finders.flatMap(runsOf), index);
    for (const unit of this.unitsOf(text, places)) {
      const within = (find: Finder): Run[] => runsWithin(runsOf(find), index, unit, endOf);
      if (!holds(this.compiled, (find) => within(find).length > 0)) continue;
      const words = joined(wanted.flatMap((find) => within(find).map(stretch)));
      if (this.unit === 'words') for (const one of words) hits.push(hitOf(one));
      else hits.push({ ...unit, words });
    }
    return hits;
  }

  private endOf({ words, starts }: IndexedText, { to }: Run): number {
    return starts[to - 1]! + this.vocabulary.words[words[to - 1]!]!.length;
  }

  /** Whether what is looked for holds within each of some stretches of a text, each taken as the unit. */
  holdsIn(index: IndexedText, stretches: readonly Stretch[]): boolean[] {
    const finders = new Map(findersIn(this.compiled).map((find) => [find, find(index)]));
    const endOf = (run: Run): number => this.endOf(index, run);
    return stretches.map((one) => holds(this.compiled, (find) => runsWithin(finders.get(find)!, index, one, endOf).length > 0));
  }

  /** Conditions between words hold within the unit; of single words within their paragraph. @param places paragraphs to look at; null for all */
  private unitsOf(text: Text, places: ReadonlySet<number> | null): readonly Stretch[] {
    return hitUnitsIn(text, this.unit, this.language, places);
  }

  private compile(expression: WordExpression, search: WordSearch): Compiled {
    if ('all' in expression) return { all: expression.all.map((one) => this.compile(one, search)) };
    if ('any' in expression) return { any: expression.any.map((one) => this.compile(one, search)) };
    if ('not' in expression) return { not: this.compile(expression.not, search) };
    return { find: this.finderOf(expression, search) };
  }

  private finderOf(expression: WordExpression, search: WordSearch): Finder {
    if ('phrase' in expression) return this.phraseFinder(expression.phrase, search);
    if ('near' in expression) {
      const [one, other] = expression.near.map((part) => this.finderOf(part, search)) as [Finder, Finder];
      return (index) => nearby(one(index), other(index), expression.within);
    }
    if ('any' in expression) {
      const some = expression.any.map((part) => this.finderOf(part, search));
      return (index) => some.flatMap((find) => find(index)).sort((a, b) => a.from - b.from || a.to - b.to);
    }
    throw new ExpressionError('“within … of” stands between words, phrases, or words with “or” between them.', 0);
  }

  /** Words that follow each other in a paragraph. A word that was typed may be several in a script without spaces. */
  private phraseFinder(typed: readonly string[], search: WordSearch): Finder {
    const likes = typed.flatMap((word) => partsOf(word)).map((word) => new WordsLike(word, search, this.vocabulary, this.language));
    if (likes.length === 0) throw new ExpressionError(`“${typed.join(' ')}” holds no letter or digit to look for.`, 0);
    return (index) => {
      const [first, ...rest] = likes as [WordsLike, ...WordsLike[]];
      const others = rest.map((one) => one.flags());
      const { words, paragraphs } = index;
      const runs: Run[] = [];
      for (let at = first.nextIn(words, 0); at >= 0; at = first.nextIn(words, at + 1)) {
        if (!others.every((flags, nth) => flags[words[at + nth + 1]!] === 1)) continue;
        if (others.length > 0 && at + others.length >= paragraphs[paragraphOf(paragraphs, at) + 1]!) continue;
        runs.push({ from: at, to: at + likes.length });
      }
      return runs;
    };
  }
}

/** The units that a hit can be in a text; of words by themselves their paragraphs. @param places paragraphs to look at; null for all */
export function hitUnitsIn(text: Text, unit: HitUnit, language: string, places: ReadonlySet<number> | null): readonly Stretch[] {
  if (unit === 'turn') return unitsOf(text, 'turn', language);
  if (unit === 'document') {
    const [first, last] = [text.paragraphs[0], text.paragraphs.at(-1)];
    return first && last ? [{ start: first.body, end: last.end }] : [];
  }
  const looked = places ? text.paragraphs.filter((_, at) => places.has(at)) : text.paragraphs;
  return looked.flatMap((paragraph) =>
    unit === 'sentence' ? sentencesIn(text.text, paragraph, language) : (wordsWithin(text.text, paragraph.body, paragraph.end) ?? []),
  );
}

/** Which words of a vocabulary are the one that was typed: flags that grow with it. */
class WordsLike {
  private known = new Uint8Array(0);
  /** The only such word; -1 where there is none, or more than one. */
  private only = -1;
  private count = 0;
  private readonly folding: Folding;
  private readonly like: (word: string) => boolean;

  constructor(
    typed: string,
    { match, capitals, accents }: WordSearch,
    private readonly vocabulary: Vocabulary,
    language: string,
  ) {
    this.folding = { capitals, accents };
    this.like = likeness(foldedBy(typed, this.folding), match, language);
  }

  flags(): Uint8Array {
    const before = this.known.length;
    if (before === this.vocabulary.words.length) return this.known;
    const words = this.vocabulary.foldedWords(this.folding);
    const flags = new Uint8Array(words.length);
    flags.set(this.known);
    for (let at = before; at < words.length; at++)
      if (this.like(words[at]!)) {
        flags[at] = 1;
        this.only = this.count++ === 0 ? at : -1;
      }
    return (this.known = flags);
  }

  /** The next place, from one on, at which such a word stands; -1 where there is none. */
  nextIn(words: Uint32Array, from: number): number {
    const flags = this.flags();
    if (this.count === 0) return -1;
    // the engine's own search is many times as fast
    if (this.only >= 0) return words.indexOf(this.only, from);
    for (let at = from; at < words.length; at++) if (flags[words[at]!] === 1) return at;
    return -1;
  }
}

/** Whether a word of the vocabulary is the one that was typed. */
function likeness(wanted: string, match: WordSearch['match'], language: string): (word: string) => boolean {
  if (/[*?]/.test(wanted)) {
    const pattern = wanted
      .replace(/[.+^${}()|[\]\\/-]/g, '\\$&')
      .replaceAll('*', '.*')
      .replaceAll('?', '.');
    const expression = new RegExp(match === 'parts of words' ? pattern : `^${pattern}$`, 'su');
    return (word) => expression.test(word);
  }
  if (match === 'parts of words') return (word) => word.includes(wanted);
  const stems = match === 'all forms' ? stemsOf(language) : null;
  if (!stems) return (word) => word === wanted;
  const stem = stems.of(wanted.toLowerCase());
  // as it is folded: where capitals count, they count for how a word begins
  const begins = wanted.slice(0, stems.alike);
  return (word) => word === wanted || (word.slice(0, stems.alike) === begins && stems.of(word.toLowerCase()) === stem);
}

/** The words in what was typed as one; signs that stand for letters belong to them. */
function partsOf(typed: string): string[] {
  const parts: string[] = [];
  // a letter in the place of each sign: then words are found as they are in texts
  const plain = typed.replaceAll('*', 'x').replaceAll('?', 'x');
  eachWord(plain, 0, plain.length, (start, end) => parts.push(typed.slice(start, end)));
  return parts;
}

const findersIn = (one: Compiled): Finder[] =>
  'find' in one ? [one.find] : ('not' in one ? [one.not] : 'all' in one ? one.all : one.any).flatMap(findersIn);

/** What is looked for, not what must be absent. */
const wantedIn = (one: Compiled): Finder[] =>
  'find' in one ? [one.find] : 'not' in one ? [] : ('all' in one ? one.all : one.any).flatMap(wantedIn);

function holds(one: Compiled, has: (find: Finder) => boolean): boolean {
  if ('find' in one) return has(one.find);
  if ('not' in one) return !holds(one.not, has);
  return 'all' in one ? one.all.every((part) => holds(part, has)) : one.any.some((part) => holds(part, has));
}

const findsWords = (one: WordExpression): boolean =>
  'not' in one ? false : 'all' in one ? one.all.some(findsWords) : 'any' in one ? one.any.every(findsWords) : true;

/** Paragraphs in which any of some runs begins or ends. */
function paragraphsWith(runs: readonly Run[], { paragraphs }: IndexedText): ReadonlySet<number> {
  const places = new Set<number>();
  for (const { from, to } of runs) for (const word of [from, to - 1]) places.add(paragraphOf(paragraphs, word));
  return places;
}

const inOneParagraph = ({ paragraphs }: IndexedText, { from, to }: Run): boolean =>
  to - from === 1 || paragraphOf(paragraphs, from) === paragraphOf(paragraphs, to - 1);

/** The paragraph that a word stands in. */
function paragraphOf(paragraphs: Uint32Array, word: number): number {
  let [low, high] = [0, paragraphs.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >>> 1;
    if (paragraphs[middle]! <= word) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Runs that lie whole in a stretch of the text. @param endOf where a run ends in the text */
function runsWithin(runs: readonly Run[], { starts }: IndexedText, { start, end }: Stretch, endOf: (run: Run) => number): Run[] {
  let [low, high] = [0, runs.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (starts[runs[middle]!.from]! < start) low = middle + 1;
    else high = middle;
  }
  const within: Run[] = [];
  for (let at = low; at < runs.length && starts[runs[at]!.from]! < end; at++) if (endOf(runs[at]!) <= end) within.push(runs[at]!);
  return within;
}

/** Pairs with at most so many words from one to the other, as one run from the first to the last word; words beside each other are 1 apart. */
function nearby(ones: readonly Run[], others: readonly Run[], within: number): Run[] {
  const longest = others.reduce((most, { from, to }) => Math.max(most, to - from), 0);
  const runs: Run[] = [];
  let first = 0;
  for (const one of ones) {
    while (first < others.length && others[first]!.from < one.from - within - longest) first++;
    for (let at = first; at < others.length && others[at]!.from <= one.to - 1 + within; at++) {
      const other = others[at]!;
      const distance = Math.max(other.from - (one.to - 1), one.from - (other.to - 1));
      // what overlaps is not another word beside it
      if (distance > 0 && distance <= within) runs.push({ from: Math.min(one.from, other.from), to: Math.max(one.to, other.to) });
    }
  }
  return runs.sort((a, b) => a.from - b.from || a.to - b.to);
}

/** Words that were found by themselves. Field by field: there can be half a million, and copying each by a spread takes longer than finding them. */
export const hitOf = (one: Stretch): WordHit => ({ start: one.start, end: one.end, words: [one] });

/** Stretches in their order, each once; those that overlap as one. */
function joined(some: readonly Stretch[]): Stretch[] {
  const sorted = [...some].sort((a, b) => a.start - b.start || a.end - b.end);
  const all: { start: number; end: number }[] = [];
  for (const { start, end } of sorted) {
    const last = all.at(-1);
    if (last && start < last.end) last.end = Math.max(last.end, end);
    else all.push({ start, end });
  }
  return all;
}
