import fc from 'fast-check';
import { lettersApart, misspelt } from './misspelt';

describe('misspelt names', () => {
  const pairs = (...names: [string, number][]) => misspelt(new Map(names)).map(({ name, perhaps }) => `${name} > ${perhaps}`);

  it('are offered for the one that comes more often', () => {
    expect(pairs(['Shona', 40], ['Shnoa', 1], ['Mara', 41])).toEqual(['Shnoa > Shona']);
    expect(pairs(['Shona Adair', 40], ['Shona Adiar', 1], ['Shona Adr', 1])).toEqual([
      'Shona Adiar > Shona Adair',
      'Shona Adr > Shona Adair',
    ]);
    expect(pairs(['Åsa Berg', 2], ['Asa Berg', 1])).toEqual(['Asa Berg > Åsa Berg']);
  });

  it('are not seen in short names, nor where numbers tell people apart', () => {
    expect(pairs(['Ann', 3], ['Ana', 2])).toEqual([]);
    expect(pairs(['Participant 1', 3], ['Participant 2', 2], ['Participant 12', 1])).toEqual([]);
    expect(pairs(['Mother', 3], ['Father', 2])).toEqual([]);
  });

  it('letters apart are those of the published examples, the same both ways, and none for the same word', () => {
    // Damerau 1964: one letter wrong, missing, too many, or two neighbours exchanged
    expect([
      lettersApart('alphabet', 'alphavet'),
      lettersApart('alphabet', 'alhabet'),
      lettersApart('alphabet', 'alphabeta'),
      lettersApart('alphabet', 'aplhabet'),
    ]).toEqual([1, 1, 1, 1]);
    expect(lettersApart('kitten', 'sitting')).toBe(3);
    fc.assert(
      fc.property(fc.string({ maxLength: 12 }), fc.string({ maxLength: 12 }), (a, b) => {
        expect(lettersApart(a, b)).toBe(lettersApart(b, a));
        expect(lettersApart(a, b) === 0).toBe(a === b);
      }),
    );
  });
});
