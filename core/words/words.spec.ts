import assert from 'node:assert/strict';
import fc from 'fast-check';
import { HIT_UNITS, type WordSearch } from '../model/word-search';
import { Bench } from '../testing/make';
import { unitsOf } from '../text/units';
import { ExpressionError, readExpression, type WordExpression } from './expression';
import { WordFinder } from './find-words';
import { Vocabulary } from './vocabulary';

const PLAIN: WordSearch = { typed: '', match: 'whole words', capitals: false, accents: true, unit: 'words' };

/** A text of some lines, and what is found in it. */
function looking(lines: readonly string[], speakers: readonly string[] = [], language = 'en') {
  const bench = new Bench();
  const document = bench.addDocument('One', lines, speakers);
  const text = bench.texts.get(document.id)!;
  const find = (typed: string, fields: Partial<WordSearch> = {}) => {
    const vocabulary = new Vocabulary();
    const index = vocabulary.index(text);
    return new WordFinder({ ...PLAIN, typed, ...fields }, vocabulary, language).in(text, index);
  };
  const words = (typed: string, fields: Partial<WordSearch> = {}) =>
    find(typed, fields).map(({ start, end }) => text.text.slice(start, end));
  return { text, find, words };
}

describe('what is typed to look for words', () => {
  it('reads words, phrases, and, or, not, groups and nearness', () => {
    expect(readExpression('  ')).toBeNull();
    expect(readExpression('last boat')).toEqual({ all: [{ phrase: ['last'] }, { phrase: ['boat'] }] });
    expect(readExpression('"last boat" or not (queue and night)')).toEqual({
      any: [{ phrase: ['last', 'boat'] }, { not: { all: [{ phrase: ['queue'] }, { phrase: ['night'] }] } }],
    });
    expect(readExpression('help within 5 words of “too late”')).toEqual({
      near: [{ phrase: ['help'] }, { phrase: ['too', 'late'] }],
      within: 5,
    });
    expect(readExpression('"and"')).toEqual({ phrase: ['and'] });
    expect(readExpression('within reason')).toEqual({ all: [{ phrase: ['within'] }, { phrase: ['reason'] }] });
  });

  it('says in words what is wrong, and where', () => {
    const wrong = (typed: string) => {
      try {
        readExpression(typed);
      } catch (error) {
        if (error instanceof ExpressionError) return `${error.at}: ${error.message}`;
        throw error;
      }
      return 'read';
    };
    expect(wrong('"last boat')).toBe('0: A quotation mark is not closed.');
    expect(wrong('(last')).toBe('0: A parenthesis is not closed.');
    expect(wrong('boat)')).toBe('4: A parenthesis is closed that was not opened.');
    expect(wrong('boat or')).toBe('7: A word is missing at the end.');
    expect(wrong('or boat')).toMatch(/^0: “or” stands where a word should/);
    expect(wrong('not a within 3 of b')).toMatch(/stands between words/);
    expect(wrong('('.repeat(60))).toMatch(/too deep/);
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('a', 'b*', '"', '(', ')', 'and', 'or', 'not', 'within 2 of', ' ', '“', 'ß')),
        (parts) => typeof wrong(parts.join(' ')) === 'string',
      ),
    );
    fc.assert(fc.property(fc.string(), (typed) => typeof wrong(typed) === 'string'));
  });
});

