import type { MovesIn } from '../change/moves-in';
import type { Id } from '../model/ids';
import type { Scope, ScopePart } from '../model/scope';

/**
 * A scope that is being looked at, after something was moved or taken away. What is gone is not asked for any more, and a
 * part that has nothing left goes: it would leave nothing, or read like everything. A document that was divided stands
 * for both its parts.
 * @returns the very same scope where nothing changed
 */
export function scopeAfter(scope: Scope, moves: Pick<MovesIn, 'records' | 'at'>): Scope {
  const now = (of: 'case' | 'folder' | 'set' | 'question' | 'coder' | 'attribute', ids: readonly Id[]): Id[] =>
    ids.flatMap((id) => (moves.records[of]?.has(id) ? (moves.records[of].get(id) ?? []) : [id]));
  const documents = (ids: readonly Id[]): Id[] => [
    ...new Set(ids.flatMap((id) => [0, Infinity].flatMap((position) => moves.at({ documentId: id, position })?.documentId ?? []))),
  ];
  const partNow = (part: ScopePart): ScopePart | null => {
    if ('ofCases' in part) return some('ofCases', part, now('case', part.ofCases), part.ofCases);
    if ('answers' in part) return some('answers', part, now('question', part.answers), part.answers);
    if ('attributeId' in part) return now('attribute', [part.attributeId]).length > 0 ? part : null;
    if ('spokenBy' in part) {
      const caseIds = now('case', part.caseIds);
      if (caseIds.length === part.caseIds.length) return part;
      return part.spokenBy === 'these' && caseIds.length + part.names.length === 0 ? null : { ...part, caseIds };
    }
    if (!('liesIn' in part)) return part;
    const before = part.liesIn;
    const liesIn = {
      documentIds: documents(before.documentIds),
      folderIds: now('folder', before.folderIds),
      setIds: now('set', before.setIds),
      ...(before.foldersAlone && { foldersAlone: before.foldersAlone }),
    };
    if (JSON.stringify(liesIn) === JSON.stringify(before)) return part;
    return liesIn.documentIds.length + liesIn.folderIds.length + liesIn.setIds.length === 0 ? null : { liesIn };
  };
  const parts = scope.parts.map(partNow);
  const coderIds = scope.given?.coderIds && now('coder', scope.given.coderIds);
  if (parts.every((part, at) => part === scope.parts[at]) && coderIds?.length === scope.given?.coderIds?.length) return scope;
  const { coderIds: _, ...days } = scope.given ?? {};
  const given = { ...days, ...(coderIds && coderIds.length > 0 && { coderIds }) };
  return { parts: parts.filter((part) => part !== null), ...(Object.keys(given).length > 0 && { given }) };
}

/** A part with the ids that are left; null where it had some and has none. */
function some<K extends 'ofCases' | 'answers'>(field: K, part: ScopePart, left: readonly Id[], before: readonly Id[]): ScopePart | null {
  if (left.length === before.length) return part;
  return left.length > 0 ? ({ [field]: left } as unknown as ScopePart) : null;
}
