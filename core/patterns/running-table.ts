import type { PassageColumns } from '../model/passage-columns';
import type { Counting } from '../model/pattern';
import { isWhole, type GroupsOfRows } from './axis';
import { NO_ENTRY, SEVERAL, type EntriesOfCodes } from './entries-of-codes';
import type { CountedCells } from './scratch';
import type { Counts } from './table-cells';

/** A document whose codings alone say what is found, and where. */
export interface WalkedOver {
  readonly columns: PassageColumns;
  /** The groups that all of it is in, or those of its rows. */
  readonly groups: readonly number[] | GroupsOfRows;
  /** Entries that the walk passes over: they are counted otherwise. One more stands for any of them. */
  readonly without: Uint8Array | null;
}

/**
 * Sums of a table, to which documents are added and from which they are taken away. They lie group by group, since what
 * a document brings to a group then lies together. One entry more stands for any of them, and one group more for all in
 * scope.
 */
export class RunningTable {
  private readonly height: number;
  /** Each coding counts, also another of the same passage. */
  private readonly everyCoding: boolean;
  private readonly counts: Counts;
  /** The row in which an entry was met last, of all rows walked over so far: nothing has to be put down for the next document. */
  private readonly lastRow: Int32Array;
  private rowsBefore = 1;
  /** Where the group of each row lies. */
  private lineOf = new Int32Array(0);

  constructor(
    private readonly entries: number,
    private readonly width: number,
    private readonly counting: Counting,
  ) {
    this.height = entries + 1;
    this.everyCoding = counting === 'codings';
    // and one that nobody reads, for what is in no group: so that a walk asks nothing of a row
    const cells = (width + 1) * this.height;
    // milliseconds of all recordings together can be more than fit into half as many bytes
    this.counts = counting === 'seconds' ? new Float64Array(cells) : new Uint32Array(cells);
    this.lastRow = new Int32Array(this.height);
  }

  /** The cell of an entry and a group, as {@link put} takes it. */
  cellOf(entry: number, group: number): number {
    return group * this.height + entry;
  }

  /** Adds one to a cell. */
  add(cell: number): void {
    this.counts[cell]!++;
  }

  put({ cells, amounts }: CountedCells, by: 1 | -1): void {
    const { counts } = this;
    for (let at = 0; at < cells.length; at++) counts[cells[at]!]! += by * amounts[at]!;
  }

  /**
   * Adds a document by one walk over its codings, or takes it away: each coding where codings are counted, the document
   * once where documents are (then all of it must be in the same groups), else each passage that carries an entry.
   */
  walk(document: WalkedOver, codes: EntriesOfCodes, by: 1 | -1): void {
    const { columns, groups } = document;
    const { height, width } = this;
    const [every, nowhere] = [(width - 1) * height, width * height];
    const lists = isWhole(groups) ? [groups] : groups.lists;
    let most = 1;
    for (const list of lists) most = Math.max(most, list.length);
    // mostly all is in one group; where it is in more, each further one is a walk of its own
    for (let at = 0; at < most; at++) {
      const all = at === 0 ? every : nowhere;
      if (isWhole(groups)) this.walkInto(document, codes, (groups[at] ?? width) * height, all, by);
      else {
        const rows = columns.starts.length;
        if (this.lineOf.length < rows) this.lineOf = new Int32Array(rows);
        const { lineOf } = this;
        for (let row = 0; row < rows; row++) lineOf[row] = (lists[groups.listOf[row]!]![at] ?? width) * height;
        this.walkByRow(document, codes, all, by);
      }
    }
  }

