import type { Id } from '../model/ids';
import type { Carries, Given } from '../model/passage-condition';
import type { PassageColumns } from '../model/passage-columns';
import { codeNumber, codeNumbersOf } from '../passages/code-numbers';
import type { Answering } from './answering';
import type { AskedStudy } from './asked-study';
import type { DocumentHere, Rows } from './document-here';
import { standingTo } from './standing';

/** Answers what codes a passage carries. Where no code is named, any code is meant. */
export function carrying({ carries, number = 1, codes, reach, given }: Carries, study: AskedStudy): Answering {
  const groups = study.groupsOf(codes);
  const named = groups.length > 0;
  const fits = given ? codingsGiven(given) : null;
  const withOverlapping = (here: DocumentHere, rows: Rows): Rows => (reach === 'overlap' ? standingTo(here, rows, 'overlaps') : rows);
  if (carries === 'any' || carries === 'none' || !named) {
    const wanted = named ? numbered(groups.flat()) : null;
    return (here) => {
      const rows = withOverlapping(here, rowsCarryingOne(here, wanted, fits));
      return carries === 'none' ? rows.map((flag) => 1 - flag) : rows;
    };
  }
  const each = groups.map(numbered);
  const enough = carries === 'all' ? each.length : number;
  return (here) => {
    if (enough === 0) return here.every();
    const met = new Uint16Array(here.count);
    for (const wanted of each) {
      const rows = withOverlapping(here, rowsCarryingOne(here, wanted, fits));
      for (let row = 0; row < met.length; row++) met[row]! += rows[row]!;
    }
    return Uint8Array.from(met, (count) => (count >= enough ? 1 : 0));
  };
}

/** Flags by number of code. */
function numbered(codeIds: readonly Id[]): Rows {
  const numbers = codeIds.map(codeNumber);
  const flags = new Uint8Array(numbers.reduce((most, one) => Math.max(most, one), 0) + 1);
  for (const one of numbers) flags[one] = 1;
  return flags;
}

/** Whether a coding of a document counts. */
type Fits = (columns: PassageColumns) => (coding: number) => boolean;

/** Rows that carry one of some codes. @param wanted flags by number of code; null for any code */
function rowsCarryingOne({ columns, coderId, count }: DocumentHere, wanted: Rows | null, fits: Fits | null): Rows {
  const rows = new Uint8Array(count);
  const { codingRow, codingCode, codingCoder } = columns;
  const local = wanted && localFlags(columns, wanted);
  if (wanted && !local) return rows;
  const coder = coderId === null ? -1 : columns.coders.indexOf(coderId);
  if (coderId !== null && coder < 0) return rows;
  const counts = fits?.(columns);
  // plain loops: every coding of the study goes through here
  for (let at = 0; at < codingRow.length; at++) {
    if (local && local[codingCode[at]!] === 0) continue;
    if (coderId !== null && codingCoder[at] !== coder) continue;
    if (counts && !counts(at)) continue;
    rows[codingRow[at]!] = 1;
  }
  return rows;
}

/** Flags by the document's own number of a code; null where it has none of them. */
function localFlags(columns: PassageColumns, wanted: Rows): Rows | null {
  const numbers = codeNumbersOf(columns.codes);
  let flags: Rows | null = null;
  for (let local = 0; local < numbers.length; local++) {
    if (wanted[numbers[local]!] !== 1) continue;
    flags ??= new Uint8Array(numbers.length);
    flags[local] = 1;
  }
  return flags;
}

/** By whom, when and how strongly a coding was given. */
function codingsGiven({ coderIds, from, to, ratedFrom, ratedTo }: Given): Fits {
  const coders = coderIds && new Set(coderIds);
  const first = from === undefined ? -Infinity : dayBegins(from, 0);
  const behind = to === undefined ? Infinity : dayBegins(to, 1);
  const rated = ratedFrom !== undefined || ratedTo !== undefined;
  return (columns) => {
    const allowed = coders && columns.coders.map((id) => coders.has(id));
    const ratings = rated ? new Map(columns.ratings?.map(({ at, rating }) => [at, rating])) : null;
    return (at) => {
      if (allowed && !allowed[columns.codingCoder[at]!]) return false;
      const time = columns.codingAt[at]!;
      if (time < first || time >= behind) return false;
      if (!ratings) return true;
      const rating = ratings.get(at);
      return rating !== undefined && rating >= (ratedFrom ?? -Infinity) && rating <= (ratedTo ?? Infinity);
    };
  };
}

/** When a day begins where the researcher is, milliseconds since 1970. @param later days added */
function dayBegins(day: string, later: number): number {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number];
  return new Date(year, month - 1, date + later).getTime();
}
