import type { Attribute, AttributeValue } from '../model/case';
import { compareValues, showValue } from '../attributes/values';

/** Where numbers or dates are cut: each cut begins the next band. */
export type Cuts = readonly (number | string)[];

/** Attributes whose values can be cut into bands. */
export const canBeCut = ({ type }: Pick<Attribute, 'type'>): boolean => type === 'number' || type === 'date';

/** In which band a value lies: how many cuts are not over it. @param cuts ascending */
export function bandOf(attribute: Attribute, value: AttributeValue, cuts: Cuts): number {
  let band = 0;
  while (band < cuts.length && compareValues(attribute, cuts[band], value) <= 0) band++;
  return band;
}

/** What a band is called: "under 30", "30 to under 50", "50 and over"; of dates "before", "to before" and "from". */
export function bandName({ type }: Pick<Attribute, 'type'>, cuts: Cuts, band: number): string {
  const dates = type === 'date';
  const [from, to] = [cuts[band - 1], cuts[band]];
  if (from === undefined) return `${dates ? 'before' : 'under'} ${showValue(to)}`;
  if (to === undefined) return dates ? `from ${showValue(from)}` : `${showValue(from)} and over`;
  return `${showValue(from)} to ${dates ? 'before' : 'under'} ${showValue(to)}`;
}

/** Distinct values from which on numbers are cut unless the researcher says otherwise. */
const MANY = 8;

/**
 * Tidy cuts for numbers: multiples of 1, 2 or 5 times a power of ten that make three to six bands.
 * @returns none where there are few distinct numbers
 */
export function tidyCuts(numbers: readonly number[]): number[] {
  if (new Set(numbers).size <= MANY) return [];
  const [least, most] = [Math.min(...numbers), Math.max(...numbers)];
  const rough = (most - least) / 5;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = power * [1, 2, 5, 10].find((times) => times * power >= rough)!;
  const cuts: number[] = [];
  for (let cut = Math.floor(least / step) * step + step; cut <= most; cut += step) cuts.push(Number(cut.toPrecision(12)));
  return cuts;
}
