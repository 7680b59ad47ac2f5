import type { Code } from '../model/code';
import { fold } from '../text/fold';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';
import { lineage } from '../passages/counting';

/** A code that fits what was typed. */
export interface FoundCode {
  readonly code: Code;
  /** Names of the categories above it, the nearest first. */
  readonly categories: readonly string[];
}

/** Names and definitions folded once for each code: typing asks for them again with every letter. */
const foldedCodes = new WeakMap<Code, { readonly name: string; readonly mark: string; readonly definition: string }>();

function foldedOf(code: Code): { readonly name: string; readonly mark: string; readonly definition: string } {
  let known = foldedCodes.get(code);
  if (!known) foldedCodes.set(code, (known = { name: fold(code.name), mark: fold(code.mark), definition: fold(code.definition) }));
  return known;
}

/**
 * Finds codes by any part of name, category or definition; every word typed must be found somewhere. Codes
 * whose name begins with the words come first, then those with a word that does, then the rest of the
 * names, then categories, then definitions; within these the codes used last, then by name.
 * @param typed empty lists the codes used last, then all
 * @param recent ids of codes used, the newest first
 */
export function findCodes(codes: Table<Code>, typed: string, recent: readonly Id[], limit = 50): FoundCode[] {
  const words = fold(typed).split(/\s+/).filter(Boolean);
  const recency = new Map(recent.map((id, at) => [id, at]));
  const ranked: { code: Code; rank: number; recent: number }[] = [];
  for (const code of Object.values(codes)) {
    const rank = rankOf(codes, code, words);
    if (rank !== null) ranked.push({ code, rank, recent: recency.get(code.id) ?? Infinity });
  }
  ranked.sort((a, b) => a.rank - b.rank || compare(a.recent, b.recent) || a.code.name.localeCompare(b.code.name));
  return ranked.slice(0, limit).map(({ code }) => ({ code, categories: categoriesOf(codes, code.id) }));
}

/** Names of the categories above a code, the nearest first. */
export const categoriesOf = (codes: Table<Code>, id: Id): string[] =>
  lineage(codes, id)
    .slice(1)
    .map((above) => codes[above]!.name);

/** The code that has exactly this name, whatever its case. */
export const codeNamed = (codes: Table<Code>, name: string, parentId?: Id | null): Code | undefined =>
  Object.values(codes).find((code) => fold(code.name) === fold(name.trim()) && (parentId === undefined || code.parentId === parentId));

function rankOf(codes: Table<Code>, code: Code, words: readonly string[]): number | null {
  if (words.length === 0) return 0;
  const { name } = foldedOf(code);
  let worst = 0;
  for (const word of words) {
    const rank = rankOfWord(codes, code, name, word);
    if (rank === null) return null;
    worst = Math.max(worst, rank);
  }
  return name.replace(/^\P{L}+/u, '').startsWith(words.join(' ')) ? 0 : worst + 1;
}

function rankOfWord(codes: Table<Code>, code: Code, name: string, word: string): number | null {
  const at = name.indexOf(word);
  if (at >= 0) return name.split(/[^\p{L}\p{N}]+/u).some((part) => part.startsWith(word)) ? 0 : 1;
  const { mark, definition } = foldedOf(code);
  if (mark === word) return 0;
  if (
    lineage(codes, code.id)
      .slice(1)
      .some((above) => foldedOf(codes[above]!).name.includes(word))
  )
    return 2;
  return definition.includes(word) ? 3 : null;
}

const compare = (a: number, b: number): number => (a === b ? 0 : a < b ? -1 : 1);
