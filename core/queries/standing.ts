import type { Standing, Within } from '../model/passage-condition';
import { inside, overlaps, samePlace } from '../passages/relations';
import { Meetings } from '../passages/meetings';
import { countUpTo, type DocumentHere, type Rows } from './document-here';

/**
 * The passages that stand so to at least one of some others of their document. A passage overlaps itself, is at its own
 * place and near itself; it is not inside, around, before or behind itself (`docs/calculations.md`). Answered for all
 * rows at once, in one walk over those that may be stood to, or by a search in them.
 * @param others flags of the passages it may stand to
 * @param within how far at most; in a ground that has no such measure only what overlaps is near, and nothing is before or behind
 */
export function standingTo(here: DocumentHere, others: Rows, standing: Standing, within?: Within): Rows {
  const rows: number[] = [];
  for (let row = 0; row < others.length; row++) if (others[row]) rows.push(row);
  if (rows.length === 0) return here.none();
  if (here.columns.ground === 'picture') return standingOfAreas(here, others, standing);
  switch (standing) {
    case 'overlaps':
      return overlapping(here, rows);
    case 'same place':
      return atThePlace(here, rows);
    case 'inside':
      return insideOf(here, rows);
    case 'around':
      return aroundOf(here, rows);
    case 'near':
      return nearTo(here, rows, within);
    case 'before':
      return beforeOf(here, rows, within);
    case 'after':
      return afterOf(here, rows, within);
  }
}

/** Flags each row of a document of which something holds. */
function rowsWhere(here: DocumentHere, holds: (start: number, end: number) => boolean): Rows {
  const { starts, ends } = here.columns;
  const flags = here.none();
  for (let row = 0; row < flags.length; row++) if (holds(starts[row]!, ends[row]!)) flags[row] = 1;
  return flags;
}

/** Where passages begin, ascending as rows are. */
function startsOf({ columns: { starts } }: DocumentHere, rows: readonly number[]): Float64Array {
  const some = new Float64Array(rows.length);
  for (let at = 0; at < some.length; at++) some[at] = starts[rows[at]!]!;
  return some;
}

/** Where passages end, ascending. */
function endsOf({ columns: { ends } }: DocumentHere, rows: readonly number[]): Float64Array {
  const some = new Float64Array(rows.length);
  for (let at = 0; at < some.length; at++) some[at] = ends[rows[at]!]!;
  return some.sort();
}

/**
 * A walk over the rows by where they begin. One of those before a reaches over its start, or the next one begins
 * before its end: whatever overlaps a is one of these.
 */
function overlapping(here: DocumentHere, rows: readonly number[]): Rows {
  const { starts, ends } = here.columns;
  const flags = here.none();
  let [next, reach] = [0, 0];
  for (let row = 0; row < flags.length; row++) {
    const start = starts[row]!;
    while (next < rows.length && starts[rows[next]!]! <= start) reach = Math.max(reach, ends[rows[next++]!]!);
    if (reach > start || (next < rows.length && starts[rows[next]!]! < ends[row]!)) flags[row] = 1;
  }
  return flags;
}

function atThePlace(here: DocumentHere, rows: readonly number[]): Rows {
  const { starts, ends } = here.columns;
  const places = new Map<number, Set<number>>();
  for (const row of rows) {
    const some = places.get(starts[row]!);
    if (some) some.add(ends[row]!);
    else places.set(starts[row]!, new Set([ends[row]!]));
  }
  return rowsWhere(here, (start, end) => places.get(start)?.has(end) ?? false);
}

/** Of those that begin not behind a, one reaches over its end; or one that begins before it reaches its end. */
function insideOf(here: DocumentHere, rows: readonly number[]): Rows {
  const starts = startsOf(here, rows);
  /** The furthest end of the first n. */
  const reach = new Float64Array(rows.length + 1);
  rows.forEach((row, at) => (reach[at + 1] = Math.max(reach[at]!, here.columns.ends[row]!)));
  return rowsWhere(here, (start, end) => reach[countUpTo(starts, start)]! > end || reach[countUpTo(starts, start - 1)]! >= end);
}

/** Of those that begin not before a, one ends before its end; or one that begins behind its start ends with it. */
function aroundOf(here: DocumentHere, rows: readonly number[]): Rows {
  const starts = startsOf(here, rows);
  /** The nearest end of all but the first n. */
  const nearest = new Float64Array(rows.length + 1).fill(Infinity);
  for (let at = rows.length - 1; at >= 0; at--) nearest[at] = Math.min(nearest[at + 1]!, here.columns.ends[rows[at]!]!);
  return rowsWhere(here, (start, end) => nearest[countUpTo(starts, start - 1)]! < end || nearest[countUpTo(starts, start)]! <= end);
}

/** As {@link overlapping}, in another measure, and after a was made longer by the distance on both sides. */
function nearTo(here: DocumentHere, rows: readonly number[], within?: Within): Rows {
  const measure = within && here.measureIn(within.unit);
  if (!measure) return overlapping(here, rows);
  const { starts, ends } = here.columns;
  // milliseconds lie between positions, so an end is where the next begins; units are counted, so the last one is meant
  const timed = within.unit === 'second';
  const distance = within.count * (timed ? 1000 : 1);
  const lastOf = (row: number): number => measure(timed ? ends[row]! : ends[row]! - 1);
  const flags = here.none();
  let [next, reach] = [0, -Infinity];
  for (let row = 0; row < flags.length; row++) {
    const from = measure(starts[row]!) - distance;
    while (next < rows.length && measure(starts[rows[next]!]!) <= from) reach = Math.max(reach, lastOf(rows[next++]!));
    if (reach >= from || (next < rows.length && measure(starts[rows[next]!]!) <= lastOf(row) + distance)) flags[row] = 1;
  }
  return flags;
}

function beforeOf(here: DocumentHere, rows: readonly number[], within?: Within): Rows {
  const starts = startsOf(here, rows);
  const measure = within && here.measureIn(within.unit);
  if (within && !measure) return here.none();
  return rowsWhere(here, (_, end) => {
    const next = starts[countUpTo(starts, end - 1)];
    return next !== undefined && (!measure || gap(measure, end, next, within!) <= within!.count);
  });
}

function afterOf(here: DocumentHere, rows: readonly number[], within?: Within): Rows {
  const ends = endsOf(here, rows);
  const measure = within && here.measureIn(within.unit);
  if (within && !measure) return here.none();
  return rowsWhere(here, (start) => {
    const last = ends[countUpTo(ends, start) - 1];
    return last !== undefined && (!measure || gap(measure, last, start, within!) <= within!.count);
  });
}

/** How far it is from an end to a start behind it. */
const gap = (measure: (position: number) => number, end: number, start: number, { unit }: Within): number =>
  unit === 'second' ? Math.max(0, measure(start) - measure(end)) / 1000 : measure(start) - measure(end - 1);

/** Areas are few, and are looked at one by one; they have no order. */
function standingOfAreas(here: DocumentHere, others: Rows, standing: Standing): Rows {
  const flags = here.none();
  if (standing === 'before' || standing === 'after') return flags;
  const meetings = new Meetings(here.columns);
  for (let row = 0; row < flags.length; row++) {
    const place = here.place(row);
    const holds = meetings.of(row).some((other) => {
      if (!others[other]) return false;
      const there = here.place(other);
      switch (standing) {
        case 'same place':
          return samePlace(place, there);
        case 'inside':
          return inside(place, there);
        case 'around':
          return inside(there, place);
        default:
          return overlaps(place, there);
      }
    });
    if (holds) flags[row] = 1;
  }
  return flags;
}
