import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { CodersCount, Counting, GroupsAsked, RowsAsked } from '../model/pattern';
import type { Stretch } from '../model/stretch';
import type { CaseFinder, CasesOfRows } from '../passages/case-finder';
import { placeOfRow } from '../passages/columns';
import { wordsIn } from '../passages/coverage';
import { union } from '../passages/union';
import { isWhole, type GroupAxis } from './axis';
import type { LookedAt } from './found-axis';
import type { Found } from './found-codes';
import { joinedByCoders } from './joined';

/** What a table counts. */
export interface CountedTable {
  readonly rows: RowsAsked;
  readonly columns: GroupsAsked;
  readonly counting: Counting;
  readonly coders: CodersCount;
}

/** Groups of the passages in which one thing was found. */
interface GroupsOfFound {
  at(row: number): readonly number[];
  atAs(row: number, caseId: Id): readonly number[];
}

/** One document as a table counts it: what was found there, by group and in all. */
export class TableMeasure {
  private readonly cases: CasesOfRows;
  private readonly groups: GroupsOfFound | null;

  /** @param numberOf the number of a case, by which it is told from others when documents are put together; above 0 */
  constructor(
    private readonly asked: CountedTable,
    private readonly here: LookedAt,
    private readonly axis: GroupAxis,
    finder: CaseFinder,
    private readonly numberOf: (caseId: Id) => number,
  ) {
    this.cases = finder.ofRows(here.document, here.spoken, here.columns);
    this.groups = axis.coders ? null : groupsOfRows(axis, here);
  }

  casesAt(row: number): readonly Id[] {
    return this.cases.lists[this.cases.listOf[row]!]!;
  }

  groupsOf({ codings }: Found): GroupsOfFound {
    return this.groups ?? groupsByCoder(this.axis.coders!, this.here.columns, codings);
  }

  /** What counts once: rows that are taken together. Coders who are the groups stay apart in their own. */
  occurrences(found: Found, inAll = false): readonly (readonly number[])[] {
    const apart = this.asked.coders === 'each passage' || (this.groups === null && !inAll);
    return apart ? found.rows.map((row) => [row]) : joinedByCoders(this.here.columns, found);
  }

  /** What is counted whatever the group: a number, or the number of each case. */
  ofAll(found: Found): readonly number[] {
    switch (this.asked.counting) {
      case 'passages':
        return [this.occurrences(found, true).length];
      case 'codings':
        return [found.codings.length];
      case 'documents':
        return [1];
      case 'cases':
        return [...new Set(found.rows.flatMap((row) => this.casesAt(row)))].map(this.numberOf);
      default:
        return [this.lengthOf(found.rows)];
    }
  }

  /** What is counted by group; for cases, group and number of the case. */
  byGroup(found: Found): Iterable<readonly [group: number, amount: number]> {
    const { columns } = this.here;
    const groups = this.groupsOf(found);
    const sums = new Map<number, number>();
    const increase = (group: number): unknown => sums.set(group, (sums.get(group) ?? 0) + 1);
    switch (this.asked.counting) {
      case 'passages':
        for (const rows of this.occurrences(found))
          for (const group of rows.length === 1 ? groups.at(rows[0]!) : new Set(rows.flatMap((row) => groups.at(row)))) increase(group);
        return sums;
      case 'codings':
        for (const at of found.codings) {
          const coder = this.axis.coders?.get(columns.coders[columns.codingCoder[at]!]!);
          if (coder !== undefined) increase(coder);
          else for (const group of groups.at(columns.codingRow[at]!)) increase(group);
        }
        return sums;
      case 'documents':
        for (const group of new Set(found.rows.flatMap((row) => groups.at(row)))) sums.set(group, 1);
        return sums;
      case 'cases': {
        const pairs = new Map<string, readonly [number, number]>();
        for (const row of found.rows)
          for (const id of this.casesAt(row))
            for (const group of groups.atAs(row, id)) pairs.set(`${group} ${id}`, [group, this.numberOf(id)]);
        return pairs.values();
      }
      default: {
        const byGroup = new Map<number, number[]>();
        for (const row of found.rows)
          for (const group of groups.at(row)) {
            const some = byGroup.get(group);
            if (some) some.push(row);
            else byGroup.set(group, [row]);
          }
        for (const [group, rows] of byGroup) sums.set(group, this.lengthOf(rows));
        return sums;
      }
    }
  }

  /** Words of a text or milliseconds of a recording in the union of some passages. @param rows ascending */
  private lengthOf(rows: readonly number[]): number {
    const { columns, text } = this.here;
    const stretches = (): Stretch[] => union(rows.map((row) => ({ start: columns.starts[row]!, end: columns.ends[row]! })));
    if (this.asked.counting === 'words') return columns.ground === 'text' && text ? wordsIn(text, stretches()) : 0;
    return columns.ground === 'time' ? stretches().reduce((sum, { start, end }) => sum + end - start, 0) : 0;
  }
}

/** What tells the groups of passages by where they are. */
function groupsOfRows(axis: GroupAxis, here: LookedAt): GroupsOfFound {
  const groups = axis.of(here);
  if (isWhole(groups)) return { at: () => groups, atAs: () => groups };
  const { lists, listOf } = groups.ofRows(here.columns);
  return { at: (row) => lists[listOf[row]!]!, atAs: (row, caseId) => groups.atAs(placeOfRow(here.columns, row), caseId) };
}

/** Passages in the groups of those who coded them. */
function groupsByCoder(coders: ReadonlyMap<Id, number>, columns: PassageColumns, codings: readonly number[]): GroupsOfFound {
  const byRow = new Map<number, number[]>();
  for (const at of codings) {
    const group = coders.get(columns.coders[columns.codingCoder[at]!]!);
    const row = columns.codingRow[at]!;
    const some = byRow.get(row) ?? [];
    if (group !== undefined && !some.includes(group)) byRow.set(row, [...some, group]);
  }
  const at = (row: number): readonly number[] => byRow.get(row) ?? [];
  return { at, atAs: at };
}
