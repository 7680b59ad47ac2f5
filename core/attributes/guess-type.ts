import type { Attribute } from '../model/case';
import { isMissing } from './missing';
import { parseValue } from './values';

/** A guess, with its reason in words for the researcher. */
export interface TypeGuess {
  readonly type: Attribute['type'];
  readonly because: string;
}

/** A type is guessed where this share of the filled cells fits it; the others are shown as not fitting. */
const MOST = 0.9;

/** Characters of the longest number, date or choice that is written out. */
const LONGEST = 60;

/** Guesses the type of a column from its cells. */
export function guessType(cells: readonly string[]): TypeGuess {
  const filled = cells.filter((cell) => cell.trim() && !isMissing(cell));
  if (filled.length === 0) return { type: 'text', because: 'it is empty' };
  const longest = filled.reduce((most, cell) => Math.max(most, cell.length), 0);
  // each value is looked at once, however often it stands there
  const counts = new Map<string, number>();
  for (const cell of filled) counts.set(cell, (counts.get(cell) ?? 0) + 1);
  const share = (type: Attribute['type']): number => {
    let fitting = 0;
    let left = filled.length;
    for (const [cell, count] of counts) {
      if (cell.length <= LONGEST && parseValue(cell, type) !== null) fitting += count;
      left -= count;
      if ((fitting + left) / filled.length < MOST) return 0;
    }
    return fitting / filled.length;
  };
  const distinct = new Set([...counts.keys()].map((cell) => cell.toLocaleLowerCase()));
  const said = (count: number): string => `${Math.round(count * 100)} % of the cells are`;
  if (distinct.size <= 2 && share('yes/no') === 1 && !/^[01]$/.test(filled[0]!))
    return { type: 'yes/no', because: 'all cells say yes or no' };
  const dates = share('date');
  if (dates >= MOST) return { type: 'date', because: `${said(dates)} dates` };
  const numbers = share('number');
  if (numbers >= MOST) return { type: 'number', because: `${said(numbers)} numbers` };
  if (longest <= LONGEST && distinct.size <= Math.max(2, Math.min(30, filled.length / 2)))
    return { type: 'choice', because: `${distinct.size} distinct values in ${filled.length} cells` };
  return { type: 'text', because: `${distinct.size} distinct values` };
}
