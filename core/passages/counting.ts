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

/** The code and every category above it, nearest first. A loop in the tree ends the walk. */
export function lineage(codes: Table<Code>, codeId: Id): Id[] {
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

/** Sums {@link countDocument} over documents. */
export function countCodes(documents: Iterable<PassageColumns>, codes: Table<Code>, coderId: Id | null = null): CodeCounts {
  const counts: GrowingCounts = { own: new Map(), withUnder: new Map() };
  for (const columns of documents) {
    const some = countDocument(columns, codes, coderId);
    for (const [id, count] of some.own) add(counts.own, id, count);
    for (const [id, count] of some.withUnder) add(counts.withUnder, id, count);
  }
  return counts;
}

function add(counts: Map<Id, number>, id: Id, count: number): void {
  counts.set(id, (counts.get(id) ?? 0) + count);
}
