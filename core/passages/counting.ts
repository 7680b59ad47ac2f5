import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';
import type { PassageColumns } from './columns';

/** How often codes occur. All count distinct passages: several coders on one passage count once. */
export interface CodeCounts {
  /** Passages that carry the code itself. */
  readonly own: ReadonlyMap<Id, number>;
  /** Passages that carry the code or any code under it; a passage counts once. */
  readonly withUnder: ReadonlyMap<Id, number>;
}

const lineages = new WeakMap<Table<Code>, Map<Id, readonly Id[]>>();

/** The code and every category above it, nearest first. A loop in the tree ends the walk. Remembered with the codebook. */
export function lineage(codes: Table<Code>, codeId: Id): readonly Id[] {
  let known = lineages.get(codes);
  if (!known) lineages.set(codes, (known = new Map()));
  let line = known.get(codeId);
  if (!line) known.set(codeId, (line = walkUp(codes, codeId)));
  return line;
}

function walkUp(codes: Table<Code>, codeId: Id): Id[] {
  const line: Id[] = [];
  let at: Id | null | undefined = codeId;
  while (at && codes[at] && !line.includes(at)) {
    line.push(at);
    at = codes[at]?.parentId;
  }
  return line;
}

/** How often codes occur over several documents, and in how many. */
export interface CodebookCounts extends CodeCounts {
  /** Documents with at least one passage that carries the code itself. */
  readonly documents: ReadonlyMap<Id, number>;
  /** …or any code under it. */
  readonly documentsWithUnder: ReadonlyMap<Id, number>;
}

/** What was counted, with what it was counted from, so that the next count need only look at what has changed. */
export interface Tally {
  readonly counts: CodebookCounts;
  readonly documents: ReadonlySet<PassageColumns>;
  readonly codes: Table<Code>;
  readonly coderId: Id | null;
}

/** Sums by number of code, while they grow. */
interface Sums {
  readonly own: Int32Array;
  readonly withUnder: Int32Array;
  readonly documents: Int32Array;
  readonly documentsWithUnder: Int32Array;
}
const KINDS = ['own', 'withUnder', 'documents', 'documentsWithUnder'] as const;

/**
 * Counts passages of many documents by code. Codes have numbers here, so that adding and taking away a document is
 * a walk over its codings without any look-up: a study of 300,000 codings is counted in hundredths of a second.
 */
class Counter {
  private readonly ids: Id[];
  private readonly numbers: Map<Id, number>;
  private readonly lines: Int32Array[] = [];
  private sums: Sums;
  /** For each code the last passage and document in which it was met, to count each once. */
  private lastRow: Int32Array;
  private lastRowUnder: Int32Array;
  private lastDocument: Int32Array;
  private lastDocumentUnder: Int32Array;
  private flags: { readonly of: ReadonlySet<Id>; readonly flags: Uint8Array } | null = null;
  private row = 0;
  private document = 0;

  constructor(
    private readonly codes: Table<Code>,
    private readonly coderId: Id | null,
    before?: CodebookCounts,
  ) {
    // codes that are counted but not in the codebook have numbers too, and lie under nothing
    this.ids = [...new Set([...Object.keys(codes), ...(before?.own.keys() ?? [])])];
    this.numbers = new Map(this.ids.map((id, number) => [id, number]));
    const size = this.ids.length;
    const zeros = (): Int32Array => new Int32Array(size);
    this.sums = { own: zeros(), withUnder: zeros(), documents: zeros(), documentsWithUnder: zeros() };
    [this.lastRow, this.lastRowUnder, this.lastDocument, this.lastDocumentUnder] = [zeros(), zeros(), zeros(), zeros()];
    if (before) for (const kind of KINDS) for (const [id, count] of before[kind]) this.sums[kind][this.numberOf(id)] = count;
  }

  /** Adds a document, or takes it away. @param only counts these codes alone, with what is under them, and nothing of their own */
  add(columns: PassageColumns, sign: 1 | -1, only?: ReadonlySet<Id>): void {
    const numbers = columns.codes.map((id) => this.numberOf(id));
    const lines = numbers.map((number) => this.lineOf(number));
    const wanted = only ? this.flagsOf(only) : null;
    if (wanted && !lines.some((line) => line.some((above) => wanted[above]))) return;
    const { own, withUnder, documents, documentsWithUnder } = this.sums;
    // the walk below is the whole cost of counting: nothing is looked up in objects in it
    const { lastRow, lastRowUnder, lastDocument, lastDocumentUnder } = this;
    const { codingRow, codingCode, codingCoder } = columns;
    const document = ++this.document;
    let row = this.row;
    let before = -1;
    for (let at = 0; at < codingRow.length; at++) {
      if (codingRow[at] !== before) {
        before = codingRow[at]!;
        row++;
      }
      if (this.coderId !== null && columns.coders[codingCoder[at]!] !== this.coderId) continue;
      const code = codingCode[at]!;
      const number = numbers[code]!;
      if (!wanted && lastRow[number] !== row) {
        lastRow[number] = row;
        own[number]! += sign;
        if (lastDocument[number] !== document) {
          lastDocument[number] = document;
          documents[number]! += sign;
        }
      }
      const line = lines[code]!;
      for (const above of line) {
        if ((wanted && !wanted[above]) || lastRowUnder[above] === row) continue;
        lastRowUnder[above] = row;
        withUnder[above]! += sign;
        if (lastDocumentUnder[above] !== document) {
          lastDocumentUnder[above] = document;
          documentsWithUnder[above]! += sign;
        }
      }
    }
    this.row = row;
  }

