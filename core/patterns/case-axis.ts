import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';
import { CaseFinder } from '../passages/code-use';
import type { AskedStudy } from '../queries/asked-study';
import type { Entry, GroupAxis, GroupsOfPlace } from './axis';

/** The cases that have anything in some documents. */
export function casesPresent({ tables, finder }: AskedStudy, documents: readonly Document[]): Id[] {
  const present = new Set<Id>();
  for (const document of documents) for (const id of casesOf(finder, tables.case, document)) present.add(id);
  return [...present].filter((id) => Object.hasOwn(tables.case, id));
}

/** The cases that own a document or a part of it, or speak in it. */
export function casesOf(finder: CaseFinder, cases: Table<unknown>, document: Document): Id[] {
  const everywhere = finder.of({ ...document, speakers: [] }, null, { start: 0, end: Infinity });
  return [...new Set([...everywhere, ...document.speakers.flatMap((speaker) => speaker.caseId ?? [])])].filter((id) =>
    Object.hasOwn(cases, id),
  );
}

/**
 * Groups of the cases whose a place is.
 * @param groupsOf the groups of a case in a document
 * @param none the groups of places that are no case's
 */
export function ofCases(
  { finder }: AskedStudy,
  entries: readonly Entry[],
  groupsOf: (document: Document, caseId: Id) => readonly number[],
  none: readonly number[] | ((document: Document) => readonly number[]),
): GroupAxis {
  return {
    entries,
    needsSpoken: (document) => CaseFinder.needsText(document),
    of: ({ document, spoken }): GroupsOfPlace => {
      const noneHere = typeof none === 'function' ? none(document) : none;
      /** By the ids of the cases: those of one document's places are the same again and again. */
      const known = new Map<string, readonly number[]>();
      return {
        at: (place) => {
          const ids = finder.of(document, spoken, place);
          if (ids.length === 0) return noneHere;
          const key = ids.join();
          let groups = known.get(key);
          if (!groups) known.set(key, (groups = [...new Set(ids.flatMap((id) => groupsOf(document, id)))]));
          return groups;
        },
        atAs: (_, caseId) => groupsOf(document, caseId),
      };
    },
  };
}
