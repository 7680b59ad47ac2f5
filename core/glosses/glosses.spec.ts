import { addGloss, deleteGloss, editGloss } from '../commands/glosses';
import { CommandError } from '../change/command';
import { writeGlossaryCsv } from '../formats/csv/glossary-csv';
import { renamed } from '../codebook/rename';
import { patternOf } from '../text/find-replace';
import { Bench } from '../testing/make';
import { GlossFinder } from './find-glosses';

const define = (bench: Bench, term: string, forms: string[] = [], meaning = '') => bench.run(addGloss({ term, forms, meaning }));
const found = (bench: Bench, text: string) =>
  new GlossFinder(Object.values(bench.state.tables.gloss)).in(text).map((hit) => [hit.gloss.term, text.slice(hit.start, hit.end)]);

describe('glosses', () => {
  it('may hold every sign there is: each is found as it stands, and no text becomes unreadable', () => {
    const signs = Array.from({ length: 95 }, (_, at) => String.fromCharCode(32 + at)).filter((sign) => sign !== ' ');
    for (const sign of [...signs, '“', '–', '’', '渡', '🙂', 'ß', 'İ']) {
      for (const term of [sign, `well${sign}kept`, `${sign}ferry`, `ferry${sign}`]) {
        const bench = new Bench();
        define(bench, term);
        expect(found(bench, `The ( ${term} ) there.`).map(([, words]) => words)).toContain(term);
        const sought = { words: term, matchCase: true, wholeWords: false };
        expect(() => patternOf(sought)).not.toThrow();
        expect(patternOf(sought)!.test(`a ${term} b`)).toBeTrue();
        const code = { ...Object.values(bench.state.tables.code)[0]!, id: 'c', name: `«${term}»` };
        expect(renamed([code], { how: 'replace', find: term, instead: '$&', matchCase: true }).get('c')).toBe('«$&»');
      }
    }
  });

  it('are found wherever the word stands, in its forms, as a whole word', () => {
    const bench = new Bench();
    define(bench, 'haar', ['haars']);
    define(bench, 'slip');
    define(bench, 'slip road');
    expect(found(bench, 'The Haar came over the slip road; two haars, one slip. Slippery, haar-like.')).toEqual([
      ['haar', 'Haar'],
      ['slip road', 'slip road'],
      ['haar', 'haars'],
      ['slip', 'slip'],
      ['haar', 'haar'],
    ]);
  });

  it('are found in scripts without capitals and with signs a pattern would misread', () => {
    const bench = new Bench();
    define(bench, 'عبّارة');
    define(bench, 'C++ (old)');
    expect(found(bench, 'ركبنا عبّارة و C++ (old).')).toEqual([
      ['عبّارة', 'عبّارة'],
      ['C++ (old)', 'C++ (old)'],
    ]);
  });

  it('define a word once, whichever of its forms is meant', () => {
    const bench = new Bench();
    define(bench, 'haar', ['haars']);
    expect(() => define(bench, 'Haars')).toThrowError(CommandError, /“haars” is defined already/);
    expect(() => define(bench, '  ')).toThrowError(CommandError);
    const [gloss] = Object.values(bench.state.tables.gloss);
    bench.run(editGloss(gloss!.id, { term: 'haar', forms: ['haars', 'haar', ''], meaning: 'sea fog' }));
    expect(Object.values(bench.state.tables.gloss)).toEqual([{ ...gloss!, meaning: 'sea fog' }]);
    bench.run(deleteGloss(gloss!.id));
    expect(found(bench, 'haar')).toEqual([]);
  });

  it('go out as a table, safe in spreadsheets', () => {
    const bench = new Bench();
    define(bench, '=haar', ['a', 'b'], 'fog, from the sea');
    expect(writeGlossaryCsv(Object.values(bench.state.tables.gloss), bench.state.tables.coder)).toContain(
      '\'=haar,a; b,"fog, from the sea",Ada',
    );
  });
});
