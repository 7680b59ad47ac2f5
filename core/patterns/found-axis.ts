import { childrenOf, inTreeOrder } from '../codebook/tree';
import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageCondition } from '../model/passage-condition';
import type { PassageColumns } from '../model/passage-columns';
import type { RowsAsked } from '../model/pattern';
import { codeNumber, codeNumbersOf, numbersGiven } from '../passages/code-numbers';
import { answeringOf, needsText, type Answering } from '../queries/answering';
import type { AskedStudy } from '../queries/asked-study';
import { DocumentHere } from '../queries/document-here';
import type { Spoken } from '../text/paragraphs';
import { naturalOrder } from '../text/natural-order';
import { entryFor, type Entry } from './axis';
import { EntriesByNumber, type EntriesOfCodes, type ListsOfEntries } from './entries-of-codes';
import { foundByCodes, type Found } from './found-codes';

/** A document that is looked through. */
export interface LookedAt {
  readonly columns: PassageColumns;
  readonly document: Document;
  readonly text: Text | null;
  readonly spoken: Spoken | null;
}

/** What is looked for: codes, sets of codes, or kept queries, each a row of a pattern. */
export interface FoundAxis {
  readonly entries: readonly Entry[];
  needsText(document: Document): boolean;
  /**
   * What is found in a document, by entry; undefined where an entry is not found. One more at the end holds whatever
   * was found of any entry.
   */
  in(here: LookedAt): (Found | undefined)[];
  /** Where codings alone say what is found: the entries of a document's codes. */
  entriesOf?(columns: PassageColumns): EntriesOfCodes;
  /** Those of all codes, by their numbers. */
  readonly byNumber?: ListsOfEntries;
}

/** The rows that a pattern asks for. A record that is gone has none. */
export function foundAxisOf(asked: RowsAsked, study: AskedStudy): FoundAxis {
  const { tables } = study;
  switch (asked.of) {
    case 'codes': {
      const chosen = asked.codeIds && new Set(asked.codeIds);
      const codes = inTreeOrder(tables.code).flatMap(({ code }) => (!chosen || chosen.has(code.id) ? [code] : []));
      return byCodes(
        codes.map(({ id, name }) => entryFor(id, name)),
        study.groupsOf({ codeIds: codes.map(({ id }) => id), setIds: [], withUnder: asked.withUnder }),
      );
    }
    case 'top codes': {
      const codes = childrenOf(tables.code, null);
      return byCodes(
        codes.map(({ id, name }) => entryFor(id, name)),
        study.groupsOf({ codeIds: codes.map(({ id }) => id), setIds: [], withUnder: true }),
      );
    }
    case 'code sets': {
      const sets = naturalOrder(
        Object.values(tables.codeSet).filter(({ id }) => asked.setIds?.includes(id) ?? true),
        (set) => set.name,
      );
      return byCodes(
        sets.map(({ id, name }) => entryFor(id, name)),
        study.groupsOf({ codeIds: [], setIds: sets.map(({ id }) => id), withUnder: false }),
      );
    }
    case 'queries': {
      const queries = naturalOrder(
        Object.values(tables.query).filter(({ id }) => asked.queryIds?.includes(id) ?? true),
        (query) => query.name,
      );
      return byQueries(
        queries.map(({ id, name }) => entryFor(id, name)),
        queries.map(({ id }) => ({ queryId: id })),
        study,
      );
    }
  }
}

/** What sets the keys of the second of two axes apart: both can hold the same. */
const SECOND = '>';

/** Two axes as one, the second after the first. */
export function oneAfterTheOther(first: FoundAxis, second: FoundAxis): FoundAxis {
  const before = first.entries.length;
  return {
    entries: [...first.entries, ...second.entries.map((entry) => ({ ...entry, key: SECOND + entry.key }))],
    needsText: (document) => first.needsText(document) || second.needsText(document),
    in: (here) => {
      const [some, others] = [first.in(here), second.in(here)];
      const all = (found: (Found | undefined)[], length: number): (Found | undefined)[] => Array.from({ length }, (_, at) => found[at]);
      return [...all(some, before), ...all(others, second.entries.length), bothFound(some[before], others[second.entries.length])];
    },
    ...(first.byNumber && second.byNumber && bySaidOfCodes(bothSaid(first.byNumber, second.byNumber, before))),
  };
}

/** What codings alone say. @param byNumber entries of codes, by the codes' numbers */
function bySaidOfCodes(byNumber: ListsOfEntries): Required<Pick<FoundAxis, 'entriesOf' | 'byNumber'>> {
  const entries = new EntriesByNumber(byNumber);
  return { byNumber, entriesOf: ({ codes }) => entries.of(codeNumbersOf(codes), numbersGiven()) };
}

/** @param before how many entries come before those of the other */
function bothSaid(one: ListsOfEntries, other: ListsOfEntries, before: number): ListsOfEntries {
  return Array.from({ length: Math.max(one.length, other.length) }, (_, number) => {
    const then = other[number]?.map((entry) => entry + before);
    return one[number] && then ? [...one[number], ...then] : (one[number] ?? then);
  });
}

/** The key that an entry of the second of two axes has by itself. */
export const keyInSecond = (key: string): string => key.slice(SECOND.length);

function bothFound(one: Found | undefined, other: Found | undefined): Found | undefined {
  if (!one || !other) return one ?? other;
  const ascending = (a: readonly number[], b: readonly number[]): number[] => [...new Set([...a, ...b])].sort((x, y) => x - y);
  return { rows: ascending(one.rows, other.rows), codings: ascending(one.codings, other.codings) };
}

/** @param groups the codes of each entry */
function byCodes(entries: readonly Entry[], groups: readonly (readonly Id[])[]): FoundAxis {
  const entriesOf = new Map<Id, number[]>();
  groups.forEach((ids, entry) => {
    for (const id of new Set(ids)) {
      const some = entriesOf.get(id);
      if (some) some.push(entry);
      else entriesOf.set(id, [entry]);
    }
  });
  /** By number of code: of a document nothing is looked up by id. */
  const byNumber: (readonly number[] | undefined)[] = [];
  for (const [id, some] of entriesOf) byNumber[codeNumber(id)] = some;
  // without the holes that numbers of other codes leave
  const said = bySaidOfCodes(Array.from(byNumber));
  return {
    entries,
    needsText: () => false,
    ...said,
    in: ({ columns }) => foundByCodes(columns, said.entriesOf(columns), entries.length),
  };
}

function byQueries(entries: readonly Entry[], conditions: readonly PassageCondition[], study: AskedStudy): FoundAxis {
  const answering: readonly Answering[] = conditions.map((one) => answeringOf(one, study));
  return {
    entries,
    needsText: (document) => conditions.some((one) => needsText(one, document, study)),
    in: ({ columns, document, text, spoken }) => {
      const here = new DocumentHere(columns, document, text, study.language, spoken);
      const flags = answering.map((one) => one(here));
      const every = here.none();
      for (const rows of flags) rows.forEach((holds, row) => (every[row]! |= holds));
      return [...flags, every].map((rows) => foundIn(columns, rows));
    },
  };
}

function foundIn({ codingRow }: PassageColumns, flags: Uint8Array): Found | undefined {
  if (!flags.includes(1)) return undefined;
  const rows: number[] = [];
  flags.forEach((holds, row) => holds && rows.push(row));
  const codings: number[] = [];
  for (let at = 0; at < codingRow.length; at++) if (flags[codingRow[at]!]) codings.push(at);
  return { rows, codings };
}
