import type { PassageColumns } from '../model/passage-columns';
import type { CodersCount, TogetherAsked } from '../model/pattern';
import type { Stretch } from '../model/stretch';
import { placeOfRow } from '../passages/columns';
import { overlaps } from '../passages/relations';
import { DocumentHere } from '../queries/document-here';
import type { LookedAt } from './found-axis';
import type { Found } from './found-codes';
import { joinedByCoders } from './joined';

/** One thing found, as often as it counts: the rows that count once, and the place they take up. */
export interface Occurrence extends Stretch {
  readonly rows: readonly number[];
}

/** What was found, as often as it counts. */
export const occurrencesOf = (columns: PassageColumns, found: Found, coders: CodersCount): Occurrence[] =>
  (coders === 'each passage' ? found.rows.map((row) => [row]) : joinedByCoders(columns, found)).map((rows) => ({
    rows,
    start: columns.starts[rows[0]!]!,
    end: Math.max(...rows.map((row) => columns.ends[row]!)),
  }));

/** When occurrences of a document are together: they overlap, or stand so near. */
export class Togetherness {
  /** Where an occurrence begins and ends in units, and how far apart two may be; null where only what overlaps is together. */
  private readonly near: { first(one: Stretch): number; last(one: Stretch): number; readonly most: number } | null = null;
  private readonly columns: PassageColumns;

  /** @param language BCP 47 tag, for sentences */
  constructor(
    { columns, document, text, spoken }: LookedAt,
    { by, within: { count, unit } }: Pick<TogetherAsked, 'by' | 'within'>,
    language: string,
  ) {
    this.columns = columns;
    const measure = by === 'near' ? new DocumentHere(columns, document, text, language, spoken).measureIn(unit) : null;
    // milliseconds lie between positions, so an end is where the next begins; units are counted, so the last one is meant
    const timed = unit === 'second';
    if (measure)
      this.near = {
        first: ({ start }) => measure(start),
        last: ({ end }) => measure(timed ? end : end - 1),
        most: count * (timed ? 1_000 : 1),
      };
  }

  of(a: Occurrence, b: Occurrence): boolean {
    const { near, columns } = this;
    if (!near) return meet(columns, a, b);
    const follows = (one: Occurrence, other: Occurrence): boolean => near.first(other) - near.last(one) <= near.most;
    return follows(a, b) && follows(b, a);
  }

  /** Tells every two occurrences of different entries that are together, once. A sweep over where they begin. */
  each(occurrences: readonly (readonly Occurrence[] | undefined)[], tell: (a: number, b: number) => void): void {
    const all = occurrences
      .flatMap((some, entry) => (some ?? []).map(({ rows, start, end }) => ({ rows, start, end, entry })))
      .sort((a, b) => a.start - b.start);
    let open: typeof all = [];
    for (const next of all) {
      open = open.filter((one) => !this.leftBehind(one, next));
      for (const one of open) if (one.entry !== next.entry && this.of(one, next)) tell(one.entry, next.entry);
      open.push(next);
    }
  }

  /** Whether one that began before is too far back to be together with the next or any after it. */
  private leftBehind(one: Stretch, next: Stretch): boolean {
    const { near } = this;
    return near ? near.first(next) - near.last(one) > near.most : one.end <= next.start;
  }
}

/** Whether occurrences have a place in common; of areas, whether any two of theirs do. */
function meet(columns: PassageColumns, a: Occurrence, b: Occurrence): boolean {
  if (Math.max(a.start, b.start) >= Math.min(a.end, b.end)) return false;
  if (columns.ground !== 'picture') return true;
  return a.rows.some((one) => b.rows.some((other) => overlaps(placeOfRow(columns, one), placeOfRow(columns, other))));
}

/** What lies in both of two unions. */
export function shared(a: readonly Stretch[], b: readonly Stretch[]): Stretch[] {
  const both: Stretch[] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const start = Math.max(a[i]!.start, b[j]!.start);
    const end = Math.min(a[i]!.end, b[j]!.end);
    if (start < end) both.push({ start, end });
    if (a[i]!.end < b[j]!.end) i++;
    else j++;
  }
  return both;
}