  /**
   * A plain loop, since a study has hundreds of thousands of codings.
   * @param line where the group lies that all of the document is in
   * @param every where all in scope lie
   */
  private walkInto({ columns, without }: WalkedOver, codes: EntriesOfCodes, line: number, every: number, by: 1 | -1): void {
    const { counts, lastRow, entries, everyCoding } = this;
    const { codingRow, codingCode } = columns;
    const { numbers, single, lists } = codes;
    const before = this.rowsFrom(columns.starts.length);
    const always = everyCoding ? 1 : 0;
    // a document counts once: all of it is one row then
    const step = this.counting === 'documents' ? 0 : 1;
    // codings are ordered by row: whatever is found in one is found in any entry once
    let anyBefore = -1;
    let any = 0;
    for (let at = 0; at < codingRow.length; at++) {
      const number = numbers[codingCode[at]!]!;
      const entry = single[number]!;
      if (entry === NO_ENTRY) continue;
      const here = (before + step * (codingRow[at]! | 0)) | 0;
      if (entry === SEVERAL) this.meetAll(lists[number]!, here, [line, every], without, by);
      else if ((lastRow[entry] !== here || everyCoding) && (without === null || without[entry] === 0)) {
        lastRow[entry] = here;
        counts[line + entry]! += by;
        counts[every + entry]! += by;
      }
      // one where a row is another, by the sign of their difference: nobody could foresee the branch
      any += ((anyBefore - here) >>> 31) | always;
      anyBefore = here;
    }
    if (without !== null && without[entries] === 1) return;
    counts[line + entries]! += by * any;
    counts[every + entries]! += by * any;
  }

  /** As {@link walkInto}, where each row has a group of its own: row by row. */
  private walkByRow({ columns, without }: WalkedOver, codes: EntriesOfCodes, every: number, by: 1 | -1): void {
    const { counts, lastRow, lineOf, entries, everyCoding } = this;
    const { codingRow, codingCode } = columns;
    const { numbers, single, lists } = codes;
    const before = this.rowsFrom(columns.starts.length);
    const byAny = without === null || without[entries] === 0 ? by : 0;
    let all = 0;
    for (let at = 0; at < codingRow.length;) {
      const row = codingRow[at]! | 0;
      const line = lineOf[row]!;
      const here = (before + row) | 0;
      let codings = 0;
      for (; at < codingRow.length && (codingRow[at]! | 0) === row; at++) {
        const number = numbers[codingCode[at]!]!;
        const entry = single[number]!;
        if (entry === NO_ENTRY) continue;
        codings++;
        if (entry === SEVERAL) this.meetAll(lists[number]!, here, [line, every], without, by);
        else if ((lastRow[entry] !== here || everyCoding) && (without === null || without[entry] === 0)) {
          lastRow[entry] = here;
          counts[line + entry]! += by;
          counts[every + entry]! += by;
        }
      }
      const any = everyCoding ? codings : Math.min(codings, 1);
      counts[line + entries]! += byAny * any;
      all += any;
    }
    counts[every + entries]! += byAny * all;
  }

  /** A number for the first of some rows, such that none of them has been met. */
  private rowsFrom(rows: number): number {
    if (this.rowsBefore + rows > 2 ** 30) {
      this.lastRow.fill(0);
      this.rowsBefore = 1;
    }
    const first = this.rowsBefore;
    this.rowsBefore += rows;
    return first;
  }

  private meetAll(some: readonly number[], here: number, lines: readonly number[], without: Uint8Array | null, by: 1 | -1): void {
    const { counts, lastRow, everyCoding } = this;
    for (const entry of some) {
      if (without?.[entry] || (lastRow[entry] === here && !everyCoding)) continue;
      lastRow[entry] = here;
      for (const line of lines) counts[line + entry]! += by;
    }
  }

  /** The sums entry by entry, as many as there are groups and one more each. */
  byEntry(): Counts {
    const { counts, height, width } = this;
    const turned = counts instanceof Uint32Array ? new Uint32Array(height * width) : new Float64Array(height * width);
    // a block after the other, so that both stay at hand
    const block = 16;
    for (let top = 0; top < height; top += block) {
      const bottom = Math.min(height, top + block);
      for (let group = 0; group < width; group++) {
        const line = group * height;
        for (let entry = top; entry < bottom; entry++) turned[entry * width + group] = counts[line + entry]!;
      }
    }
    return turned;
  }
}
