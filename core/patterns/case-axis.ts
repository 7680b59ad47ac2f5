import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import { CaseFinder } from '../passages/code-use';
import type { AskedStudy } from '../queries/asked-study';
import type { Entry, GroupAxis, GroupsOfPlace } from './axis';

/** The cases that have anything in some documents. */
export const casesPresent = ({ tables, finder }: AskedStudy, documents: readonly Document[]): Id[] =>
  [...new Set(documents.flatMap((document) => finder.in(document)))].filter((id) => Object.hasOwn(tables.case, id));

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
