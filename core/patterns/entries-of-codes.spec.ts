import type { Id } from '../model/ids';
import { codeNumber, codeNumbersOf, numbersGiven } from '../passages/code-numbers';
import { EntriesByNumber, NO_ENTRY, SEVERAL, type ListsOfEntries } from './entries-of-codes';

describe('entries of codes', () => {
  const [one, two, none]: [Id, Id, Id] = ['a code of one entry', 'a code of two', 'a code of none'];
  const said: (readonly number[] | undefined)[] = [];
  for (const [id, entries] of [
    [one, [4]],
    [two, [1, 4]],
    [none, []],
  ] as const)
    said[codeNumber(id)] = entries;
  const byNumber = new EntriesByNumber(Array.from<ListsOfEntries[number]>(said));
  const entriesOf = (codes: readonly Id[]) => {
    const { numbers, single, lists } = byNumber.of(codeNumbersOf(codes), numbersGiven());
    return Array.from(numbers, (number) => [single[number], lists[number] ?? []]);
  };

  it('are those of each code, in the order of the document’s own list', () => {
    expect(entriesOf([two, none, one])).toEqual([
      [SEVERAL, [1, 4]],
      [NO_ENTRY, []],
      [4, [4]],
    ]);
  });

  it('are none of codes that are newer than the axis, however many there are by then', () => {
    const newer = Array.from({ length: 300 }, (_, at) => `a newer code ${at}`);
    expect(entriesOf([...newer, one])).toEqual([...newer.map(() => [NO_ENTRY, []]), [4, [4]]]);
  });

  it('say the same of one document after another has been asked for', () => {
    const first = byNumber.of(codeNumbersOf([one]), numbersGiven());
    byNumber.of(codeNumbersOf([two, none]), numbersGiven());
    expect(first.single[first.numbers[0]!]).toBe(4);
  });
});
