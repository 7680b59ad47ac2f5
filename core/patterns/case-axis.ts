import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { Place } from '../model/stretch';
import { CaseFinder } from '../passages/case-finder';
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
    of: ({ document, spoken }): readonly number[] | GroupsOfPlace => {
      const noneHere = typeof none === 'function' ? none(document) : none;
      const all = finder.ofAll(document);
      // of several, each is in groups of its own
      if (all && all.length < 2) return all.length === 0 ? noneHere : [...new Set(groupsOf(document, all[0]!))];
      /** By the ids of the cases: those of one document's places are the same again and again. */
      const known = new Map<string, readonly number[]>();
      const groupsOfAll = (ids: readonly Id[]): readonly number[] => {
        if (ids.length === 0) return noneHere;
        const key = ids.length === 1 ? ids[0]! : ids.join();
        let groups = known.get(key);
        if (!groups) known.set(key, (groups = [...new Set(ids.flatMap((id) => groupsOf(document, id)))]));
        return groups;
      };
      return {
        at: (place: Place) => groupsOfAll(finder.of(document, spoken, place)),
        ofRows: (rows: PassageColumns) => {
          const { lists, listOf } = finder.ofRows(document, spoken, rows);
          return { lists: lists.map(groupsOfAll), listOf };
        },
        atAs: (_: Place, caseId: Id) => groupsOf(document, caseId),
      };
    },
  };
}
