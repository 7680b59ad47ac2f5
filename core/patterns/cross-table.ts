import type { Document, Text } from '../model/document';
import { hasText } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import { CaseFinder } from '../passages/case-finder';
import type { AskedStudy } from '../queries/asked-study';
import { hitsOf, type Hit } from '../queries/evaluate';
import type { Narrowing } from '../queries/narrowing';
import { Brought } from './brought';
import { isWhole, type Entry, type GroupAxis, type GroupsOfRows } from './axis';
import { foundAxisOf, type FoundAxis, type LookedAt } from './found-axis';
import { groupAxisOf } from './group-axis';
import { GroupSizes, type GroupSize } from './group-sizes';
import { codedBySeveral, severalCoders } from './joined';
import { joinedEntries, type JoinedEntries } from './joined-entries';
import { RunningTable, type WalkedOver } from './running-table';
import { Scratch, type CountedCells } from './scratch';
import { narrowed, shownGroups, type Counts } from './table-cells';
import { TableMeasure, type CountedTable } from './table-measure';

/**
 * Counts of what was found by group. Rows and columns have one more at the end: what is in any of the rows, and in the
 * scope whether in a column or not. What is in several rows or columns counts once there, so they are no sums.
 */
export interface CrossTable {
  readonly rows: readonly Entry[];
  readonly columns: readonly Entry[];
  /** Row by row, `(columns + 1)` each; milliseconds where seconds are counted. */
  readonly counts: Counts;
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

/** What one document brings. */
interface Part {
  /** Where its codings alone say what is found: these, to be walked over whenever it is added or taken away. */
  readonly walked: WalkedOver | null;
  /** What is counted beside that: cells and amounts; for cases, cells and the numbers of the cases. */
  readonly counted: CountedCells | null;
  readonly severalCoders: boolean;
}

const NOTHING: CountedCells = { cells: new Uint32Array(), amounts: new Float64Array() };

/**
 * Counts a table document by document, and remembers what is in it, so that after a change the documents that changed
 * are taken away as they were and added as they are.
 *
 * Passages: distinct ones that carry the code (or answer the query), by {@link joinedByCoders} where coders are taken
 * together. Codings: passage × code × coder. Cases, documents: how many have at least one. Words: in the union of the
 * passages; a word that is cut counts. Seconds: in the union of spans of recordings.
 */
export class CrossCounter {
  readonly found: FoundAxis;
  readonly groups: GroupAxis;
  private readonly width: number;
  private readonly brought = new Brought<Part>((part, by) => this.change(part, by));
  private readonly scratch: Scratch;
  private readonly running: RunningTable;
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
    this.scratch = new Scratch(this.cells);
    this.running = new RunningTable(this.found.entries.length, this.width, asked.counting);
    this.sizes = new GroupSizes(this.groups, study, narrowing);
  }

  /** How many numbers the table has. */
  get cells(): number {
    return (this.found.entries.length + 1) * this.width;
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
    return (columns === null || this.brought.knows(columns)) && this.sizes.knows(document);
  }

  add(columns: PassageColumns | null, document: Document, text: Text | null): void {
    this.sizes.add(document, text);
    if (columns && !this.brought.knows(columns)) this.brought.bring(columns, this.partOf(columns, document, text));
  }

  /** The table over some documents that were counted. */
  result(documents: Iterable<PassageColumns>): CrossTable {
    const parts = this.brought.only(documents);
    const sums = this.asked.counting === 'cases' ? this.casesCounted(parts) : this.running;
    return this.shown(
      sums.byEntry(),
      parts.some((part) => part.severalCoders),
    );
  }

  private change({ walked, counted }: Part, by: 1 | -1): void {
    if (walked) this.running.walk(walked, this.found.entriesOf!(walked.columns), by);
    if (counted && this.asked.counting !== 'cases') this.running.put(counted, by);
  }

