import assert from 'node:assert/strict';
import fc from 'fast-check';
import type { WordsAsked } from '../model/pattern';
import { EVERYTHING, type Scope } from '../model/scope';
import { union } from '../passages/union';
import { Narrowing } from '../queries/narrowing';
import { someScope } from '../testing/some-conditions';
import { studyToAsk } from '../testing/study-to-ask';
import { findWords } from '../text/words';
import { IndexedWords } from '../words/vocabulary';
import { groupAxisOf } from './group-axis';
import { keyness } from './keyness';
import { WordCounter } from './word-counts';

describe('counts of words', () => {
  const { bench, documents, asked, studyOf } = studyToAsk();
  const [talk, note] = documents;
  const study = studyOf(bench.state);
  const plain: WordsAsked = {
    ...{ pattern: 'words', run: 1, forms: false, withoutStopWords: false, kept: [], left: [], minimum: 1 },
  };

  function count(asking: WordsAsked, scope: Scope = EVERYTHING, key?: string) {
    const narrowing = new Narrowing(scope, study);
    const all = Object.values(bench.state.tables.document);
    const axis = key === undefined ? null : groupAxisOf(asking.typical!.groups, study, all);
    const groups = axis && { axis, at: axis.entries.findIndex((one) => one.key === key) };
    const counter = new WordCounter(asking, new IndexedWords(), narrowing, groups, 'en');
    for (const document of all) {
      const text = bench.texts.get(document.id);
      if (text && narrowing.holds(document, text)) counter.add(document, text);
    }
    return counter.result();
  }
  const of = (words: string, found: ReturnType<typeof count>) => found.rows.find((row) => row.words === words);

  it('fold capitals, leave labels out, and say in how many documents a word is', () => {
    const found = count(plain);
    expect(of('late', found)).toEqual({ words: 'late', count: 3, documents: 1 });
    expect(of('we', found)).toEqual({ words: 'we', count: 2, documents: 2 });
    expect(of('ann', found)).toBeUndefined();
    expect(of('rain', found)!.count).toBe(2);
    expect(found.total).toBe(talk.words + note.words);
  });

  it('leave out stop words but for those kept, and what the researcher leaves out', () => {
    const without = count({ ...plain, withoutStopWords: true, kept: ['we'], left: ['rain'] });
    expect(of('the', without)).toBeUndefined();
    expect(of('we', without)!.count).toBe(2);
    expect(of('rain', without)).toBeUndefined();
    expect(without.total).toBe(talk.words + note.words);
  });

  it('count forms as one, under the form that is found most', () => {
    const bare = count(plain);
    const forms = count({ ...plain, forms: true });
    expect(of('waited', bare)!.count).toBe(1);
    expect(forms.rows.reduce((sum, row) => sum + row.count, 0)).toBe(forms.total);
    expect(forms.rows.length).toBeLessThanOrEqual(bare.rows.length);
  });

  it('count runs within a paragraph, none that begins or ends with what is left out', () => {
    const pairs = count({ ...plain, run: 2 });
    expect(of('more rain', pairs)!.count).toBe(1);
    // over the end of a paragraph there is none
    expect(of('left rain', pairs)).toBeUndefined();
    expect(of('it was', count({ ...plain, run: 2, withoutStopWords: true }))).toBeUndefined();
    expect(of('the pier was empty', count({ ...plain, run: 4 }))!.count).toBe(1);
  });

  it('are what going through the words one by one gives, in any scope and for any length', () => {
    const lines = (scope: Scope) => {
      const narrowing = new Narrowing(scope, study);
      return [talk, note].flatMap((one) => {
        const document = bench.state.tables.document[one.id]!;
        const text = bench.texts.get(one.id)!;
        const pieces = union(narrowing.piecesIn(document, text));
        // stretches in scope, cut at the ends of paragraphs
        return text.paragraphs.flatMap(({ body, end }) =>
          pieces.flatMap((piece) => {
            const words = findWords(text.text.slice(body, end)).filter(
              ({ start }) => piece.start <= body + start && body + start < piece.end,
            );
            return [words.map((word) => text.text.slice(body + word.start, body + word.end).toLowerCase())];
          }),
        );
      });
    };
    fc.assert(
      fc.property(fc.oneof(fc.constant(EVERYTHING), someScope(asked)), fc.integer({ min: 1, max: 5 }), (scope, run) => {
        const naive = new Map<string, number>();
        for (const words of lines(scope))
          for (let at = 0; at + run <= words.length; at++) {
            const one = words.slice(at, at + run).join(' ');
            naive.set(one, (naive.get(one) ?? 0) + 1);
          }
        assert.deepEqual(new Map(count({ ...plain, run }, scope).rows.map((row) => [row.words, row.count])), naive);
      }),
      { numRuns: 100 },
    );
  });

  it('are of what is in scope alone, however many other words the study has', () => {
    const words = new IndexedWords();
    const document = bench.state.tables.document[note.id]!;
    const text = bench.texts.get(note.id)!;
    words.of(text);
    // a text that is not counted, of five thousand words
    const other = Array.from({ length: 5_000 }, (_, at) => `word${at}`).join(' ');
    words.of({ ...text, text: other, paragraphs: [{ start: 0, body: 0, end: other.length, speaker: -1, style: 'body' }] });
    const counter = new WordCounter(plain, words, new Narrowing(EVERYTHING, study), null, 'en');
    counter.add(document, text);
    const { rows, total } = counter.result();
    expect(rows.reduce((sum, row) => sum + row.count, 0)).toBe(total);
    expect(rows.every((row) => row.count > 0)).toBeTrue();
  });

  it('hold one group against all others', () => {
    const typical = { groups: { by: 'document' as const }, key: note.id };
    const found = count({ ...plain, typical }, EVERYTHING, note.id);
    expect([found.total, found.others]).toEqual([note.words, talk.words]);
    const rain = of('rain', found)!;
    expect([rain.count, rain.against!.count]).toEqual([2, 0]);
    expect(rain.against!.likelihood).toBeCloseTo(keyness(2, 0, note.words, talk.words).likelihood);
    expect(of('late', found)).toBeUndefined();
  });
});

describe('keyness', () => {
  it('is the log-likelihood and the log ratio: worked out by hand', () => {
    // 20 of 1,000 against 10 of 1,000: 2 × (20 ln(20 ÷ 15) + 10 ln(10 ÷ 15)), twice as frequent
    const found = keyness(20, 10, 1_000, 1_000);
    expect(found.likelihood).toBeCloseTo(3.398, 3);
    expect(found.ratio).toBeCloseTo(1);
  });

  it('is nothing where shares are alike, and can be said where one is none', () => {
    expect(keyness(10, 30, 1_000, 3_000).likelihood).toBeCloseTo(0);
    expect(keyness(4, 0, 1_000, 1_000).ratio).toBeCloseTo(3);
    expect(keyness(4, 0, 1_000, 0)).toEqual({ likelihood: 0, ratio: 0 });
  });
});
