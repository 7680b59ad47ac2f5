import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import type { FoundHit } from './found-hit';

/** What hits are counted by. */
export const HIT_GROUPS = ['document', 'case', 'speaker', 'folder'] as const;
export type HitGroup = (typeof HIT_GROUPS)[number];

/** How many hits a document, a case, a speaker or a folder has. */
export interface HitCount {
  /** Id of the record, name of the speaker; empty for those of none. */
  readonly key: string;
  readonly name: string;
  readonly count: number;
}

/** The keys that a hit is counted under: of several cases under each. */
export function keysOf({ documentId, caseIds, speaker }: FoundHit, by: HitGroup, tables: StudyState['tables']): readonly string[] {
  if (by === 'document') return [documentId];
  if (by === 'case') return caseIds.length > 0 ? caseIds : [''];
  if (by === 'speaker') return [speaker];
  return [tables.document[documentId]?.folderId ?? ''];
}

/** Counts hits, those with the most first. */
export function countHits(hits: readonly FoundHit[], by: HitGroup, tables: StudyState['tables']): HitCount[] {
  const counts = new Map<string, number>();
  for (const hit of hits) for (const key of keysOf(hit, by, tables)) counts.set(key, (counts.get(key) ?? 0) + 1);
  return [...counts]
    .map(([key, count]) => ({ key, name: nameOf(key, by, tables), count }))
    .sort((a, b) => b.count - a.count || a.name.localeCompare(b.name, undefined, { numeric: true }));
}

function nameOf(key: Id, by: HitGroup, { document, case: cases, folder }: StudyState['tables']): string {
  if (key === '') return { document: '', case: 'of no case', speaker: 'nobody named', folder: 'in no folder' }[by];
  if (by === 'document') return document[key]?.title ?? '';
  if (by === 'case') return cases[key]?.name ?? '';
  return by === 'speaker' ? key : (folder[key]?.name ?? '');
}
