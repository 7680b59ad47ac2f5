/** Cells and what is counted in each, of one document. */
export interface CountedCells {
  readonly cells: Uint32Array;
  readonly amounts: Float64Array;
}

/** Sums by cell that are put down again for the next document: as many as a table has cells, few of them touched. */
export class Scratch {
  private sums = new Float64Array(0);
  private touched = new Uint32Array(1_024);
  private count = 0;
  /** The row in which an entry was met last, of all rows walked over so far: nothing has to be put down for the next document. */
  private lastRow = new Float64Array(0);
  private rowsBefore = 1;
  private rowsAfter = 1;

  /** @param cells that can be added to, however seldom: room for them is made when one further than before is */
  constructor(private readonly cells: number) {}

  add(cell: number, amount = 1): void {
    if (cell >= this.sums.length) this.widen(cell);
    const { sums } = this;
    if (sums[cell] === 0) {
      if (this.count === this.touched.length) this.touched = withRoom(this.touched, this.count * 2);
      this.touched[this.count++] = cell;
    }
    sums[cell]! += amount;
  }

  /** All of a table, or a line of it where documents add to no more. */
  private widen(cell: number): void {
    const wider = new Float64Array(Math.min(this.cells, cell < 4_096 ? 4_096 : this.cells));
    wider.set(this.sums);
    this.sums = wider;
  }

  /** Begins a walk over the rows of a document. @param entries that can be met */
  begin(entries: number, rows: number): void {
    if (this.lastRow.length < entries) this.lastRow = new Float64Array(entries);
    this.rowsBefore = this.rowsAfter;
    this.rowsAfter += rows;
  }

  /** Whether an entry is met in another row than the last time. */
  isNew(entry: number, row: number): boolean {
    const { lastRow } = this;
    const here = this.rowsBefore + row;
    if (lastRow[entry] === here) return false;
    lastRow[entry] = here;
    return true;
  }

  /** What was added, and an empty one for the next. */
  take(): CountedCells {
    const cells = this.touched.slice(0, this.count);
    const amounts = new Float64Array(this.count);
    const { sums } = this;
    for (let at = 0; at < cells.length; at++) {
      amounts[at] = sums[cells[at]!]!;
      sums[cells[at]!] = 0;
    }
    this.count = 0;
    return { cells, amounts };
  }
}

function withRoom(some: Uint32Array<ArrayBuffer>, length: number): Uint32Array<ArrayBuffer> {
  const wider = new Uint32Array(length);
  wider.set(some);
  return wider;
}
