import fc from 'fast-check';
import { keepSearch, seeSearch } from '../commands/searches';
import { saveQuery } from '../commands/queries';
import { keepPattern } from '../commands/patterns';
import { addWordList, deleteWordList, editWordList } from '../commands/word-lists';
import { CommandError } from '../change/command';
import type { Text } from '../model/document';
import type { WordSearch } from '../model/word-search';
import { seenOf, sinceSeen } from '../queries/seen';
import { Bench } from '../testing/make';
import { ExpressionError, listsByName, listsRenamed, readExpression } from './expression';
import { foundIn, writtenIn } from './find-elsewhere';
import { PatternFinder } from './find-pattern';
import { WordFinder } from './find-words';
import type { FoundHit } from './found-hit';
import { countHits } from './group-hits';
import { keysOfHits } from './seen-hits';
import { Vocabulary } from './vocabulary';

const plain: WordSearch = { typed: '', match: 'whole words', capitals: false, accents: false, unit: 'words' };

function textOf(...lines: string[]): Text {
  const bench = new Bench();
  return bench.texts.get(bench.addDocument('Talk', lines).id)!;
}

describe('a word list', () => {
  const lists = listsByName([
    { name: 'Ferry', words: ['boat', 'last ferry', 'cross*'] },
    { name: 'who is late', words: ['late'] },
  ]);
  const find = (typed: string, text: Text, fields: Partial<WordSearch> = {}) => {
    const vocabulary = new Vocabulary();
    const finder = new WordFinder({ ...plain, ...fields, typed }, vocabulary, 'en', lists);
    return finder.in(text, vocabulary.index(text)).map((hit) => text.text.slice(hit.start, hit.end));
  };
  const text = textOf('The last ferry was late. We saw it crossing.', 'A boat, the last one.');

  it('stands for any of its words by its name in brackets, in all that an expression can say', () => {
    expect(find('[ferry]', text)).toEqual(['last ferry', 'crossing', 'boat']);
    expect(find('[Ferry] not [who is late]', text, { unit: 'paragraph' })).toEqual(['A boat, the last one.']);
    expect(find('[ferry] within 2 of [who is late]', text)).toEqual(['last ferry was late']);
  });

  it('that is not there, or not closed, is named', () => {
    expect(() => readExpression('boat [storm]', lists)).toThrowMatching(
      (error) => error instanceof ExpressionError && error.message.startsWith('There is no word list “storm”'),
    );
    expect(() => readExpression('[ferry', lists)).toThrowError('A bracket is not closed.');
  });

  it('is asked for under its new name by all that asked for it, and kept names are not taken twice', () => {
    expect(listsRenamed('[ferry] or [ Ferry ] not [ferryman]', 'ferry', 'boats')).toBe('[boats] or [boats] not [ferryman]');
    const bench = new Bench();
    bench.run(addWordList({ name: 'ferry', words: ['boat', ' boat ', '', 'last ferry'] }));
    const [list] = Object.values(bench.state.tables.wordList);
    expect(list!.words).toEqual(['boat', 'last ferry']);
    bench.run(keepSearch('Ferries', { ...plain, typed: '[Ferry] night' }));
    bench.run(saveQuery('Ferries', { all: [{ hasWords: { ...plain, match: 'all forms', typed: 'not [ferry]' } }] }));
    const table = { groups: { by: 'document' }, as: 'as they are' } as const;
    const words = { pattern: 'words', run: 1, forms: false, withoutStopWords: true, kept: [], left: [], minimum: 2 } as const;
    bench.run(
      keepPattern(
        'Ferries',
        { ...words, kept: [], left: [], table: { ...table, typed: ['late', '[FERRY] or pier'], wordListIds: [list!.id] } },
        { parts: [] },
      ),
    );
    bench.run(editWordList(list!.id, { name: 'boats', words: list!.words }));
    const [kept] = Object.values(bench.state.tables.pattern);
    expect(kept!.asked.pattern === 'words' && kept!.asked.table!.typed).toEqual(['late', '[boats] or pier']);
    expect(Object.values(bench.state.tables.search)[0]!.search.typed).toBe('[boats] night');
    expect(JSON.stringify(Object.values(bench.state.tables.query)[0]!.question)).toContain('not [boats]');
    for (const fields of [
      { name: 'BOATS', words: ['x'] },
      { name: 'a [b]', words: ['x'] },
      { name: 'empty', words: [' '] },
      { name: ' ', words: ['x'] },
    ])
      expect(() => bench.run(addWordList(fields)))
        .withContext(fields.name)
        .toThrowError(CommandError);
    bench.run(deleteWordList(list!.id));
    expect(bench.state.tables.wordList).toEqual({});
    // what named it by its id asks for it no more; what was typed says that it is not there
    const [left] = Object.values(bench.state.tables.pattern);
    expect(left!.asked.pattern === 'words' && left!.asked.table!.wordListIds).toEqual([]);
  });
});

