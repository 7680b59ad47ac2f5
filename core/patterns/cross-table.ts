import type { Document, Text } from '../model/document';
import { hasText } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { CodersCount, Counting, GroupsAsked, RowsAsked } from '../model/pattern';
import type { Stretch } from '../model/stretch';
import { CaseFinder } from '../passages/code-use';
import { placeOfRow } from '../passages/columns';
import { wordsIn } from '../passages/coverage';
import { union } from '../passages/union';
import type { AskedStudy } from '../queries/asked-study';
import { hitsOf, type Hit } from '../queries/evaluate';
import type { Narrowing } from '../queries/narrowing';
import { isWhole, type Entry, type GroupAxis, type GroupsOfPlace } from './axis';
import { foundAxisOf, type Found, type FoundAxis, type LookedAt } from './found-axis';
import { groupAxisOf } from './group-axis';
import { GroupSizes, type GroupSize } from './group-sizes';
import { codedBySeveral, joinedByCoders, severalCoders } from './joined';
import { countQuickly, Scratch } from './quick-part';
import { addTurned, narrowed, shownGroups } from './table-cells';

/** What a table counts. */
export interface CountedTable {
  readonly rows: RowsAsked;
  readonly columns: GroupsAsked;
  readonly counting: Counting;
  readonly coders: CodersCount;
}

/**
 * Counts of what was found by group. Rows and columns have one more at the end: what is in any of the rows, and in the
 * scope whether in a column or not. What is in several rows or columns counts once there, so they are no sums.
 */
export interface CrossTable {
  readonly rows: readonly Entry[];
  readonly columns: readonly Entry[];
  /** Row by row, `(columns + 1)` each; milliseconds where seconds are counted. */
  readonly counts: Float64Array;
  readonly sizes: readonly GroupSize[];
  /** Whether documents in scope have codings of more than one coder, so that it matters how they count. */
  readonly severalCoders: boolean;
}

/** A cell as it is asked for: places of row and column; one more than the last stands for all of them. */
export interface Cell {
  readonly row: number;
  readonly column: number;
}

/** The passages that a cell counts. */
export interface CellEvidence {
  readonly hits: readonly Hit[];
  /** How many they count as, where those that coders marked over each other are taken together. */
  readonly places: number;
  readonly cases: readonly Id[];
}

/** What one document brings: cells and amounts; for cases, cells and the numbers of the cases. */
interface Part {
  readonly cells: Uint32Array;
  readonly amounts: Float64Array;
  readonly severalCoders: boolean;
  /** Where all of the document is in the same groups: cells are rows then, and count in each of these. */
  readonly groups?: readonly number[];
}

/**
 * Counts a table document by document. What a document brings is remembered with its passages, so that after a change
 * only the documents that changed are counted.
 *
 * Passages: distinct ones that carry the code (or answer the query), by {@link joinedByCoders} where coders are taken
 * together. Codings: passage × code × coder. Cases, documents: how many have at least one. Words: in the union of the
 * passages; a word that is cut counts. Seconds: in the union of spans of recordings.
 */
export class CrossCounter {
  readonly found: FoundAxis;
  readonly groups: GroupAxis;
  private readonly width: number;
  private readonly parts = new WeakMap<PassageColumns, Part>();
  private readonly scratch: Scratch;
  private readonly caseNumbers = new Map<Id, number>();
  private readonly sizes: GroupSizes;

  /** @param documents those in scope, in the order in which they stand beside each other */
  constructor(
    private readonly asked: CountedTable,
    private readonly study: AskedStudy,
    private readonly narrowing: Narrowing,
    documents: readonly Document[],
  ) {
    this.found = foundAxisOf(asked.rows, study);
    this.groups = groupAxisOf(asked.columns, study, documents);
    this.width = this.groups.entries.length + 1;
    this.scratch = new Scratch((this.found.entries.length + 1) * this.width);
    this.sizes = new GroupSizes(this.groups, study, narrowing);
  }

  /** Whether a document's text must be at hand to count it. */
  needsText(document: Document): boolean {
    return (
      hasText(document) &&
      (this.asked.counting === 'words' ||
        this.found.needsText(document) ||
        this.groups.needsSpoken(document) ||
        CaseFinder.needsText(document) ||
        this.narrowing.needsSpoken(document))
    );
  }

  /** Whether nothing has changed in a document since it was counted. */
  knows(columns: PassageColumns | null, document: Document): boolean {
    return (columns === null || this.parts.has(columns)) && this.sizes.knows(document);
  }

  add(columns: PassageColumns | null, document: Document, text: Text | null): void {
    this.sizes.add(document, text);
    if (columns && !this.parts.has(columns)) this.parts.set(columns, this.partOf(columns, document, text));
  }

