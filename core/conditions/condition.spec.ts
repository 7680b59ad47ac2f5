import fc from 'fast-check';
import { testOf, type Asking, type Condition } from './condition';

interface Boat {
  readonly name?: string;
  readonly seats?: number;
  readonly calls?: readonly string[];
}
type Of = keyof Boat;
const asking: Asking<Of, Boat> = { read: (of) => (boat) => boat[of] };
const part = (
  of: Of,
  comparison: 'is' | 'is not' | 'holds' | 'is over' | 'is under' | 'is known' | 'is not known',
  value: string | number = '',
) => ({ of, comparison, value }) as const;
const meets = (boat: Boat, condition: Condition<Of>) => testOf(condition, asking)(boat);

describe('a condition', () => {
  const ferry: Boat = { name: 'Hope', seats: 40, calls: ['Gull Bay', 'Saltpans'] };

  it('holds what a record has against a value', () => {
    expect(meets(ferry, part('name', 'is', 'Hope'))).toBeTrue();
    expect(meets(ferry, part('name', 'holds', 'hOP'))).toBeTrue();
    expect(meets(ferry, part('seats', 'is over', 39))).toBeTrue();
    expect(meets(ferry, part('seats', 'is over', 40))).toBeFalse();
    expect(meets(ferry, part('seats', 'is under', 41))).toBeTrue();
    expect(meets(ferry, { of: 'seats', comparison: 'is one of', value: [1, 40] })).toBeTrue();
  });

  it('of several values is met by one, and "is not" only where none is it', () => {
    expect(meets(ferry, part('calls', 'is', 'Saltpans'))).toBeTrue();
    expect(meets(ferry, part('calls', 'is not', 'Saltpans'))).toBeFalse();
    expect(meets(ferry, part('calls', 'holds', 'gull'))).toBeTrue();
    expect(meets({ calls: [] }, part('calls', 'is not', 'Saltpans'))).toBeTrue();
  });

  it('on what is not known is met only by not known and not', () => {
    const met = (['is', 'is not', 'holds', 'is over', 'is under', 'is known', 'is not known'] as const).filter((comparison) =>
      meets({}, part('seats', comparison, 1)),
    );
    expect(met).toEqual(['is not', 'is not known']);
  });

  it('compares and folds as whoever asks says', () => {
    const backwards: Asking<Of, Boat> = {
      ...asking,
      compare: (_, a, b) => Number(b) - Number(a),
      fold: (words) => words.replace(/o/g, '0'),
    };
    expect(testOf(part('seats', 'is over', 41), backwards)(ferry)).toBeTrue();
    expect(testOf(part('name', 'holds', 'H0pe'), backwards)(ferry)).toBeTrue();
  });

  it('nests as logic has it, whatever the parts are', () => {
    const leaf: fc.Arbitrary<Condition<Of>> = fc.nat(60).map((value) => part('seats', value % 2 ? 'is over' : 'is under', value));
    const { condition } = fc.letrec<{ condition: Condition<Of> }>((tie) => {
      const some = fc.array(tie('condition'), { maxLength: 3 });
      return {
        condition: fc.oneof(
          { maxDepth: 4 },
          leaf,
          some.map((all) => ({ all })),
          some.map((any) => ({ any })),
          some.map((none) => ({ none })),
        ),
      };
    });
    const naive = (boat: Boat, one: Condition<Of>): boolean => {
      if ('of' in one) return one.comparison === 'is over' ? boat.seats! > Number(one.value) : boat.seats! < Number(one.value);
      if ('all' in one) return one.all.filter((each) => !naive(boat, each)).length === 0;
      if ('any' in one) return one.any.filter((each) => naive(boat, each)).length > 0;
      return one.none.filter((each) => naive(boat, each)).length === 0;
    };
    fc.assert(fc.property(condition, fc.nat(60), (one, seats) => expect(meets({ seats }, one)).toBe(naive({ seats }, one))));
  });
});