describe('a regular expression', () => {
  const text = textOf('Ann waited 20 minutes, then 45.', 'Waited? No: 7.');
  const find = (typed: string, fields: Partial<WordSearch> = {}) =>
    new PatternFinder({ ...plain, ...fields, match: 'regular expression', typed }, 'en')
      .in(text)
      .map((hit) => text.text.slice(hit.start, hit.end));

  it('is held against each paragraph, and gives the words or the units that hold them', () => {
    expect(find('\\d+')).toEqual(['20', '45', '7']);
    expect(find('^w\\w+')).toEqual(['Waited']);
    expect(find('^w\\w+', { capitals: true })).toEqual([]);
    expect(find('\\d+', { unit: 'paragraph' }).length).toBe(2);
    expect(find('\\d{2}', { unit: 'sentence' })).toEqual(['Ann waited 20 minutes, then 45.']);
    expect(find('x*')).toEqual([]);
    expect(find('\\p{Lu}\\w+', { capitals: true })).toEqual(['Ann', 'Waited', 'No']);
  });

  it('that is none is refused in words', () => {
    expect(() => find('(')).toThrowMatching((error) => error instanceof ExpressionError && error.message.startsWith('This is no regular'));
    expect(() => find('')).toThrowError(ExpressionError);
  });

  it('finds the places that the engine finds in each paragraph', () => {
    const letters = fc.string({ unit: fc.constantFrom('a', 'b', ' ', 'é', '呀'), maxLength: 20 });
    fc.assert(
      fc.property(
        fc.array(letters, { minLength: 1, maxLength: 4 }),
        fc.constantFrom('a+b?', '\\b', '[^ ]+', '呀|é', '(?<=a)b'),
        (lines, typed) => {
          const some = textOf(...lines.map((line) => `x${line}`));
          const found = new PatternFinder({ ...plain, match: 'regular expression', typed }, 'en').in(some);
          const expected = some.paragraphs.flatMap(({ body, end }) =>
            [...some.text.slice(body, end).matchAll(new RegExp(typed, 'giu'))].filter((one) => one[0]).map((one) => one[0]),
          );
          return JSON.stringify(found.map((hit) => some.text.slice(hit.start, hit.end))) === JSON.stringify(expected);
        },
      ),
    );
  });
});

describe('what is written beside the texts', () => {
  it('is memos, comments and what is said of codes, each found with what stands around it', () => {
    const bench = new Bench();
    const document = bench.addDocument('Talk', ['We waited at the pier.']);
    const code = bench.addCode('Waiting for the boat');
    bench.code(document, 3, 9, code);
    bench.run((state) => {
      const before = state.tables.code[code]!;
      return { change: [{ type: 'code', before, after: { ...before, definition: 'Time lost.\nFor a boat.' } }], sentence: 'said' };
    });
    const columns = Object.values(bench.state.passages).map((some) => ({ ...some, comments: [{ row: 0, text: 'Which boat?' }] }));
    const vocabulary = new Vocabulary();
    const finder = new WordFinder({ ...plain, typed: 'boat' }, vocabulary, 'en');
    const found = [...writtenIn(bench.state.tables, columns)].flatMap((one) =>
      foundIn(one, (text) => finder.in(text, vocabulary.index(text))),
    );
    expect(found.map((one) => [one.of, one.title, one.before, one.said, one.after])).toEqual([
      ['comment', 'Talk', 'Which ', 'boat', '?'],
      ['code', 'Waiting for the boat', 'Waiting for the ', 'boat', ''],
      ['code', 'Waiting for the boat', 'For a ', 'boat', '.'],
    ]);
    expect(found[0]).toEqual(jasmine.objectContaining({ id: columns[0]!.ids, documentId: document.id }));
  });
});

describe('what a kept search had found', () => {
  const hit = (documentId: string, start: number, said: string, before = 'a ', after = ' b'): FoundHit => ({
    ...{ documentId, start, end: start + said.length, words: [], before, said, after, speaker: '', caseIds: [], codeIds: [] },
  });

  it('is known again wherever it has moved, and a second one that is alike is new', () => {
    const first = [hit('d', 10, 'boat'), hit('d', 50, 'boat', 'the ')];
    const seen = { at: 1, ...seenOf(keysOfHits(first)) };
    const since = (hits: readonly FoundHit[]) => {
      const { fresh, gone } = sinceSeen(keysOfHits(hits), seen);
      return [fresh.size, gone];
    };
    expect(since(first)).toEqual([0, 0]);
    expect(since([hit('e', 99, 'boat', 'the '), hit('e', 3, 'boat')])).toEqual([0, 0]);
    expect(since([...first, hit('d', 70, 'boat')])).toEqual([1, 0]);
    expect(since([first[0]!])).toEqual([0, 1]);
  });

  it('is kept with it until it asks for something else', () => {
    const bench = new Bench();
    bench.run(keepSearch('Boats', { ...plain, typed: 'boat' }));
    const kept = () => Object.values(bench.state.tables.search)[0]!;
    bench.run(seeSearch(kept().id, seenOf(keysOfHits([hit('d', 1, 'boat')]))));
    expect(kept().seen?.passages).toBe(1);
    expect(() => bench.run(keepSearch('Boats', { ...plain, typed: 'boats' }))).toThrowError(/There is a search “Boats” already/);
    bench.run(keepSearch('Boats', { ...plain, typed: 'boats' }, true));
    expect([kept().search.typed, kept().seen]).toEqual(['boats', undefined]);
    expect(() => bench.run(keepSearch('None', { ...plain, typed: '  ' }))).toThrowError(CommandError);
  });

  it('is counted by document, by case and by who speaks', () => {
    const bench = new Bench();
    const one = bench.addDocument('Talk 10', ['x']);
    const two = bench.addDocument('Talk 9', ['x']);
    const hits = [hit(one.id, 1, 'boat'), hit(two.id, 1, 'boat'), { ...hit(two.id, 9, 'boat'), speaker: 'Ann' }];
    expect(countHits(hits, 'document', bench.state.tables).map(({ name, count }) => [name, count])).toEqual([
      ['Talk 9', 2],
      ['Talk 10', 1],
    ]);
    expect(countHits(hits, 'speaker', bench.state.tables).map(({ name, count }) => [name, count])).toEqual([
      ['nobody named', 2],
      ['Ann', 1],
    ]);
    expect(countHits(hits, 'case', bench.state.tables)).toEqual([{ key: '', name: 'of no case', count: 3 }]);
  });
});
