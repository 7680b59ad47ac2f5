import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { Place } from '../model/stretch';
import { CaseFinder } from '../passages/case-finder';
import type { AskedStudy } from '../queries/asked-study';
import type { Spoken } from '../text/paragraphs';
import type { Entry, GroupAxis, GroupsOfPlace, GroupsOfRows } from './axis';

/** The cases that have anything in some documents. */
export const casesPresent = ({ tables, finder }: AskedStudy, documents: readonly Document[]): Id[] =>
  [...new Set(documents.flatMap((document) => finder.in(document)))].filter((id) => Object.hasOwn(tables.case, id));

/**
 * Groups of the cases whose a place is.
 * @param groupsOf the groups of a case in a document, each once
 * @param none the groups of places that are no case's
 */
export function ofCases(
  { finder }: AskedStudy,
  entries: readonly Entry[],
  groupsOf: GroupsOfCase,
  none: readonly number[] | ((document: Document) => readonly number[]),
): GroupAxis {
  return {
    entries,
    needsSpoken: (document) => CaseFinder.needsText(document),
    of: ({ document, spoken }) => {
      const noneHere = typeof none === 'function' ? none(document) : none;
      const all = finder.ofAll(document);
      // of several, each is in groups of its own
      if (all && all.length < 2) return all.length === 0 ? noneHere : groupsOf(document, all[0]!);
      return new GroupsOfCases(finder, document, spoken, groupsOf, noneHere);
    },
  };
}

type GroupsOfCase = (document: Document, caseId: Id) => readonly number[];

/** The groups of a document's places, by the cases whose they are. */
class GroupsOfCases implements GroupsOfPlace {
  constructor(
    private readonly finder: CaseFinder,
    private readonly document: Document,
    private readonly spoken: Spoken | null,
    private readonly groupsOf: GroupsOfCase,
    private readonly none: readonly number[],
  ) {}

  at(place: Place): readonly number[] {
    return this.ofAll(this.finder.of(this.document, this.spoken, place));
  }

  atAs(_: Place, caseId: Id): readonly number[] {
    return this.groupsOf(this.document, caseId);
  }

  ofRows(rows: PassageColumns): GroupsOfRows {
    const { lists, listOf } = this.finder.ofRows(this.document, this.spoken, rows);
    return { lists: lists.map((ids) => this.ofAll(ids)), listOf };
  }

  private ofAll(ids: readonly Id[]): readonly number[] {
    if (ids.length === 0) return this.none;
    if (ids.length === 1) return this.groupsOf(this.document, ids[0]!);
    return [...new Set(ids.flatMap((id) => this.groupsOf(this.document, id)))];
  }
}
