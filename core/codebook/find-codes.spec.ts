import { Bench } from '../testing/make';
import { editCode } from '../commands/codes';
import { categoriesOf, codeNamed, findCodes } from './find-codes';
import { fold } from '../text/fold';
import { markFor } from '../model/mark';

describe('finding codes', () => {
  const bench = new Bench();
  const reaching = bench.addCode('Reaching help');
  const help = bench.addCode('Getting help in time', reaching);
  const cafe = bench.addCode('“Café talk”');
  const worry = bench.addCode('Worry');
  bench.run(editCode(worry, { definition: 'Any fear of not being helped.' }));
  const codes = bench.state.tables.code;
  const names = (typed: string, recent: string[] = []) => findCodes(codes, typed, recent).map((found) => found.code.name);

  it('looks in names, categories and definitions, in that order', () => {
    expect(names('help')).toEqual(['Getting help in time', 'Reaching help', 'Worry']);
    expect(names('reach')).toEqual(['Reaching help', 'Getting help in time']);
  });

  it('puts names that begin with what was typed first, quotation marks aside', () => {
    expect(names('cafe')[0]).toBe('“Café talk”');
    expect(names('get')[0]).toBe('Getting help in time');
  });

  it('asks every word to be found', () => {
    expect(names('help time')).toEqual(['Getting help in time']);
    expect(names('help nothing')).toEqual([]);
  });

  it('lists the codes used last first when nothing is typed', () => {
    expect(names('', [worry, cafe]).slice(0, 2)).toEqual(['Worry', '“Café talk”']);
  });

  it('knows names whatever their case and accents, and the categories above', () => {
    expect(codeNamed(codes, ' worry ')?.id).toBe(worry);
    expect(codeNamed(codes, 'Getting help in time', null)).toBeUndefined();
    expect(categoriesOf(codes, help)).toEqual(['Reaching help']);
    expect(fold('Čĺ')).toBe('cl');
  });
});

describe('marks', () => {
  it('are two letters, different from those taken, in any script', () => {
    expect(markFor('Worry', new Set())).toBe('Wo');
    expect(markFor('Worry', new Set(['Wo']))).toBe('Wr');
    expect(markFor('“No boat today”', new Set(['No']))).toBe('Nb');
    expect(markFor('تعب', new Set())).toBe('تع');
    expect(markFor('!!', new Set())).toBe('?');
  });

  it('number themselves when letters run out', () => {
    expect(markFor('Aa', new Set(['Aa']))).toBe('A2');
  });
});
