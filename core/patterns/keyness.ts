/** How far a word stands out in one part of a material against another. */
export interface Keyness {
  /** Dunning's log-likelihood, G²: 0 where both have it as often, for their size. */
  readonly likelihood: number;
  /** Log ratio: how many times its share doubles from the one to the other; under 0 where it is rarer. */
  readonly ratio: number;
}

/** What stands in for a count of 0 in the log ratio, which could not be said otherwise (Hardie 2014). */
const HALF = 0.5;

/**
 * Log-likelihood of a word's counts in two parts (Dunning 1993, in the form of Rayson & Garside 2000:
 * 2 × (a ln(a ÷ E₁) + b ln(b ÷ E₂))), and log ratio as its size of effect (Hardie 2014).
 * @param a how often it is in the one @param b in the other @param ofA words there are in the one @param ofB in the other
 * @returns zeros where a part has no words
 */
export function keyness(a: number, b: number, ofA: number, ofB: number): Keyness {
  if (ofA === 0 || ofB === 0) return { likelihood: 0, ratio: 0 };
  const expected = (of: number): number => (of * (a + b)) / (ofA + ofB);
  const part = (found: number, of: number): number => (found === 0 ? 0 : found * Math.log(found / expected(of)));
  return {
    likelihood: Math.max(0, 2 * (part(a, ofA) + part(b, ofB))),
    ratio: Math.log2((a || HALF) / ofA / ((b || HALF) / ofB)),
  };
}
