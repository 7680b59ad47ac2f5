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

interface GrowingCounts {
  readonly own: Map<Id, number>;
  readonly withUnder: Map<Id, number>;
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
  const ids = columns.codes;
  const lines = ids.map((id) => lineage(codes, id));
  const lastOwn = new Int32Array(ids.length).fill(-1);
  const lastUnder = new Map<Id, number>();
  const counts: GrowingCounts = { own: new Map(), withUnder: new Map() };
  for (let at = 0; at < columns.codingRow.length; at++) {
    if (coderId !== null && columns.coders[columns.codingCoder[at]!] !== coderId) continue;
    const row = columns.codingRow[at]!;
    const code = columns.codingCode[at]!;
    if (lastOwn[code] === row) continue;
    lastOwn[code] = row;
    add(counts.own, ids[code]!, 1);
    for (const above of lines[code]!) {
      if (lastUnder.get(above) === row) continue;
      lastUnder.set(above, row);
      add(counts.withUnder, above, 1);
    }
  }
  perDocument.set(columns, { codes, coderId, counts });
  return counts;
}

/** What was counted, with what it was counted from, so that the next count need only look at what has changed. */
export interface Tally {
  readonly counts: CodeCounts;
  readonly documents: ReadonlySet<PassageColumns>;
  readonly codes: Table<Code>;
  readonly coderId: Id | null;
}

/**
 * Sums {@link countDocument} over documents.
 * @param before an earlier tally: documents that are in both are neither counted nor added again
 */
export function tally(documents: Iterable<PassageColumns>, codes: Table<Code>, coderId: Id | null = null, before?: Tally): Tally {
  const now = new Set(documents);
  const fits = before?.codes === codes && before.coderId === coderId ? before : undefined;
  const counts: GrowingCounts = { own: new Map(fits?.counts.own), withUnder: new Map(fits?.counts.withUnder) };
  for (const columns of now) if (!fits?.documents.has(columns)) addAll(counts, countDocument(columns, codes, coderId), 1);
  for (const columns of fits?.documents ?? []) if (!now.has(columns)) addAll(counts, countDocument(columns, codes, coderId), -1);
  return { counts, documents: now, codes, coderId };
}

/** The counts of {@link tally}, counted from nothing. */
export const countCodes = (documents: Iterable<PassageColumns>, codes: Table<Code>, coderId: Id | null = null): CodeCounts =>
  tally(documents, codes, coderId).counts;

function addAll(counts: GrowingCounts, some: CodeCounts, sign: 1 | -1): void {
  for (const [id, count] of some.own) add(counts.own, id, sign * count);
  for (const [id, count] of some.withUnder) add(counts.withUnder, id, sign * count);
}

function add(counts: Map<Id, number>, id: Id, count: number): void {
  const sum = (counts.get(id) ?? 0) + count;
  if (sum === 0) counts.delete(id);
  else counts.set(id, sum);
}
