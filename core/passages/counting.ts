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

const perDocument = new WeakMap<PassageColumns, { codes: Table<Code>; coderId: Id | null; counts: CodeCounts }>();

/**
 * Counts the passages of one document by code. The last answer is kept with the columns, so that after a
 * change only the document that changed is counted anew.
 * @param coderId counts only this coder's codings; null counts everybody's
 */
export function countDocument(columns: PassageColumns, codes: Table<Code>, coderId: Id | null): CodeCounts {
  const known = perDocument.get(columns);
  if (known?.codes === codes && known.coderId === coderId) return known.counts;
  const counts = { own: new Map<Id, number>(), withUnder: countUnder(columns, codes, coderId) };
  const lastOwn = new Int32Array(columns.codes.length).fill(-1);
  for (let at = 0; at < columns.codingRow.length; at++) {
    if (coderId !== null && columns.coders[columns.codingCoder[at]!] !== coderId) continue;
    const row = columns.codingRow[at]!;
    const code = columns.codingCode[at]!;
    if (lastOwn[code] === row) continue;
    lastOwn[code] = row;
    add(counts.own, columns.codes[code]!, 1);
  }
  perDocument.set(columns, { codes, coderId, counts });
  return counts;
}

/** Passages of one document that carry a code or one under it. @param only counts these codes alone; null counts all */
function countUnder(columns: PassageColumns, codes: Table<Code>, coderId: Id | null, only: ReadonlySet<Id> | null = null): Map<Id, number> {
  const ids: Id[] = [];
  const numbers = new Map<Id, number>();
  const numberOf = (id: Id): number => {
    let number = numbers.get(id);
    if (number === undefined) numbers.set(id, (number = ids.push(id) - 1));
    return number;
  };
  let none = true;
  const lines = columns.codes.map((id) => {
    const line = lineage(codes, id);
    const wanted = only ? line.filter((above) => only.has(above)) : line;
    if (wanted.length > 0) none = false;
    return wanted.map(numberOf);
  });
  const counts = new Map<Id, number>();
  if (none) return counts;
  const sums = new Int32Array(ids.length);
  const last = new Int32Array(ids.length).fill(-1);
  for (let at = 0; at < columns.codingRow.length; at++) {
    const line = lines[columns.codingCode[at]!]!;
    if (line.length === 0 || (coderId !== null && columns.coders[columns.codingCoder[at]!] !== coderId)) continue;
    const row = columns.codingRow[at]!;
    for (const above of line) {
      if (last[above] === row) continue;
      last[above] = row;
      sums[above]!++;
    }
  }
  ids.forEach((id, number) => {
    if (sums[number]! > 0) counts.set(id, sums[number]!);
  });
  return counts;
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

interface GrowingTally {
  readonly own: Map<Id, number>;
  readonly withUnder: Map<Id, number>;
  readonly documents: Map<Id, number>;
  readonly documentsWithUnder: Map<Id, number>;
}

/**
 * Sums {@link countDocument} over documents.
 * @param before an earlier tally: documents that are in both are neither counted nor added again, and where codes
 *   were moved, only the categories they left and came under are
 */
export function tally(documents: Iterable<PassageColumns>, codes: Table<Code>, coderId: Id | null = null, before?: Tally): Tally {
  const now = new Set(documents);
  const fits = before?.coderId === coderId ? before : undefined;
  const counts: GrowingTally = {
    own: new Map(fits?.counts.own),
    withUnder: new Map(fits?.counts.withUnder),
    documents: new Map(fits?.counts.documents),
    documentsWithUnder: new Map(fits?.counts.documentsWithUnder),
  };
  // what is taken away and added goes by the tree that was counted with; then the changed parts of the tree are counted anew
  const tree = fits?.codes ?? codes;
  for (const columns of now) if (!fits?.documents.has(columns)) addAll(counts, countDocument(columns, tree, coderId), 1);
  for (const columns of fits?.documents ?? []) if (!now.has(columns)) addAll(counts, countDocument(columns, tree, coderId), -1);
  if (tree !== codes) recountMoved(counts, now, tree, codes, coderId);
  return { counts, documents: now, codes, coderId };
}

/** Counts anew, with what is under them, the codes whose branch is another in one tree than in the other. */
function recountMoved(
  counts: GrowingTally,
  documents: Iterable<PassageColumns>,
  before: Table<Code>,
  after: Table<Code>,
  coderId: Id | null,
) {
  const moved = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter((id) => before[id]?.parentId !== after[id]?.parentId);
  if (moved.length === 0) return;
  const affected = new Set<Id>();
  for (const id of moved) {
    const left = new Set(lineage(before, id));
    const come = new Set(lineage(after, id));
    for (const above of left) if (!come.has(above) || moved.length > 1) affected.add(above);
    for (const above of come) if (!left.has(above) || moved.length > 1) affected.add(above);
  }
  for (const id of affected) {
    counts.withUnder.delete(id);
    counts.documentsWithUnder.delete(id);
  }
  for (const columns of documents)
    for (const [id, count] of countUnder(columns, after, coderId, affected)) {
      add(counts.withUnder, id, count);
      add(counts.documentsWithUnder, id, 1);
    }
}

/** The counts of {@link tally}, counted from nothing. */
export const countCodes = (documents: Iterable<PassageColumns>, codes: Table<Code>, coderId: Id | null = null): CodebookCounts =>
  tally(documents, codes, coderId).counts;

function addAll(counts: GrowingTally, some: CodeCounts, sign: 1 | -1): void {
  for (const [id, count] of some.own) {
    add(counts.own, id, sign * count);
    add(counts.documents, id, sign);
  }
  for (const [id, count] of some.withUnder) {
    add(counts.withUnder, id, sign * count);
    add(counts.documentsWithUnder, id, sign);
  }
}

function add(counts: Map<Id, number>, id: Id, count: number): void {
  const sum = (counts.get(id) ?? 0) + count;
  if (sum === 0) counts.delete(id);
  else counts.set(id, sum);
}