  /** The table over some documents that were counted. */
  result(documents: Iterable<PassageColumns>): CrossTable {
    const height = this.found.entries.length + 1;
    const counts = new Float64Array(height * this.width);
    // what one document adds to a column lies beside each other there, and far apart in rows
    let byColumn: Float64Array | null = null;
    const distinct = this.asked.counting === 'cases';
    const cases = Math.max(1, this.caseNumbers.size);
    const seen = new Set<number>();
    let several = false;
    for (const columns of documents) {
      const part = this.parts.get(columns);
      if (!part) continue;
      several ||= part.severalCoders;
      const { cells, amounts, groups } = part;
      if (groups) {
        byColumn ??= new Float64Array(height * this.width);
        for (const group of groups) {
          const first = group * height;
          for (let at = 0; at < cells.length; at++) byColumn[first + cells[at]!]! += amounts[at]!;
        }
        continue;
      }
      for (let at = 0; at < cells.length; at++) {
        const cell = cells[at]!;
        if (!distinct) counts[cell]! += amounts[at]!;
        else {
          const key = cell * cases + amounts[at]!;
          if (seen.has(key)) continue;
          seen.add(key);
          counts[cell]!++;
        }
      }
    }
    if (byColumn) addTurned(counts, byColumn, height, this.width);
    return this.shown(counts, several);
  }

  /** Whether a cell can count anything of a document, before it is known who speaks where. */
  mayConcern(document: Document, { column }: Cell): boolean {
    if (column === this.width - 1 || this.groups.coders) return true;
    const groups = this.groups.of({ document, spoken: null });
    return !isWhole(groups) || groups.includes(column);
  }

  /** The passages of a document that a cell counts. */
  evidenceIn(columns: PassageColumns, document: Document, text: Text | null, { row, column }: Cell): CellEvidence {
    const here = this.lookedAt(columns, document, text);
    const found = here && this.found.in(here)[row];
    if (!here || !found) return { hits: [], places: 0, cases: [] };
    const groupsOf = this.groupsIn(here, found);
    const isIn = (one: number): boolean => column === this.width - 1 || groupsOf.at(one).includes(column);
    const kept = found.rows.filter(isIn);
    const cases = new Set<Id>();
    for (const one of kept)
      for (const id of this.casesAt(here, one)) if (column === this.width - 1 || groupsOf.atAs(one, id).includes(column)) cases.add(id);
    return {
      hits: hitsOf(here.columns, kept),
      places: this.occurrences(here, found, column).filter((rows) => rows.some(isIn)).length,
      cases: [...cases],
    };
  }

  private lookedAt(columns: PassageColumns, document: Document, text: Text | null): LookedAt | null {
    const left = this.narrowing.leftOf(columns, document, text);
    return left && { columns: left, document, text, spoken: text };
  }

  /** What counts once: rows that are taken together. Coders who are the groups stay apart in their own. */
  private occurrences({ columns }: LookedAt, found: Found, column?: number): readonly (readonly number[])[] {
    const apart = this.asked.coders === 'each passage' || (this.groups.coders !== undefined && column !== this.width - 1);
    return apart ? found.rows.map((row) => [row]) : joinedByCoders(columns, found);
  }

  private casesAt({ columns, document, spoken }: LookedAt, row: number): readonly Id[] {
    return this.study.finder.of(document, spoken, { start: columns.starts[row]!, end: columns.ends[row]! });
  }

