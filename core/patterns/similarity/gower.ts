import type { Attribute, AttributeValue } from '../../model/case';
import { sharedFeatures, type Likeness } from './likeness';
import type { Profile } from './profile';

/** A fact by which things are compared: of each its value, undefined where it is not known. */
export interface ComparedFact {
  readonly attribute: Attribute;
  readonly values: readonly (AttributeValue | undefined)[];
}

const DAY = 86_400_000;

/**
 * Gower's general coefficient of similarity (Gower 1971, Biometrics 27, 857–871). Each code is a variable of presence,
 * which counts where at least one of two has it; each attribute a variable that counts where it is known of both: the
 * same or not, or for numbers and dates 1 − difference ÷ range. Without attributes it is Jaccard's coefficient. Two of
 * which no variable counts are not alike.
 */
export function gowerLikeness(rows: readonly Profile[], facts: readonly ComparedFact[]): Likeness {
  const size = rows.length;
  const both = sharedFeatures(rows);
  const compared = facts.map(({ attribute, values }) => sameness(attribute, values));
  const likeness = new Float64Array(size * size);
  for (let a = 0; a < size; a++) {
    likeness[a * size + a] = 1;
    for (let b = a + 1; b < size; b++) {
      let alike = both[a * size + b]!;
      let counted = rows[a]!.features.length + rows[b]!.features.length - alike;
      for (const one of compared) {
        const same = one(a, b);
        if (same === null) continue;
        alike += same;
        counted++;
      }
      likeness[a * size + b] = likeness[b * size + a] = counted > 0 ? alike / counted : 0;
    }
  }
  return likeness;
}

/** How alike two things are in one attribute, 0 to 1; null where it is not known of both. */
function sameness({ type }: Attribute, values: ComparedFact['values']): (a: number, b: number) => number | null {
  if (type !== 'number' && type !== 'date')
    return (a, b) => (values[a] === undefined || values[b] === undefined ? null : Number(values[a] === values[b]));
  const numbers = values.map((value) => (value === undefined ? NaN : type === 'number' ? Number(value) : Date.parse(String(value)) / DAY));
  const known = numbers.filter((one) => !Number.isNaN(one));
  const range = known.reduce((most, one) => Math.max(most, one), -Infinity) - known.reduce((least, one) => Math.min(least, one), Infinity);
  return (a, b) => {
    const apart = Math.abs(numbers[a]! - numbers[b]!);
    return Number.isNaN(apart) ? null : range > 0 ? 1 - apart / range : 1;
  };
}
