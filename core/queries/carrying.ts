import type { Id } from '../model/ids';
import type { Carries, Given } from '../model/passage-condition';
import type { PassageColumns } from '../model/passage-columns';
import { marksByCoding } from '../passages/columns';
import { codeNumber, codeNumbersOf } from '../passages/code-numbers';
import type { Answering } from './answering';
import type { AskedStudy } from './asked-study';
import { notOf, type DocumentHere, type Rows } from './document-here';
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
      return carries === 'none' ? notOf(rows) : rows;
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
    const rows = here.none();
    for (let row = 0; row < rows.length; row++) if (met[row]! >= enough) rows[row] = 1;
    return rows;
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
function rowsCarryingOne({ columns, count }: DocumentHere, wanted: Rows | null, fits: Fits | null): Rows {
  const rows = new Uint8Array(count);
  const { codingRow } = columns;
  const counts = fits?.(columns);
  const { order, from } = codingsByCode(columns);
  const numbers = codeNumbersOf(columns.codes);
  for (let local = 0; local < numbers.length; local++) {
    if (wanted && wanted[numbers[local]!] !== 1) continue;
    for (let nth = from[local]!; nth < from[local + 1]!; nth++) {
      const at = order[nth]!;
      if (counts && !counts(at)) continue;
      rows[codingRow[at]!] = 1;
    }
  }
  return rows;
}

/** The codings of a document by code: those of its nth code are `order[from[n]]` up to `order[from[n + 1]]`. Remembered with the columns. */
interface CodingsByCode {
  readonly order: Uint32Array;
  readonly from: Uint32Array;
}
const byCode = new WeakMap<PassageColumns, CodingsByCode>();

function codingsByCode(columns: PassageColumns): CodingsByCode {
  let sorted = byCode.get(columns);
  if (!sorted) byCode.set(columns, (sorted = sortedByCode(columns)));
  return sorted;
}

/** A counting sort: as many places for each code as it has codings. */
function sortedByCode({ codes, codingCode }: PassageColumns): CodingsByCode {
  const from = new Uint32Array(codes.length + 1);
  for (const code of codingCode) from[code + 1]!++;
  for (let local = 0; local < codes.length; local++) from[local + 1]! += from[local]!;
  const next = from.slice();
  const order = new Uint32Array(codingCode.length);
  for (let at = 0; at < codingCode.length; at++) order[next[codingCode[at]!]!++] = at;
  return { order, from };
}

/** By whom, when and how strongly a coding was given. */
function codingsGiven({ coderIds, from, to, ratedFrom, ratedTo, swept }: Given): Fits {
  const coders = coderIds && new Set(coderIds);
  const first = from === undefined ? -Infinity : dayBegins(from, 0);
  const behind = to === undefined ? Infinity : dayBegins(to, 1);
  const rated = ratedFrom !== undefined || ratedTo !== undefined;
  const marked = rated || swept !== undefined;
  return (columns) => {
    const allowed = coders && columns.coders.map((id) => coders.has(id));
    const marks = marked ? marksByCoding(columns) : null;
    return (at) => {
      if (allowed && !allowed[columns.codingCoder[at]!]) return false;
      const time = columns.codingAt[at]!;
      if (time < first || time >= behind) return false;
      const { rating, swept: isSwept = false } = marks?.get(at) ?? {};
      if (swept !== undefined && swept !== isSwept) return false;
      if (!rated) return true;
      return rating !== undefined && rating >= (ratedFrom ?? -Infinity) && rating <= (ratedTo ?? Infinity);
    };
  };
}

/** When a day begins where the researcher is, milliseconds since 1970. @param later days added */
export function dayBegins(day: string, later: number): number {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number];
  return new Date(year, month - 1, date + later).getTime();
}
