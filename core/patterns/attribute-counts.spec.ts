import assert from 'node:assert/strict';
import fc from 'fast-check';
import type { Attribute, AttributeValue, Case } from '../model/case';
import type { Id } from '../model/ids';
import { attributeCounts, summaryOf } from './attribute-counts';
import { nameOf } from './axis';

describe('counts of attributes', () => {
  const attribute = (id: string, type: Attribute['type'], choices: string[] = [], of: Attribute['of'] = 'case'): Attribute => ({
    ...{ id, name: id, of, type, choices, order: 0 },
  });
  const attributes = {
    age: attribute('age', 'number'),
    home: attribute('home', 'choice', ['Saltpans', 'Northholm', 'Nowhere']),
    length: attribute('length', 'number', [], 'document'),
  };
  const tables = (values: readonly Record<string, AttributeValue>[]) => ({
    attribute: attributes,
    document: {},
    case: Object.fromEntries(
      values.map((one, at): [Id, Case] => [
        `c${at}`,
        { id: `c${at}`, name: '', description: '', documentIds: [], stretches: [], values: one },
      ]),
    ),
  });
  const four = tables([{ age: 30, home: 'Northholm' }, { age: 41, home: 'Saltpans' }, { age: 60 }, { home: 'Saltpans' }]);
  const ids = Object.keys(four.case);

  it('say how many have which value, in the order the researcher set, with what nobody has and what is not known', () => {
    const { rows, columns, counts, members } = attributeCounts({ of: { attributeId: 'home' }, against: null }, four, ids)!;
    expect(rows.map((row, at) => [nameOf(row), counts[at * 2]])).toEqual([
      ['Saltpans', 2],
      ['Northholm', 1],
      ['Nowhere', 0],
      ['not known', 1],
    ]);
    expect([columns.length, counts.at(-1)]).toEqual([1, 4]);
    expect(members.filter(({ row }) => row === 0).map(({ id }) => id)).toEqual(['c1', 'c3']);
  });

  it('hold two against each other, numbers in bands, and sum up a number', () => {
    const asked = { of: { attributeId: 'age', cuts: [40, 50] }, against: { attributeId: 'home' } };
    const { rows, columns, counts, summary } = attributeCounts(asked, four, ids)!;
    expect(rows.map(nameOf)).toEqual(['under 40', '40 to under 50', '50 and over', 'not known']);
    expect(columns.map(nameOf)).toEqual(['Saltpans', 'Northholm', 'Nowhere', 'not known']);
    expect(Array.from(counts.slice(0, 5))).toEqual([0, 1, 0, 0, 1]);
    expect(Array.from(counts.slice(-5))).toEqual([2, 1, 0, 1, 4]);
    expect(summary).toEqual({ known: 3, least: 30, most: 60, mean: 131 / 3, median: 41, deviation: jasmine.any(Number) as never });
  });

  it('know neither an attribute that is gone nor one of something else as a second', () => {
    expect(attributeCounts({ of: { attributeId: 'gone' }, against: null }, four, ids)).toBeNull();
    expect(attributeCounts({ of: { attributeId: 'home' }, against: { attributeId: 'length' } }, four, ids)!.columns.length).toBe(1);
  });

  it('count each once: rows and columns come to the whole, of any values', () => {
    const some = fc.array(
      fc.record(
        { age: fc.integer({ min: 0, max: 90 }), home: fc.constantFrom('Saltpans', 'Northholm', 'Elsewhere') },
        { requiredKeys: [] },
      ),
    );
    fc.assert(
      fc.property(some, fc.uniqueArray(fc.integer({ min: 1, max: 89 }), { maxLength: 4 }), (values, cuts) => {
        const all = tables(values as Record<string, AttributeValue>[]);
        const asked = { of: { attributeId: 'age', cuts }, against: { attributeId: 'home' } };
        const { rows, columns, counts, members } = attributeCounts(asked, all, Object.keys(all.case))!;
        const width = columns.length + 1;
        for (let row = 0; row <= rows.length; row++)
          for (let column = 0; column <= columns.length; column++)
            assert.equal(
              counts[row * width + column],
              members.filter((one) => (row === rows.length || one.row === row) && (column === columns.length || one.column === column))
                .length,
            );
        assert.equal(counts.at(-1), values.length);
        values.forEach((one, at) => assert.equal(nameOf(columns[members[at]!.column]!), one.home ?? 'not known'));
      }),
    );
  });

  it('sum up numbers: the example of the eight scores with a standard deviation of 2.14', () => {
    const summary = summaryOf([2, 4, 4, 4, 5, 5, 7, 9])!;
    expect([summary.mean, summary.median, Number(summary.deviation!.toFixed(2))]).toEqual([5, 4.5, 2.14]);
    expect(summaryOf([7])).toEqual({ known: 1, least: 7, most: 7, mean: 7, median: 7, deviation: null });
    expect(summaryOf([])).toBeNull();
  });
});