describe('looking for words', () => {
  it('finds words whatever their capitals, not the names of speakers, and phrases within a paragraph', () => {
    const { words } = looking(['Ann: The last boat. We missed the Last', 'Bob: boat, the last-minute boat.'], ['Ann', 'Bob']);
    expect(words('last')).toEqual(['last', 'Last']);
    expect(words('Last', { capitals: true })).toEqual(['Last']);
    expect(words('"last boat"')).toEqual(['last boat']);
    expect(words('bob')).toEqual([]);
    expect(words('last-minute')).toEqual(['last-minute']);
    expect(words('minute')).toEqual([]);
    expect(words('minute', { match: 'parts of words' })).toEqual(['last-minute']);
    expect(words('boat the last', { unit: 'document' }).length).toBe(1);
    expect(words('miss*')).toEqual(['missed']);
    expect(words('b??t')).toEqual(['boat', 'boat', 'boat']);
  });

  it('holds conditions within the unit that is asked for', () => {
    const { words } = looking(['We waited. The boat came late.', 'The boat came.', 'We waited all night.']);
    expect(words('boat not late')).toEqual(['boat']);
    expect(words('boat not late', { unit: 'sentence' })).toEqual(['The boat came.']);
    expect(words('waited boat', { unit: 'paragraph' })).toEqual(['We waited. The boat came late.']);
    expect(words('waited boat', { unit: 'sentence' })).toEqual([]);
    expect(words('not boat', { unit: 'paragraph' })).toEqual(['We waited all night.']);
    expect(() => words('not boat')).toThrowError(/Only “not” is left/);
    expect(words('boat within 2 words of late')).toEqual(['boat came late']);
    expect(words('boat within 1 word of late')).toEqual([]);
    expect(words('(waited or came) within 1 of night')).toEqual([]);
  });

  it('knows word forms by the language of the study, accents where they count, and every script', () => {
    expect(looking(['We wait; he waits, waiting, waited. A waiter.']).words('wait', { match: 'all forms' })).toEqual([
      'wait',
      'waits',
      'waiting',
      'waited',
    ]);
    expect(looking(['Die Fähren warten. Eine Fähre.'], [], 'de-AT').words('fähre', { match: 'all forms' })).toEqual(['Fähren', 'Fähre']);
    expect(looking(['Пароходы и пароход.'], [], 'ru').words('пароход', { match: 'all forms' })).toEqual(['Пароходы', 'пароход']);
    expect(looking(['Café au lait, cafe.']).words('cafe')).toEqual(['cafe']);
    expect(looking(['Café au lait, cafe.']).words('cafe', { accents: false })).toEqual(['Café', 'cafe']);
    expect(looking(['今天渡轮没有来。', '渡轮晚了。']).words('渡轮')).toEqual(['渡轮', '渡轮']);
    expect(looking(['انتظرنا العبّارة طوال الليل.']).words('الليل')).toEqual(['الليل']);
    expect(looking(["“Don’t,” she said. 'tis done"]).words("don't")).toEqual(['Don’t']);
    expect(looking(['A 𝔟𝔬𝔞𝔱 came']).words('𝔟𝔬𝔞𝔱')).toEqual(['𝔟𝔬𝔞𝔱']);
  });

  it('finds exactly what the definitions say, on random texts', () => {
    const word = fc.constantFrom('boat', 'late', 'Boat', 'came', 'we');
    const lines = fc.array(fc.array(fc.tuple(word, fc.constantFrom(' ', '. ', ', ')), { minLength: 1, maxLength: 6 }), {
      minLength: 1,
      maxLength: 4,
    });
    const phrase = fc
      .array(fc.constantFrom('boat', 'late', 'c*e', 'w?'), { minLength: 1, maxLength: 2 })
      .map((words): WordExpression => ({ phrase: words }));
    const near = fc.record({ near: fc.tuple(phrase, phrase), within: fc.integer({ min: 0, max: 4 }) });
    const some = fc.oneof(phrase, near);
    const expression = fc.oneof(
      some,
      fc.array(some, { minLength: 1, maxLength: 3 }).map((all) => ({ all })),
      fc.array(some, { minLength: 1, maxLength: 3 }).map((any) => ({ any })),
      fc.tuple(some, some).map(([one, other]) => ({ all: [one, { not: other }] })),
    );
    fc.assert(
      fc.property(lines, expression, fc.constantFrom(...HIT_UNITS), (made, wanted, unit) => {
        const { text, find } = looking(
          made.map((line) =>
            line
              .map((pair) => pair.join(''))
              .join('')
              .trim(),
          ),
        );
        const tokens = [...text.text.matchAll(/[a-z]+/gi)].map((match) => ({
          start: match.index,
          end: match.index + match[0].length,
          word: match[0].toLowerCase(),
        }));
        const paragraphOf = (at: number) => text.paragraphs.findLastIndex((one) => one.start <= at);
        const like = (typed: string, token: string) => new RegExp(`^${typed.replaceAll('*', '.*').replaceAll('?', '.')}$`).test(token);
        /** Runs of words, by looking at every place. */
        const runs = (one: WordExpression): [number, number][] => {
          if ('phrase' in one)
            return tokens.flatMap((token, at) => {
              const last = tokens[at + one.phrase.length - 1];
              const fits =
                last &&
                paragraphOf(last.start) === paragraphOf(token.start) &&
                one.phrase.every((typed, nth) => like(typed, tokens[at + nth]!.word));
              return fits ? [[at, at + one.phrase.length - 1] as [number, number]] : [];
            });
          if (!('near' in one)) return [];
          return runs(one.near[0]).flatMap((a) =>
            runs(one.near[1]).flatMap((b) => {
              const apart = a[1] < b[0] ? b[0] - a[1] : b[1] < a[0] ? a[0] - b[1] : 0;
              return apart > 0 && apart <= one.within ? [[Math.min(a[0], b[0]), Math.max(a[1], b[1])] as [number, number]] : [];
            }),
          );
        };
        const units =
          unit === 'document' ? [{ start: 0, end: text.text.length }] : unitsOf(text, unit === 'words' ? 'paragraph' : unit, 'en');
        const inUnit = (one: WordExpression, { start, end }: { start: number; end: number }) =>
          runs(one).filter(([from, to]) => tokens[from]!.start >= start && tokens[from]!.start < end && tokens[to]!.start < end);
        const meets = (one: WordExpression, where: { start: number; end: number }): boolean =>
          'all' in one
            ? one.all.every((part) => meets(part, where))
            : 'any' in one
              ? one.any.some((part) => meets(part, where))
              : 'not' in one
                ? !meets(one.not, where)
                : inUnit(one, where).length > 0;
        const positive = (one: WordExpression): WordExpression[] =>
          'all' in one ? one.all.flatMap(positive) : 'any' in one ? one.any.flatMap(positive) : 'not' in one ? [] : [one];
        const covered = (where: { start: number; end: number }) =>
          new Set(
            positive(wanted)
              .flatMap((one) => inUnit(one, where))
              .flatMap(([from, to]) => tokens.slice(from, to + 1))
              .map((token) => token.start),
          );
        const expected = units.filter((one) => meets(wanted, one));
        const typedOf = (one: WordExpression): string =>
          'phrase' in one
            ? `"${one.phrase.join(' ')}"`
            : 'near' in one
              ? `(${typedOf(one.near[0])} within ${one.within} of ${typedOf(one.near[1])})`
              : 'not' in one
                ? `not ${typedOf(one.not)}`
                : `(${('all' in one ? one.all : one.any).map(typedOf).join('all' in one ? ' and ' : ' or ')})`;
        const hits = find(typedOf(wanted), { unit });
        // the same words are marked, and of units the same ones come back
        const marked = (stretches: readonly { start: number; end: number }[]) =>
          tokens
            .filter((token) => stretches.some(({ start, end }) => token.start >= start && token.end <= end))
            .map((token) => token.start);
        assert.deepEqual(
          marked(hits.flatMap((hit) => hit.words)),
          [...new Set(expected.flatMap((one) => [...covered(one)]))].sort((a, b) => a - b),
        );
        if (unit !== 'words' && unit !== 'document')
          assert.deepEqual(
            hits.map(({ start, end }) => ({ start, end })),
            expected,
          );
      }),
      { numRuns: 500 },
    );
  });
});
