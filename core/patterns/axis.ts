import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { Place } from '../model/stretch';
import { placeOfRow } from '../passages/columns';
import type { Spoken } from '../text/paragraphs';

/** A row or column of a pattern. */
export interface Entry {
  /** Tells it from every other of its axis, and stays the same as long as it stands for the same. */
  readonly key: string;
  /** As it is shown; nested ones from the outermost. */
  readonly path: readonly string[];
  /** The record it stands for, where it is one. */
  readonly id?: Id;
  /** It holds what is in no other, and is left out where nothing is in it. */
  readonly rest?: true;
}

/** The entry of a record. */
export const entryFor = (id: Id, name: string): Entry => ({ key: id, path: [name], id });

/** The name of a row or column in one line. */
export const nameOf = ({ path }: Entry): string => path.join(' · ');

/** The keys of the values that the key of a group of nested attributes is made of, the outermost first; none where it is no such key. */
export function stepsIn(key: string): readonly string[] {
  try {
    const steps: unknown = JSON.parse(key);
    return Array.isArray(steps) ? steps.map(String) : [];
  } catch {
    return [];
  }
}

/** The place of a key among entries: one more than the last for all of them, -1 for what is not there. */
export const placeOf = (entries: readonly { readonly key: string }[], key: string | null): number =>
  key === null ? entries.length : entries.findIndex((one) => one.key === key);

/** A document whose places are put into groups, with what is known of it. */
export interface Placed {
  readonly document: Document;
  /** Who speaks where; null where it was not said to be needed. */
  readonly spoken: Spoken | null;
}

/** Into which groups places belong, by their place in the list of entries. Any number of them, or none. */
export interface GroupAxis {
  readonly entries: readonly Entry[];
  /** Whether it must be known who speaks where in a document. */
  needsSpoken(document: Document): boolean;
  /**
   * Made ready for a document.
   * @returns the groups that all of it is in, or, where that depends on the place, what tells them
   */
  of(placed: Placed): readonly number[] | GroupsOfPlace;
  /** Groups belong to the coders of codings, not to places. */
  readonly coders?: ReadonlyMap<Id, number>;
}

export interface GroupsOfPlace {
  /** Groups of a place, whosever it is. */
  at(place: Place): readonly number[];
  /** Groups of a place as one of a case. */
  atAs(place: Place, caseId: Id): readonly number[];
  /** Groups of each row of the document. @param rows ascending by start */
  ofRows(rows: PassageColumns): GroupsOfRows;
}

/** The groups of the rows of a document: those of one document are the same again and again. */
export interface GroupsOfRows {
  readonly lists: readonly (readonly number[])[];
  /** By row, the place of its list. */
  readonly listOf: Uint32Array;
}

/** Groups that depend on the place alone, whosever it is. */
export const byPlace = (at: (place: Place) => readonly number[]): GroupsOfPlace => ({
  at,
  atAs: at,
  ofRows: (rows) => {
    const lists: (readonly number[])[] = [];
    const places = new Map<readonly number[], number>();
    const placeOfList = (list: readonly number[]): number => {
      let place = places.get(list);
      if (place === undefined) places.set(list, (place = lists.push(list) - 1));
      return place;
    };
    return { lists, listOf: rows.starts.map((_, row) => placeOfList(at(placeOfRow(rows, row)))) };
  },
});

/** Whether all of a document is in the same groups. */
export const isWhole = (groups: readonly number[] | GroupsOfPlace | GroupsOfRows): groups is readonly number[] => Array.isArray(groups);
