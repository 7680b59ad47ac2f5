import type { Document, Text } from '../model/document';
import { hasText } from '../model/document';
import type { PassageColumns } from '../model/passage-columns';
import type { TakingUpAsked } from '../model/pattern';
import { CaseFinder } from '../passages/case-finder';
import { placeOfRow } from '../passages/columns';
import type { AskedStudy } from '../queries/asked-study';
import { DocumentHere } from '../queries/document-here';
import { hitsOf, type Hit } from '../queries/evaluate';
import type { Narrowing } from '../queries/narrowing';
import { isWhole, placeOf, type Entry, type GroupAxis } from './axis';
import { foundAxisOf, type FoundAxis } from './found-axis';
import { groupAxisOf } from './group-axis';
import { GroupSizes, type GroupSize } from './group-sizes';
import { momentsOf, type Moment } from './moments';
import { narrowed, shownGroups } from './table-cells';

/**
 * Who brings themes up, and who takes them on, in times. Tables have a row for each theme and a column for each group,
 * and one more of either at the end that holds their sum.
 */
export interface TakingUp {
  readonly rows: readonly Entry[];
  readonly groups: readonly Entry[];
  readonly brought: Float64Array;
  readonly taken: Float64Array;
  /** Group by group, with sums likewise: how often the second took on what the first had brought up, whatever it was. */
  readonly whom: Float64Array;
  /** By group, and of all in scope at the end. */
  readonly sizes: readonly GroupSize[];
}

/** What is counted: how it is shown makes no other count. */
export type CountedTaking = Pick<TakingUpAsked, 'rows' | 'groups' | 'apart'> & {
  /** Whether the words of groups must be known, whatever they are. */
  readonly words?: boolean;
};

/** Places of what is asked for; one more than the last stands for all of them. */
export interface TakingUpCell {
  readonly shown: TakingUpAsked['shown'];
  readonly row: number;
  readonly column: number;
}

/** How often, and the passages: those that bring it up, those that take it on, or both of two. */
export interface TakingUpEvidence {
  readonly times: number;
  readonly hits: readonly Hit[];
}

/** What a document brings: moments by theme, with rows of the passages that the scope leaves of it. */
interface Part {
  readonly left: PassageColumns;
  readonly moments: readonly (readonly Moment[])[];
}

/** Counts, document by document, who begins to speak of a theme and who goes on ({@link momentsOf}). Pictures have no first and last. */
export class TakingUpCounter {
  private readonly found: FoundAxis;
  private readonly groups: GroupAxis;
  private readonly parts = new WeakMap<PassageColumns, Part | null>();
  private readonly sizes: GroupSizes;

  /** @param documents those in scope */
  constructor(
    private readonly asked: CountedTaking,
    private readonly study: AskedStudy,
    private readonly narrowing: Narrowing,
    documents: readonly Document[],
  ) {
    const { rows, groups } = asked;
    this.found = foundAxisOf(rows, study);
    this.groups = groupAxisOf(groups, study, documents);
    this.sizes = new GroupSizes(this.groups, study, narrowing);
  }

  needsText(document: Document): boolean {
    return (
      hasText(document) &&
      (this.asked.apart > 0 ||
        this.asked.words ||
        CaseFinder.needsText(document) ||
        this.found.needsText(document) ||
        this.groups.needsSpoken(document) ||
        this.narrowing.needsSpoken(document))
    );
  }

  knows(columns: PassageColumns | null, document: Document): boolean {
    return (columns === null || this.parts.has(columns)) && this.sizes.knows(document);
  }

  add(columns: PassageColumns | null, document: Document, text: Text | null): void {
    this.sizes.add(document, text);
    if (columns && !this.parts.has(columns)) this.parts.set(columns, this.partOf(columns, document, text));
  }

  /** Places of the keys of a row and a column; null stands for all of them, and -1 for what is gone. */
  cellOf(shown: TakingUpAsked['shown'], row: string | null, column: string | null): TakingUpCell {
    const rows = shown === 'from whom to whom' ? this.groups.entries : this.found.entries;
    return { shown, row: placeOf(rows, row), column: placeOf(this.groups.entries, column) };
  }