  /** Cases that several documents have count once, so that these cannot be added up. */
  private casesCounted(parts: readonly Part[]): RunningTable {
    const table = new RunningTable(this.found.entries.length, this.width, 'cases');
    const cases = this.caseNumbers.size + 1;
    const seen = new Set<number>();
    for (const { counted } of parts) {
      const { cells, amounts } = counted!;
      for (let at = 0; at < cells.length; at++) {
        const key = cells[at]! * cases + amounts[at]!;
        if (!seen.has(key)) table.add(cells[at]!);
        seen.add(key);
      }
    }
    return table;
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
    const measure = this.measured(here);
    const groupsOf = measure.groupsOf(found);
    const isIn = (one: number): boolean => column === this.width - 1 || groupsOf.at(one).includes(column);
    const kept = found.rows.filter(isIn);
    const cases = new Set<Id>();
    for (const one of kept)
      for (const id of measure.casesAt(one)) if (column === this.width - 1 || groupsOf.atAs(one, id).includes(column)) cases.add(id);
    return {
      hits: hitsOf(here.columns, kept),
      places: measure.occurrences(found, column === this.width - 1).filter((rows) => rows.some(isIn)).length,
      cases: [...cases],
    };
  }

  private lookedAt(columns: PassageColumns, document: Document, text: Text | null): LookedAt | null {
    const left = this.narrowing.leftOf(columns, document, text);
    return left && { columns: left, document, text, spoken: text };
  }

  private measured(here: LookedAt): TableMeasure {
    return new TableMeasure(this.asked, here, this.groups, this.study.finder, (id) => this.numberOf(id));
  }

  private partOf(columns: PassageColumns, document: Document, text: Text | null): Part {
    const here = this.lookedAt(columns, document, text);
    if (!here) return { walked: null, counted: NOTHING, severalCoders: false };
    return this.walkedPart(here) ?? this.measuredPart(here);
  }

  /** Where codings alone say what is found, and where. Null where it takes more. */
  private walkedPart(here: LookedAt): Part | null {
    const { columns } = here;
    const { counting, coders } = this.asked;
    if (!this.found.entriesOf || this.groups.coders || (counting !== 'passages' && counting !== 'codings' && counting !== 'documents'))
      return null;
    const of = this.groups.of(here);
    // the same document can be in a group by many places
    if (counting === 'documents' && !isWhole(of)) return null;
    const groups = isWhole(of) ? of : of.ofRows(columns);
    const several = codedBySeveral(columns);
    const joined =
      counting === 'passages' && coders === 'together' && several
        ? joinedEntries(columns, this.found.entriesOf(columns), this.found.entries.length, true)
        : null;
    return {
      walked: { columns, groups, without: joined && joined.are },
      counted: joined && this.countJoined(joined, groups),
      severalCoders: several,
    };
  }

  /** Passages that coders marked over each other, once each. */
  private countJoined({ occurrences }: JoinedEntries, groups: readonly number[] | GroupsOfRows): CountedCells {
    const { scratch, running } = this;
    const any = this.width - 1;
    for (const [entry, together] of occurrences) {
      scratch.add(running.cellOf(entry, any), together.length);
      if (isWhole(groups)) {
        for (const group of groups) scratch.add(running.cellOf(entry, group), together.length);
        continue;
      }
      const groupsAt = (row: number): readonly number[] => groups.lists[groups.listOf[row]!]!;
      for (const rows of together)
        for (const group of rows.length === 1 ? groupsAt(rows[0]!) : new Set(rows.flatMap(groupsAt)))
          scratch.add(running.cellOf(entry, group));
    }
    return this.scratch.take();
  }

  private measuredPart(here: LookedAt): Part {
    const found = this.found.in(here);
    const cells: number[] = [];
    const amounts: number[] = [];
    const put = (entry: number, group: number, amount: number): void => {
      if (amount === 0) return;
      cells.push(this.running.cellOf(entry, group));
      amounts.push(amount);
    };
    const measure = this.measured(here);
    found.forEach((some, entry) => {
      if (!some) return;
      for (const [group, amount] of measure.byGroup(some)) put(entry, group, amount);
      for (const amount of measure.ofAll(some)) put(entry, this.width - 1, amount);
    });
    const codings = found.at(-1)?.codings;
    return {
      walked: null,
      counted: { cells: Uint32Array.from(cells), amounts: Float64Array.from(amounts) },
      severalCoders: codings !== undefined && severalCoders(here.columns, codings),
    };
  }

  private numberOf(caseId: Id): number {
    let number = this.caseNumbers.get(caseId);
    // a zero would not be put down
    if (number === undefined) this.caseNumbers.set(caseId, (number = this.caseNumbers.size + 1));
    return number;
  }

  /** Without the groups for what is in no other, where nothing is in them. */
  private shown(counts: Counts, severalCoders: boolean): CrossTable {
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
