import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';

/** Children by parent, sorted: remembered with the codebook, so that walking the tree takes one pass over it. */
const families = new WeakMap<Table<Code>, ReadonlyMap<Id | null, readonly Code[]>>();

function familiesOf(codes: Table<Code>): ReadonlyMap<Id | null, readonly Code[]> {
  const known = families.get(codes);
  if (known) return known;
  const byParent = new Map<Id | null, Code[]>();
  for (const code of Object.values(codes)) {
    const some = byParent.get(code.parentId);
    if (some) some.push(code);
    else byParent.set(code.parentId, [code]);
  }
  for (const some of byParent.values()) some.sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
  families.set(codes, byParent);
  return byParent;
}

/** Codes with this parent, in their order. */
export const childrenOf = (codes: Table<Code>, parentId: Id | null): readonly Code[] => familiesOf(codes).get(parentId) ?? [];

/** A row of the codebook as it is shown. */
export interface TreeRow {
  readonly code: Code;
  /** How deep it lies, 0 at the top. */
  readonly level: number;
  readonly hasChildren: boolean;
}

/**
 * Every code in the order of the tree.
 * @param compare another order among siblings than the researcher's own
 * @param folded codes whose branches are left out
 */
export function inTreeOrder(codes: Table<Code>, compare?: (a: Code, b: Code) => number, folded?: ReadonlySet<Id>): TreeRow[] {
  const rows: TreeRow[] = [];
  const siblings = (parentId: Id | null): readonly Code[] =>
    compare ? childrenOf(codes, parentId).toSorted(compare) : childrenOf(codes, parentId);
  const waiting = siblings(null)
    .toReversed()
    .map((code) => ({ code, level: 0 }));
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { code, level } = next;
    const children = siblings(code.id);
    rows.push({ code, level, hasChildren: children.length > 0 });
    if (folded?.has(code.id)) continue;
    for (let at = children.length - 1; at >= 0; at--) waiting.push({ code: children[at]!, level: level + 1 });
  }
  return rows;
}

/** A code and all under it, itself first. */
export function withDescendants(codes: Table<Code>, codeId: Id): Id[] {
  const all = new Set([codeId]);
  // a set goes on to what is added while it is walked
  for (const id of all) for (const child of childrenOf(codes, id)) all.add(child.id);
  return [...all];
}
