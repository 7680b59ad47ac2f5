/** How a question of one file stands to one of the list. */
export type Likeness = 'same' | 'similar' | 'new';

/** A question as a file words it, and the one of the list that it is taken for. */
export interface LinedUp {
  readonly wording: string;
  /** Row of the list. */
  readonly row: number;
  readonly likeness: Likeness;
  /** 0 to 1; 1 for the same words. */
  readonly score: number;
}

/** Questions of several files held against each other. */
export interface LineUp {
  /** Each question once, in the order in which most files ask them. */
  readonly list: readonly string[];
  /** For each file its questions in its own order. */
  readonly files: readonly (readonly LinedUp[])[];
  /** For each file the rows of the list that it does not ask. */
  readonly missing: readonly (readonly number[])[];
  /** For each file whether it asks in another order than the list. */
  readonly reordered: readonly boolean[];
}

/** From this share of common words on, two wordings are proposed as one question. */
export const SIMILAR = 0.55;

/**
 * Lines up questions: the same when only case, punctuation and spaces differ; similar when enough words are common
 * (Dice's coefficient over words, the frequent little ones counting half); else new.
 * @param known questions the study has already, first in the list
 */
export function lineUp(files: readonly (readonly string[])[], known: readonly string[] = []): LineUp {
  const list = [...known];
  const lined = files.map((questions) => {
    const taken = new Set<number>();
    const same = questions.map((wording) => {
      const row = list.findIndex((one, at) => !taken.has(at) && plain(one) === plain(wording));
      if (row >= 0) taken.add(row);
      return row;
    });
    return questions.map((wording, at): LinedUp => {
      if (same[at]! >= 0) return { wording, row: same[at]!, likeness: 'same', score: 1 };
      let best = { row: -1, score: 0 };
      list.forEach((one, row) => {
        const score = taken.has(row) ? 0 : likeness(one, wording);
        if (score > best.score) best = { row, score };
      });
      if (best.score >= SIMILAR) {
        taken.add(best.row);
        return { wording, row: best.row, likeness: 'similar', score: best.score };
      }
      const row = list.push(wording) - 1;
      taken.add(row);
      return { wording, row, likeness: 'new', score: best.score };
    });
  });
  return {
    list,
    files: lined,
    missing: lined.map((file) => list.map((_, row) => row).filter((row) => !file.some((one) => one.row === row))),
    reordered: lined.map((file) => file.some((one, at) => at > 0 && one.row < file[at - 1]!.row)),
  };
}

const plain = (text: string): string => wordsIn(text).join(' ');
const wordsIn = (text: string): string[] =>
  text
    .toLocaleLowerCase()
    .normalize('NFKC')
    .match(/[\p{L}\p{M}\p{N}]+/gu) ?? [];

/** From this share of the content words of the shorter question on, one is the other in other words. */
const MOST_CONTENT = 0.6;

/**
 * How like two questions are, 0 to 1: Dice's coefficient over their words, those of up to three letters counting half;
 * where the longer has most content words (of four letters and more) of the shorter, at least that share.
 */
export function likeness(a: string, b: string): number {
  const [x, y] = [new Set(wordsIn(a)), new Set(wordsIn(b))];
  const [one, other] = [x, y].map((words) => new Set([...words].filter((word) => word.length > 3)));
  const fewest = Math.min(one!.size, other!.size);
  const share = fewest < 3 ? 0 : [...one!].filter((word) => other!.has(word)).length / fewest;
  const weight = (words: Iterable<string>): number => [...words].reduce((sum, word) => sum + (word.length <= 3 ? 0.5 : 1), 0);
  const whole = weight(x) + weight(y);
  const dice = whole === 0 ? 0 : (2 * weight([...x].filter((word) => y.has(word)))) / whole;
  return share >= MOST_CONTENT ? Math.max(dice, 0.95 * share) : dice;
}
