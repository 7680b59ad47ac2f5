import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';

/** Codes with this parent, in their order. */
export function childrenOf(codes: Table<Code>, parentId: Id | null): Code[] {
  return Object.values(codes)
    .filter((code) => code.parentId === parentId)
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
}

/** A code and all under it, itself first. */
export function withDescendants(codes: Table<Code>, codeId: Id): Id[] {
  const all = new Set([codeId]);
  // a set goes on to what is added while it is walked
  for (const id of all) for (const child of childrenOf(codes, id)) all.add(child.id);
  return [...all];
}
