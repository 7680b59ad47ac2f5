import { Bench } from '../testing/make';
import { addCase } from '../commands/cases';
import {
  addAttribute,
  attributesOf,
  changeType,
  conversionOf,
  deleteAttribute,
  distributionOf,
  joinChoices,
  recode,
  setChoices,
  setValues,
} from '../commands/attributes';
import { addSet, deleteSet } from '../commands/sets';
import { membersOf } from '../sets/members';
import { checkStudy } from '../integrity/check-study';
import { guessType } from './guess-type';
import { parseValue } from './values';

describe('reading values', () => {
  const read = (type: 'number' | 'date' | 'yes/no', ...raw: string[]) => raw.map((one) => parseValue(one, type));

  it('takes numbers with separators of either kind, and nothing else', () => {
    expect(read('number', '12', '-3.5', '3,5', '1,234', '1,234.5', '1.234,5', "1'234", '−2', '.5')).toEqual([
      12, -3.5, 3.5, 1234, 1234.5, 1234.5, 1234, -2, 0.5,
    ]);
    expect(read('number', 'twelve', '1,2,3', '12 years', '1e5', '--1')).toEqual([null, null, null, null, null]);
    expect(parseValue('  ', 'number')).toBeUndefined();
  });

  it('takes days that exist, the day first where both would do', () => {
    expect(
      read('date', '2025-01-22', '22.1.2025', '3/4/2025', '4/22/2025', '22 January 2025', 'Jan 22, 2025', '2025-03-03 18:04:52'),
    ).toEqual(['2025-01-22', '2025-01-22', '2025-04-03', '2025-04-22', '2025-01-22', '2025-01-22', '2025-03-03']);
    expect(read('date', '2025-02-30', '30.2.2025', 'soon', '2025')).toEqual([null, null, null, null]);
  });

  it('guesses the type of a column and says why', () => {
    expect(guessType(['1', '2', '', '3'])).toEqual({ type: 'number', because: '100 % of the cells are numbers' });
    expect(guessType(['yes', 'no', 'yes']).type).toBe('yes/no');
    expect(guessType(['Saltpans', 'Gull Bay', 'Saltpans', 'Gull Bay'])).toEqual({
      type: 'choice',
      because: '2 distinct values in 4 cells',
    });
    expect(guessType(['2025-01-01', '2025-02-01']).type).toBe('date');
    expect(guessType(['a', 'b', 'c', 'd', 'e', 'f']).type).toBe('text');
  });
});

describe('attributes of cases', () => {
  function register() {
    const bench = new Bench();
    for (const name of ['Shona', 'Moira', 'Iain', 'Callum']) bench.run(addCase(name));
    bench.run(addAttribute('case', 'age', 'text'));
    bench.run(addAttribute('case', 'home', 'choice'));
    const [age, home] = attributesOf(bench.state, 'case').map((one) => one.id) as [string, string];
    const ids = Object.values(bench.state.tables.case).map((one) => one.id);
    const set = (attributeId: string, ...raw: string[]) =>
      bench.run(setValues(raw.map((one, at) => ({ ownerId: ids[at]!, attributeId, raw: one }))));
    set(age, '44', '58', 'sixty', '19');
    set(home, 'Gull Bay', 'Saltpans', 'saltpans', '');
    const values = (id: string) => Object.values(bench.state.tables.case).map((one) => one.values[id]);
    const attribute = (id: string) => bench.state.tables.attribute[id]!;
    return { bench, age, home, ids, set, values, attribute };
  }

  it('take new choices on the fly, and set all or none', () => {
    const { bench, age, home, set, values, attribute } = register();
    expect(attribute(home).choices).toEqual(['Gull Bay', 'Saltpans', 'saltpans']);
    bench.run(changeType(age, 'number'));
    expect(() => set(age, '45', 'old')).toThrowError(/is not a number/);
    expect(values(age)).toEqual([44, 58, undefined, 19]);
  });

  it('show what does not convert before the type changes', () => {
    const { bench, age, values } = register();
    expect(conversionOf(bench.state, age, 'number')).toEqual({ converted: 3, misfits: [{ value: 'sixty', count: 1 }] });
    expect(bench.run(changeType(age, 'number'))!.sentence).toBe('made age a number; 1 value did not fit and went');
    expect(values(age)).toEqual([44, 58, undefined, 19]);
    expect(checkStudy(bench.state, null)).toEqual([]);
  });

  it('join values, keep their order, and refuse to drop one in use', () => {
    const { bench, home, values, attribute } = register();
    bench.run(joinChoices(home, ['saltpans'], 'Saltpans'));
    expect([attribute(home).choices, values(home)]).toEqual([
      ['Gull Bay', 'Saltpans'],
      ['Gull Bay', 'Saltpans', 'Saltpans', undefined],
    ]);
    bench.run(setChoices(home, ['Saltpans', 'Gull Bay', 'Northholm']));
    expect(attribute(home).choices).toEqual(['Saltpans', 'Gull Bay', 'Northholm']);
    expect(() => bench.run(setChoices(home, ['Saltpans']))).toThrowError(/in use/);
  });

  it('are grouped into bands as a new attribute', () => {
    const { bench, age } = register();
    bench.run(changeType(age, 'number'));
    bench.run(recode(age, 'age group', { bounds: [20, 50], names: ['under 20', '20 to 49', '50 and over'] }));
    const bands = attributesOf(bench.state, 'case').find((one) => one.name === 'age group')!;
    expect(bands.choices).toEqual(['under 20', '20 to 49', '50 and over']);
    expect(distributionOf(bands, Object.values(bench.state.tables.case))).toEqual({
      values: [
        { value: 'under 20', count: 1 },
        { value: '20 to 49', count: 1 },
        { value: '50 and over', count: 1 },
      ],
      unknown: 1,
      total: 4,
    });
  });

  it('fill live sets, which follow the values, and keep who is in them when the attribute goes', () => {
    const { bench, age, home, ids, set } = register();
    bench.run(changeType(age, 'number'));
    bench.run(
      addSet(
        'case',
        'Young of Gull Bay',
        [],
        [
          { what: { attributeId: home }, comparison: 'is', value: 'Gull Bay' },
          { what: { attributeId: age }, comparison: 'is under', value: 50 },
        ],
      ),
    );
    const live = () => Object.values(bench.state.tables.set)[0]!;
    expect(membersOf(bench.state, live())).toEqual([ids[0]!]);
    set(age, '51', '30');
    set(home, 'Gull Bay', 'Gull Bay');
    expect(membersOf(bench.state, live())).toEqual([ids[1]!]);
    bench.run(deleteAttribute(age));
    // without the condition everybody of Gull Bay would be in it, and with it nobody
    expect([membersOf(bench.state, live()), live().condition]).toEqual([[ids[1]!], null]);
    bench.run(deleteSet(live().id));
    expect(Object.values(bench.state.tables.set)).toEqual([]);
  });
});