  /** Forgets what was counted with what is under them. */
  forgetUnder(ids: Iterable<Id>): void {
    for (const id of ids) {
      const number = this.numberOf(id);
      this.sums.withUnder[number] = 0;
      this.sums.documentsWithUnder[number] = 0;
    }
  }

  result(): CodebookCounts {
    const mapOf = (sums: Int32Array): Map<Id, number> => {
      const counts = new Map<Id, number>();
      this.ids.forEach((id, number) => {
        if (sums[number] !== 0) counts.set(id, sums[number]!);
      });
      return counts;
    };
    const { own, withUnder, documents, documentsWithUnder } = this.sums;
    return {
      own: mapOf(own),
      withUnder: mapOf(withUnder),
      documents: mapOf(documents),
      documentsWithUnder: mapOf(documentsWithUnder),
    };
  }

  /** 1 for each code of a group; kept while the same group is asked for. */
  private flagsOf(only: ReadonlySet<Id>): Uint8Array {
    if (this.flags?.of !== only) this.flags = { of: only, flags: Uint8Array.from(this.ids, (id) => (only.has(id) ? 1 : 0)) };
    return this.flags.flags;
  }

  private numberOf(id: Id): number {
    const known = this.numbers.get(id);
    if (known !== undefined) return known;
    const number = this.ids.push(id) - 1;
    this.numbers.set(id, number);
    const longer = (short: Int32Array): Int32Array => {
      const long = new Int32Array(Math.max(16, this.ids.length * 2));
      long.set(short);
      return long;
    };
    if (number >= this.sums.own.length) {
      const { own, withUnder, documents, documentsWithUnder } = this.sums;
      this.sums = {
        own: longer(own),
        withUnder: longer(withUnder),
        documents: longer(documents),
        documentsWithUnder: longer(documentsWithUnder),
      };
      this.lastRow = longer(this.lastRow);
      this.lastRowUnder = longer(this.lastRowUnder);
      this.lastDocument = longer(this.lastDocument);
      this.lastDocumentUnder = longer(this.lastDocumentUnder);
    }
    return number;
  }

  private lineOf(number: number): Int32Array {
    return (this.lines[number] ??= Int32Array.from(lineage(this.codes, this.ids[number]!), (id) => this.numberOf(id)));
  }
}

/**
 * Counts codes over documents.
 * @param coderId counts only this coder's codings; null counts everybody's
 * @param before an earlier tally: documents that are in both are not counted again, and where codes were moved, only
 *   the categories they left and came under are
 */
export function tally(documents: Iterable<PassageColumns>, codes: Table<Code>, coderId: Id | null = null, before?: Tally): Tally {
  const now = new Set(documents);
  const fits = before?.coderId === coderId ? before : undefined;
  const come = fits ? [...now].filter((columns) => !fits.documents.has(columns)) : [];
  // where most have changed, counting from nothing is less work than taking away and adding
  if (!fits || come.length * 2 > now.size) {
    const counter = new Counter(codes, coderId);
    for (const columns of now) counter.add(columns, 1);
    return { counts: counter.result(), documents: now, codes, coderId };
  }
  let { counts } = fits;
  const gone = [...fits.documents].filter((columns) => !now.has(columns));
  if (come.length > 0 || gone.length > 0) {
    // by the tree that was counted with; the changed parts of the tree are counted anew afterwards
    const counter = new Counter(fits.codes, coderId, counts);
    for (const columns of come) counter.add(columns, 1);
    for (const columns of gone) counter.add(columns, -1);
    counts = counter.result();
  }
  const affected = fits.codes === codes ? new Set<Id>() : branchesThatDiffer(fits.codes, codes);
  if (affected.size > 0) {
    const counter = new Counter(codes, coderId, counts);
    counter.forgetUnder(affected);
    for (const columns of now) counter.add(columns, 1, affected);
    counts = counter.result();
  }
  return { counts, documents: now, codes, coderId };
}

/** Codes whose branch is another in one tree than in the other. */
function branchesThatDiffer(before: Table<Code>, after: Table<Code>): Set<Id> {
  const moved = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter((id) => before[id]?.parentId !== after[id]?.parentId);
  const affected = new Set<Id>();
  for (const id of moved) {
    const left = new Set(lineage(before, id));
    const come = new Set(lineage(after, id));
    for (const above of left) if (!come.has(above) || moved.length > 1) affected.add(above);
    for (const above of come) if (!left.has(above) || moved.length > 1) affected.add(above);
  }
  return affected;
}

/** The counts of {@link tally}, counted from nothing. */
export const countCodes = (documents: Iterable<PassageColumns>, codes: Table<Code>, coderId: Id | null = null): CodebookCounts =>
  tally(documents, codes, coderId).counts;