  /** The tables over some documents that were counted. */
  result(documents: Iterable<PassageColumns>): TakingUp {
    const [height, width] = [this.found.entries.length + 1, this.groups.entries.length + 1];
    const [brought, taken, whom] = [new Float64Array(height * width), new Float64Array(height * width), new Float64Array(width * width)];
    const put = (table: Float64Array, last: number, row: number, column: number): void => {
      for (const r of [row, last]) for (const c of [column, width - 1]) table[r * width + c]!++;
    };
    for (const columns of documents)
      this.parts.get(columns)?.moments.forEach((moments, entry) => {
        for (const { first, takers } of moments) {
          for (const group of first.groups) put(brought, height - 1, entry, group);
          for (const { group } of takers) {
            put(taken, height - 1, entry, group);
            for (const from of first.groups) put(whom, width - 1, from, group);
          }
        }
      });
    return this.withoutEmpty({ rows: this.found.entries, groups: this.groups.entries, brought, taken, whom, sizes: this.sizes.result() });
  }

  /** What stands behind a number, of one document. */
  evidenceIn(columns: PassageColumns, cell: TakingUpCell): TakingUpEvidence {
    const part = this.parts.get(columns);
    if (!part) return { times: 0, hits: [] };
    const { shown, row, column } = cell;
    const rows = new Set<number>();
    let times = 0;
    const isAt = (place: number, last: number, one: number): boolean => place === last || place === one;
    const any = this.groups.entries.length;
    const meet = (...some: readonly number[]): void => {
      times++;
      for (const one of some) rows.add(one);
    };
    part.moments.forEach((moments, entry) => {
      if (shown !== 'from whom to whom' && !isAt(row, this.found.entries.length, entry)) return;
      for (const { first, takers } of moments) {
        if (shown === 'who brings it up') {
          for (const group of first.groups) if (isAt(column, any, group)) meet(first.row);
          continue;
        }
        for (const { said, group } of takers) {
          if (!isAt(column, any, group)) continue;
          if (shown === 'who takes it on') meet(said.row);
          else for (const from of first.groups) if (isAt(row, any, from)) meet(first.row, said.row);
        }
      }
    });
    return {
      times,
      hits: hitsOf(
        part.left,
        [...rows].sort((a, b) => a - b),
      ),
    };
  }

  private partOf(all: PassageColumns, document: Document, text: Text | null): Part | null {
    const columns = all.ground === 'picture' ? null : this.narrowing.leftOf(all, document, text);
    if (!columns) return null;
    const groups = this.groups.of({ document, spoken: text });
    const groupsAt = (row: number): readonly number[] => (isWhole(groups) ? groups : groups.at(placeOfRow(columns, row)));
    const turnAt = this.asked.apart > 0 ? new DocumentHere(columns, document, text, this.study.language).measureIn('turn') : null;
    const moments = this.found
      .in({ columns, document, text, spoken: text })
      .slice(0, this.found.entries.length)
      .map((found) => {
        const said = (found?.rows ?? [])
          .map((row) => ({ row, groups: groupsAt(row), start: columns.starts[row]!, end: columns.ends[row]! }))
          .sort((a, b) => a.start - b.start);
        return momentsOf(said, turnAt, this.asked.apart);
      });
    return { left: columns, moments };
  }

  /** Without groups of what is in no other that neither bring up nor take on. */
  private withoutEmpty(table: TakingUp): TakingUp {
    const { groups, brought, taken, whom, rows, sizes } = table;
    const [width, last] = [groups.length + 1, rows.length * (groups.length + 1)];
    const kept = shownGroups(groups, (at) => brought[last + at]! + taken[last + at]! > 0);
    const [columns, lines] = [
      [...kept, groups.length],
      [...rows.keys(), rows.length],
    ];
    return {
      rows,
      groups: kept.map((at) => groups[at]!),
      brought: narrowed(brought, width, lines, columns),
      taken: narrowed(taken, width, lines, columns),
      whom: narrowed(whom, width, columns, columns),
      sizes: columns.map((at) => sizes[at]!),
    };
  }
}