  /** Groups of the passages in which something was found. */
  private groupsIn(
    here: LookedAt,
    { codings }: Found,
  ): { at(row: number): readonly number[]; atAs(row: number, caseId: Id): readonly number[] } {
    const { coders } = this.groups;
    const { columns } = here;
    if (coders) {
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
    const groups = this.groups.of(here);
    if (isWhole(groups)) return { at: () => groups, atAs: () => groups };
    return {
      at: (row) => groups.at(placeOfRow(columns, row)),
      atAs: (row, caseId) => groups.atAs(placeOfRow(columns, row), caseId),
    };
  }

  private partOf(columns: PassageColumns, document: Document, text: Text | null): Part {
    const here = this.lookedAt(columns, document, text);
    const quick = here && this.quickPart(here);
    return quick ?? this.slowPart(here);
  }

  /** Where codings alone say what is found, and where: one walk over them. Null where it takes more. */
  private quickPart(here: LookedAt): Part | null {
    const { columns } = here;
    const { counting, coders } = this.asked;
    const lines = this.found.entriesOf?.(columns);
    if (!lines || this.groups.coders || (counting !== 'passages' && counting !== 'codings' && counting !== 'documents')) return null;
    const any = this.width - 1;
    const groups = this.groups.of(here);
    const whole = isWhole(groups) ? [...groups, any] : null;
    const several = codedBySeveral(columns);
    const counted = countQuickly(this.scratch, {
      ...{ columns, lines, entries: this.found.entries.length, width: this.width, counting },
      groupsOf: whole ? null : withAny(columns, groups as GroupsOfPlace, any),
      joined: counting === 'passages' && coders === 'together' && several,
    });
    return { ...counted, severalCoders: several, ...(whole && { groups: whole }) };
  }

  private slowPart(here: LookedAt | null): Part {
    const found = here ? this.found.in(here) : [];
    const cells: number[] = [];
    const amounts: number[] = [];
    const any = this.width - 1;
    const put = (row: number, column: number, amount: number): void => {
      if (amount === 0) return;
      cells.push(row * this.width + column);
      amounts.push(amount);
    };
    found.forEach((some, row) => {
      if (!here || !some) return;
      for (const [column, amount] of this.amountsOf(here, some)) put(row, column, amount);
      this.wholeOf(here, some, (amount) => put(row, any, amount));
    });
    const codings = found.at(-1)?.codings;
    return {
      cells: Uint32Array.from(cells),
      amounts: Float64Array.from(amounts),
      severalCoders: here !== null && codings !== undefined && severalCoders(here.columns, codings),
    };
  }

  /** What some found passages count, whatever their group. */
  private wholeOf(here: LookedAt, found: Found, tell: (amount: number) => void): void {
    switch (this.asked.counting) {
      case 'passages':
        return tell(this.asked.coders === 'each passage' ? found.rows.length : joinedByCoders(here.columns, found).length);
      case 'codings':
        return tell(found.codings.length);
      case 'documents':
        return tell(1);
      case 'cases':
        for (const id of new Set(found.rows.flatMap((row) => this.casesAt(here, row)))) tell(this.numberOf(id));
        return;
      default:
        return tell(this.lengthOf(here, found.rows));
    }
  }

  /** What some found passages count, by group; for cases, group and number of the case. */
  private amountsOf(here: LookedAt, found: Found): Iterable<readonly [group: number, amount: number]> {
    const groups = this.groupsIn(here, found);
    const sums = new Map<number, number>();
    const increase = (group: number): unknown => sums.set(group, (sums.get(group) ?? 0) + 1);
    switch (this.asked.counting) {
      case 'passages':
        for (const rows of this.occurrences(here, found))
          for (const group of rows.length === 1 ? groups.at(rows[0]!) : new Set(rows.flatMap((row) => groups.at(row)))) increase(group);
        return sums;
      case 'codings':
        for (const at of found.codings) {
          const coder = this.groups.coders?.get(here.columns.coders[here.columns.codingCoder[at]!]!);
          if (coder !== undefined) increase(coder);
          else for (const group of groups.at(here.columns.codingRow[at]!)) increase(group);
        }
        return sums;
      case 'documents':
        for (const group of new Set(found.rows.flatMap((row) => groups.at(row)))) sums.set(group, 1);
        return sums;
      case 'cases': {
        const pairs = new Map<string, readonly [number, number]>();
        for (const row of found.rows)
          for (const id of this.casesAt(here, row))
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
        for (const [group, rows] of byGroup) sums.set(group, this.lengthOf(here, rows));
        return sums;
      }
    }
  }

  /** Words of a text or milliseconds of a recording in the union of some passages. @param rows ascending */
  private lengthOf({ columns, text }: LookedAt, rows: readonly number[]): number {
    const stretches = (): Stretch[] => union(rows.map((row) => ({ start: columns.starts[row]!, end: columns.ends[row]! })));
    if (this.asked.counting === 'words') return columns.ground === 'text' && text ? wordsIn(text, stretches()) : 0;
    return columns.ground === 'time' ? stretches().reduce((sum, { start, end }) => sum + end - start, 0) : 0;
  }

  private numberOf(caseId: Id): number {
    let number = this.caseNumbers.get(caseId);
    // a zero would not be put down
    if (number === undefined) this.caseNumbers.set(caseId, (number = this.caseNumbers.size + 1));
    return number;
  }

  /** Without the groups for what is in no other, where nothing is in them. */
  private shown(counts: Float64Array, severalCoders: boolean): CrossTable {
    const { entries } = this.groups;
    const rows = this.found.entries;
    const [last, any] = [rows.length * this.width, this.width - 1];
    const kept = shownGroups(entries, (column) => counts[last + column]! > 0);
    const lines = [...rows.keys(), rows.length];
    const sizes = this.sizes.result();
    return {
      rows,
      columns: kept.map((column) => entries[column]!),
      counts: kept.length === entries.length ? counts : narrowed(counts, this.width, lines, [...kept, any]),
      sizes: [...kept, any].map((column) => sizes[column]!),
      severalCoders,
    };
  }
}

/** The groups of passages, with all in scope among them, by the groups themselves: those of one document's places are the same again and again. */
function withAny(columns: PassageColumns, groups: GroupsOfPlace, any: number): (row: number) => readonly number[] {
  const known = new Map<readonly number[], readonly number[]>();
  return (row) => {
    const own = groups.at(placeOfRow(columns, row));
    let all = known.get(own);
    if (!all) known.set(own, (all = [...own, any]));
    return all;
  };
}
