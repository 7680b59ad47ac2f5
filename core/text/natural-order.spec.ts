import { naturalOrder } from './natural-order';

describe('natural order', () => {
  const names = ['Interview 10', 'interview 9', 'Ärzte', 'Arzt', 'Interview 1'];
  const expected = ['Arzt', 'Ärzte', 'Interview 1', 'interview 9', 'Interview 10'];

  it('takes numbers by their size and letters without their accents, for few and for many', () => {
    expect(naturalOrder(names, (name) => name)).toEqual(expected);
    const many = Array.from({ length: 500 }, () => names).flat();
    const sorted = naturalOrder(many, (name) => name);
    expect([...new Set(sorted)]).toEqual(expected);
    expect(sorted.length).toBe(many.length);
  });

  it('keeps the order of equals, and the list it is given', () => {
    const items = [
      { name: 'b', at: 1 },
      { name: 'a', at: 2 },
      { name: 'b', at: 3 },
    ];
    expect(naturalOrder(items, (item) => item.name).map((item) => item.at)).toEqual([2, 1, 3]);
    expect(items[0]!.at).toBe(1);
  });
});
