import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';
import { codeNumber, codeNumbersOf, codeOfNumber, numbersGiven } from './code-numbers';
import type { PassageColumns } from '../model/passage-columns';

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
  /** For each code the codes that its passages count for, itself first; null where none of them is counted. */
  private readonly lines: (Int32Array | null)[] = [];
  private sums: Sums;
  /** For each code the last passage and document in which it was met, to count each once. */
  private lastRow = new Int32Array(0);
  private lastRowUnder = new Int32Array(0);
  private lastDocument = new Int32Array(0);
  private lastDocumentUnder = new Int32Array(0);
  private row = 0;
  private document = 0;

  /** @param only counts these codes alone, with what is under them, and nothing of their own */
  constructor(
    private readonly codes: Table<Code>,
    before?: CodebookCounts,
    private readonly only?: ReadonlySet<Id>,
  ) {
    const none = new Int32Array(0);
    this.sums = { own: none, withUnder: none, documents: none, documentsWithUnder: none };
    for (const id of Object.keys(codes)) codeNumber(id);
    this.makeRoom();
    if (before) for (const kind of KINDS) for (const [id, count] of before[kind]) this.sums[kind][codeNumber(id)] = count;
    for (const id of only ?? []) {
      this.sums.withUnder[codeNumber(id)] = 0;
      this.sums.documentsWithUnder[codeNumber(id)] = 0;
    }
  }

  /** Adds a document, or takes it away. */
  add(columns: PassageColumns, sign: 1 | -1): void {
    const numbers = codeNumbersOf(columns.codes);
    this.makeRoom();
    const lines: (Int32Array | null)[] = [];
    let concerned = false;
    for (const number of numbers) {
      const line = this.lineOf(number);
      lines.push(line);
      concerned ||= line !== null;
    }
    if (!concerned) return;
    const ownToo = this.only === undefined;
    const { own, withUnder, documents, documentsWithUnder } = this.sums;
    // the walk below is the whole cost of counting: nothing is looked up in objects in it
    const { lastRow, lastRowUnder, lastDocument, lastDocumentUnder } = this;
    const { codingRow, codingCode } = columns;
    const document = ++this.document;
    let row = this.row;
    let before = -1;
    for (let at = 0; at < codingRow.length; at++) {
      const code = codingCode[at]!;
      const line = lines[code]!;
      if (line === null) continue;
      if (codingRow[at] !== before) {
        before = codingRow[at]!;
        row++;
      }
      const number = numbers[code]!;
      if (ownToo && lastRow[number] !== row) {
        lastRow[number] = row;
        own[number]! += sign;
        if (lastDocument[number] !== document) {
          lastDocument[number] = document;
          documents[number]! += sign;
        }
      }
      // eslint-disable-next-line @typescript-eslint/prefer-for-of -- the innermost loop of counting: an iterator costs more than the work
      for (let step = 0; step < line.length; step++) {
        const above = line[step]!;
        if (lastRowUnder[above] === row) continue;
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

  result(): CodebookCounts {
    const mapOf = (sums: Int32Array): Map<Id, number> => {
      const counts = new Map<Id, number>();
      sums.forEach((count, number) => {
        if (count !== 0) counts.set(codeOfNumber(number), count);
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

  /** Makes the sums as long as there are numbers: a document may carry codes that are not in the codebook. */
  private makeRoom(): void {
    const size = numbersGiven();
    if (this.lastRow.length >= size) return;
    const longer = (short: Int32Array): Int32Array<ArrayBuffer> => {
      const long = new Int32Array(size);
      long.set(short);
      return long;
    };
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

  private lineOf(number: number): Int32Array | null {
    const known = this.lines[number];
    if (known !== undefined) return known;
    const { only } = this;
    const all = lineage(this.codes, codeOfNumber(number));
    const counted = only ? all.filter((id) => only.has(id)) : all;
    return (this.lines[number] = only && counted.length === 0 ? null : Int32Array.from(counted, codeNumber));
  }
}

/**
 * A count of codes over documents, done some codings at a time, so that whoever counts a large study can do other
 * things in between.
 */
export class Tallying {
  private readonly now: ReadonlySet<PassageColumns>;
  private readonly left: { readonly columns: PassageColumns; readonly by: 'documents' | 'branches'; readonly sign: 1 | -1 }[] = [];
  private counter: Counter;
  private counting: 'documents' | 'branches' = 'documents';
  /** Categories that are counted anew when the documents are. */
  private readonly affected: ReadonlySet<Id>;
  private at = 0;
  private codings = 0;

  /**
   * @param before an earlier tally: documents that are in both are not counted again, and where codes were moved, only
   *   the categories they left and came under are
   */
  constructor(
    documents: Iterable<PassageColumns>,
    readonly codes: Table<Code>,
    before?: Tally,
  ) {
    this.now = new Set(documents);
    const come = before ? [...this.now].filter((columns) => !before.documents.has(columns)) : [...this.now];
    // where most have changed, counting from nothing is less work than taking away and adding
    if (!before || come.length * 2 > this.now.size) {
      this.counter = new Counter(codes);
      this.affected = new Set();
      this.add(this.now, 'documents', 1);
      return;
    }
    // by the tree that was counted with; the changed parts of the tree are counted anew afterwards
    this.counter = new Counter(before.codes, before.counts);
    this.add(come, 'documents', 1);
    this.add(
      [...before.documents].filter((columns) => !this.now.has(columns)),
      'documents',
      -1,
    );
    this.affected = before.codes === codes ? new Set<Id>() : branchesThatDiffer(before.codes, codes);
    if (this.affected.size > 0) this.add(this.now, 'branches', 1);
  }

  private add(documents: Iterable<PassageColumns>, by: 'documents' | 'branches', sign: 1 | -1): void {
    for (const columns of documents) {
      this.left.push({ columns, by, sign });
      this.codings += columns.codingRow.length;
    }
  }

  /** Codings that are still to be looked at. */
  get size(): number {
    return this.codings;
  }

  /** Looks at some more codings, to the end of a document. @returns whether there are any left */
  step(codings: number): boolean {
    const until = this.codings - codings;
    for (; this.at < this.left.length && this.codings > until; this.at++) {
      const { columns, by, sign } = this.left[this.at]!;
      if (by !== this.counting) this.countBranches();
      this.counter.add(columns, sign);
      this.codings -= columns.codingRow.length;
    }
    return this.at < this.left.length;
  }

  /** The outcome, when all is counted; what is left is counted now. */
  result(): Tally {
    this.step(Infinity);
    return { counts: this.counter.result(), documents: this.now, codes: this.codes };
  }

  private countBranches(): void {
    this.counter = new Counter(this.codes, this.counter.result(), this.affected);
    this.counting = 'branches';
  }
}

/** Counts codes over documents in one go; see {@link Tallying}. */
export const tally = (documents: Iterable<PassageColumns>, codes: Table<Code>, before?: Tally): Tally =>
  new Tallying(documents, codes, before).result();

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
export const countCodes = (documents: Iterable<PassageColumns>, codes: Table<Code>): CodebookCounts => tally(documents, codes).counts;
