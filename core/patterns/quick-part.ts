import type { PassageColumns } from '../model/passage-columns';
import { joinedByCoders } from './joined';

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

  /** Whether anything was added to a cell. */
  has(cell: number): boolean {
    return cell < this.sums.length && this.sums[cell] !== 0;
  }

  /** Adds one for each row in which an entry is met: what {@link isNew} and {@link add} do, for every coding of a document. */
  addRows(entryOf: Int32Array, codingRow: Uint32Array, codingCode: Uint32Array, any: number): void {
    if (any >= this.sums.length) this.widen(any);
    const { lastRow, rowsBefore, sums } = this;
    let { count, touched } = this;
    if (touched.length < count + any + 1) touched = this.touched = withRoom(touched, count + any + 1);
    for (let at = 0; at < codingRow.length; at++) {
      const entry = entryOf[codingCode[at]!]!;
      if (entry < 0) continue;
      const here = rowsBefore + codingRow[at]!;
      if (lastRow[entry] !== here) {
        lastRow[entry] = here;
        if (sums[entry]!++ === 0) touched[count++] = entry;
      }
      if (lastRow[any] !== here) {
        lastRow[any] = here;
        if (sums[any]!++ === 0) touched[count++] = any;
      }
    }
    this.count = count;
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

/** What of a document is counted where codings alone say what is found. */
export interface QuickCount {
  readonly columns: PassageColumns;
  /** Entries of each of its codes, by local number. */
  readonly lines: readonly (readonly number[] | undefined)[];
  /** Entries there are; one more stands for any of them. */
  readonly entries: number;
  /** Groups of a row, all in scope among them; null where all rows are in the same ones: then a cell is an entry. */
  readonly groupsOf: ((row: number) => readonly number[]) | null;
  readonly width: number;
  readonly counting: 'passages' | 'codings' | 'documents';
  /** Passages of one entry that coders marked over each other count once. */
  readonly joined: boolean;
}

/**
 * Counts a document by one walk over its codings: passages, codings or the document itself, by entry and group. Only
 * entries that several coders gave to passages that overlap are looked at one by one.
 */
export function countQuickly(scratch: Scratch, { columns, lines, entries, groupsOf, width, counting, joined }: QuickCount): CountedCells {
  const { codingRow, codingCode, starts } = columns;
  const toJoin = joined ? entriesToJoin(columns, lines, entries) : null;
  const single = singlesOf(lines);
  scratch.begin(entries + 1, starts.length);
  // the table that is asked for most, of codes by themselves in whole documents
  if (groupsOf === null && toJoin === null && counting === 'passages' && !single.includes(SEVERAL)) {
    scratch.addRows(single, codingRow, codingCode, entries);
    return scratch.take();
  }
  const byRow = new Array<readonly number[] | undefined>(groupsOf ? starts.length : 0);
  const groupsAt = (row: number): readonly number[] => (byRow[row] ??= groupsOf!(row));
  const meet = (entry: number, row: number): void => {
    if (toJoin !== null && toJoin[entry] === JOIN) return;
    if (!scratch.isNew(entry, row) && counting === 'passages') return;
    if (groupsOf === null) {
      if (counting !== 'documents' || !scratch.has(entry)) scratch.add(entry);
      return;
    }
    for (const group of groupsAt(row)) {
      const cell = entry * width + group;
      if (counting !== 'documents' || !scratch.has(cell)) scratch.add(cell);
    }
  };
  for (let at = 0; at < codingRow.length; at++) {
    const code = codingCode[at]!;
    const entry = single[code]!;
    if (entry === NO_ENTRY) continue;
    const row = codingRow[at]!;
    if (entry >= 0) meet(entry, row);
    else for (const one of lines[code]!) meet(one, row);
    meet(entries, row);
  }
  if (toJoin) {
    const found = foundOf(columns, lines, entries, toJoin);
    for (const [entry, codings] of found) {
      const rows = [...new Set(codings.map((at) => codingRow[at]!))];
      const joinedRows = joinedByCoders(columns, { rows, codings });
      if (groupsOf === null) {
        scratch.add(entry, joinedRows.length);
        continue;
      }
      for (const together of joinedRows) {
        const groups = together.length === 1 ? groupsAt(together[0]!) : new Set(together.flatMap((row) => groupsAt(row)));
        for (const group of groups) scratch.add(entry * width + group);
      }
    }
  }
  return scratch.take();
}

const [NO_ENTRY, SEVERAL] = [-1, -2];

/** The entry of each code that has just one, which is most of them; else that it has none, or several. */
export function singlesOf(lines: QuickCount['lines']): Int32Array {
  const single = new Int32Array(lines.length);
  for (let code = 0; code < lines.length; code++) {
    const line = lines[code];
    single[code] = line === undefined || line.length === 0 ? NO_ENTRY : line.length === 1 ? line[0]! : SEVERAL;
  }
  return single;
}

/** The entries that each passage carries, each once; undefined where it carries none. */
export function entriesByRow(
  { codingRow, codingCode, starts }: PassageColumns,
  lines: QuickCount['lines'],
): (readonly number[] | undefined)[] {
  const byRow = new Array<readonly number[] | undefined>(starts.length);
  for (let at = 0; at < codingRow.length; at++) {
    const [line, row] = [lines[codingCode[at]!], codingRow[at]!];
    if (line === undefined || line.length === 0) continue;
    const known = byRow[row];
    // one code is the most frequent by far: its own list serves
    if (known === undefined) byRow[row] = line;
    else if (line.some((entry) => !known.includes(entry))) byRow[row] = [...known, ...line.filter((entry) => !known.includes(entry))];
  }
  return byRow;
}

const [OVERLAP, TWO_CODERS, JOIN] = [1, 2, 3];

/**
 * Entries that are given by more than one coder, and to passages that overlap: of these some may count once. Areas of
 * pictures may do so in the rows that they reach over without touching.
 */
function entriesToJoin(
  { starts, ends, codingRow, codingCode, codingCoder }: PassageColumns,
  lines: QuickCount['lines'],
  entries: number,
): Uint8Array {
  const lastRow = new Int32Array(entries + 1).fill(-1);
  /** How far the passages of an entry reach that came so far: they come in the order in which they begin. */
  const reach = new Float64Array(entries + 1);
  const firstCoder = new Int32Array(entries + 1);
  const joining = new Uint8Array(entries + 1);
  const meet = (entry: number, row: number, coder: number): void => {
    const last = lastRow[entry]!;
    if (last === -1) firstCoder[entry] = coder;
    else if (firstCoder[entry] !== coder) joining[entry]! |= TWO_CODERS;
    if (last === row) return;
    if (last !== -1 && starts[row]! < reach[entry]!) joining[entry]! |= OVERLAP;
    lastRow[entry] = row;
    if (ends[row]! > reach[entry]!) reach[entry] = ends[row]!;
  };
  for (let at = 0; at < codingRow.length; at++) {
    const line = lines[codingCode[at]!];
    if (!line) continue;
    for (const entry of line) meet(entry, codingRow[at]!, codingCoder[at]!);
    meet(entries, codingRow[at]!, codingCoder[at]!);
  }
  return joining;
}

/** The codings of the entries that are looked at one by one, ascending. */
function foundOf({ codingCode }: PassageColumns, lines: QuickCount['lines'], entries: number, toJoin: Uint8Array): Map<number, number[]> {
  const found = new Map<number, number[]>();
  const put = (entry: number, at: number): void => {
    if (toJoin[entry] !== JOIN) return;
    const some = found.get(entry);
    if (some) some.push(at);
    else found.set(entry, [at]);
  };
  for (let at = 0; at < codingCode.length; at++) {
    const line = lines[codingCode[at]!];
    if (!line) continue;
    for (const entry of line) put(entry, at);
    put(entries, at);
  }
  return found;
}
