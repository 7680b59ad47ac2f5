import { jaccard } from '../patterns/jaccard';
import { sharedCharacters } from '../patterns/shared-characters';
import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';
import type { PassageColumns } from '../model/passage-columns';
import type { CodeCounts } from '../passages/counting';
import { fold } from '../text/fold';
import { childrenOf } from './tree';

/** What may be wrong with a codebook. Nothing is wrong for certain: each can be left as it is. */
export type Finding =
  | { readonly kind: 'never used'; readonly codeIds: readonly [Id] }
  | { readonly kind: 'similar names'; readonly codeIds: readonly [Id, Id] }
  /** `share`: characters in passages of both, of those in passages of either (Jaccard), 0 to 1. */
  | { readonly kind: 'similar passages'; readonly codeIds: readonly [Id, Id]; readonly share: number }
  /** `share`: of all passages with any code, 0 to 1. */
  | { readonly kind: 'too broad'; readonly codeIds: readonly [Id]; readonly share: number }
  | { readonly kind: 'one child'; readonly codeIds: readonly [Id, Id] };

/** From where on something is reported. */
export interface CheckLimits {
  /** Overlap of passages, 0 to 1. */
  readonly overlap: number;
  /** Share of all passages, 0 to 1. */
  readonly broad: number;
}

export const USUAL_LIMITS: CheckLimits = { overlap: 0.7, broad: 0.25 };

/** A finding as one key: the same finding has the same key always. */
export const keyOf = (finding: { readonly kind: Finding['kind']; readonly codeIds: readonly Id[] }): string =>
  `${finding.kind} ${[...finding.codeIds].sort().join(' ')}`;

/** Looks through a codebook. Retired codes are passed over. */
export function checkCodebook(
  codes: Table<Code>,
  documents: readonly PassageColumns[],
  counts: CodeCounts,
  limits = USUAL_LIMITS,
): Finding[] {
  const used = Object.values(codes).filter((code) => !code.retired);
  return [
    ...unused(codes, used, counts),
    ...similarNames(used),
    ...similarPassages(codes, documents, limits.overlap),
    ...tooBroad(used, documents, counts, limits.broad),
    ...oneChild(codes, used),
  ];
}

function unused(codes: Table<Code>, used: readonly Code[], counts: CodeCounts): Finding[] {
  // a code that holds others is structure and needs no passages of its own
  return used
    .filter((code) => !counts.own.has(code.id) && childrenOf(codes, code.id).length === 0)
    .map((code) => ({ kind: 'never used', codeIds: [code.id] }));
}

/** Words of a name without case, accents, order and the plural's s. */
const essence = (name: string): string =>
  fold(name)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .map((word) => (word.length > 3 ? word.replace(/e?s?$/, '') : word))
    .sort()
    .join(' ');

function similarNames(codes: readonly Code[]): Finding[] {
  const findings: Finding[] = [];
  const names = codes.map((code) => ({ id: code.id, essence: essence(code.name), plain: fold(code.name).replace(/[^\p{L}\p{N}]/gu, '') }));
  // names that are one slip of the hand apart are nearly as long and share a beginning or an end
  const buckets = new Map<string, typeof names>();
  for (const one of names)
    for (const key of new Set([`= ${one.essence}`, `< ${one.plain.slice(0, 3)}`, `> ${one.plain.slice(-3)}`])) {
      const some = buckets.get(key);
      if (some) some.push(one);
      else buckets.set(key, [one]);
    }
  const seen = new Set<string>();
  for (const bucket of buckets.values())
    for (const [at, a] of bucket.entries())
      for (const b of bucket.slice(at + 1)) {
        const key = a.id < b.id ? `${a.id} ${b.id}` : `${b.id} ${a.id}`;
        if (seen.has(key)) continue;
        seen.add(key);
        const long = Math.min(a.plain.length, b.plain.length) >= 5;
        if ((a.essence !== '' && a.essence === b.essence) || (long && withinOneEdit(a.plain, b.plain)))
          findings.push({ kind: 'similar names', codeIds: [a.id, b.id] });
      }
  return findings;
}

/** Whether one letter added, left out or exchanged makes one word of the other (Levenshtein distance at most 1). */
export function withinOneEdit(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 1) return false;
  let start = 0;
  while (start < a.length && a[start] === b[start]) start++;
  let end = 0;
  while (end < Math.min(a.length, b.length) - start && a.at(-1 - end) === b.at(-1 - end)) end++;
  return Math.max(a.length, b.length) - start - end <= 1;
}

function similarPassages(codes: Table<Code>, documents: readonly PassageColumns[], limit: number): Finding[] {
  return sharedCharacters(documents.filter((columns) => columns.ground === 'text')).flatMap((pair): Finding[] => {
    const share = jaccard(pair);
    const inUse = pair.codeIds.every((id) => Object.hasOwn(codes, id) && !codes[id]!.retired);
    return share >= limit && inUse ? [{ kind: 'similar passages', codeIds: pair.codeIds, share }] : [];
  });
}

function tooBroad(used: readonly Code[], documents: readonly PassageColumns[], counts: CodeCounts, limit: number): Finding[] {
  const coded = documents.reduce((sum, columns) => sum + new Set(columns.codingRow).size, 0);
  // of a handful of passages every code is a large share
  if (coded < 20) return [];
  return used.flatMap((code): Finding[] => {
    const share = (counts.own.get(code.id) ?? 0) / coded;
    return share >= limit ? [{ kind: 'too broad', codeIds: [code.id], share }] : [];
  });
}

function oneChild(codes: Table<Code>, used: readonly Code[]): Finding[] {
  return used.flatMap((code): Finding[] => {
    const children = childrenOf(codes, code.id);
    return children.length === 1 ? [{ kind: 'one child', codeIds: [code.id, children[0]!.id] }] : [];
  });
}
