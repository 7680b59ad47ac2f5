import type { Case } from '../model/case';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { Stretch } from '../model/stretch';
import type { Table } from '../model/study-state';
import { speakerAt, type Spoken } from '../text/paragraphs';

/** What has to be known of a document to say who speaks in it. */
export type SpokenDocument = Pick<Document, 'id' | 'speakers' | 'ground' | 'characters'>;

/** Whose the rows of a document are. Rows of the same cases have the same list. */
export interface CasesOfRows {
  readonly lists: readonly (readonly Id[])[];
  /** By row, the place of its list. */
  readonly listOf: Uint32Array;
  /** The cases of any row. */
  readonly all: readonly Id[];
}

const NONE: readonly never[] = [];

/** Which cases a passage belongs to: the speaker's, those that own the stretch, else those that own the document. */
export class CaseFinder {
  private readonly wholes = new Map<Id, Id[]>();
  private readonly parts = new Map<Id, { readonly caseId: Id; readonly start: number; readonly end: number }[]>();
  private readonly rows = new WeakMap<
    Rows,
    { readonly document: SpokenDocument; readonly spoken: Spoken | null; readonly cases: CasesOfRows }
  >();

  constructor(cases: Table<Case>) {
    for (const one of Object.values(cases)) {
      for (const id of one.documentIds) push(this.wholes, id, one.id);
      for (const { documentId, start, end } of one.stretches) push(this.parts, documentId, { caseId: one.id, start, end });
    }
  }

  /** Whether the text must be known to say whose the passages of a document are. */
  static needsText(document: SpokenDocument): boolean {
    return document.speakers.some((speaker) => speaker.caseId !== null || speaker.interviewer);
  }

  /** The parts of a document that cases own. */
  partsIn(documentId: Id): readonly Stretch[] {
    return this.parts.get(documentId) ?? [];
  }

  /** The cases that own a document or a part of it, or speak in it. */
  in(document: SpokenDocument): Id[] {
    const some = new Set<Id>();
    for (const { caseId } of this.parts.get(document.id) ?? NONE) some.add(caseId);
    for (const id of this.owning(document.id)) some.add(id);
    for (const { caseId } of document.speakers) if (caseId !== null) some.add(caseId);
    return [...some];
  }

  /** @param text only looked at where {@link needsText} says so; without it the document's cases are given */
  of(document: SpokenDocument, text: Spoken | null, passage: Stretch): readonly Id[] {
    const parts = this.parts.get(document.id) ?? NONE;
    const speaker = speakerAt(document, text, passage.start);
    const spoken = speaker?.caseId ? [speaker.caseId] : speaker?.interviewer ? NONE : this.owning(document.id);
    if (parts.length === 0) return spoken;
    const own = parts.filter((part) => part.start < passage.end && passage.start < part.end);
    return own.length === 0 ? spoken : [...new Set([...own.map((part) => part.caseId), ...spoken])];
  }

  /**
   * Whose each row is, as {@link of} says it, in one walk. Remembered with the rows.
   * @param rows ascending by start
   */
  ofRows(document: SpokenDocument, spoken: Spoken | null, rows: Rows): CasesOfRows {
    const known = this.rows.get(rows);
    if (known?.document === document && known.spoken === spoken) return known.cases;
    const { lists, listOf } = this.parts.has(document.id) ? this.byPlace(document, spoken, rows) : this.bySpeaker(document, spoken, rows);
    const cases = { lists, listOf, all: casesIn({ lists, listOf }) };
    this.rows.set(rows, { document, spoken, cases });
    return cases;
  }

  private byPlace(document: SpokenDocument, spoken: Spoken | null, { starts, ends }: Rows): ListedRows {
    const lists = new ListsOfCases();
    return { lists: lists.all, listOf: starts.map((start, row) => lists.placeOf(this.of(document, spoken, { start, end: ends[row]! }))) };
  }

  private bySpeaker(document: SpokenDocument, spoken: Spoken | null, { starts }: Rows): ListedRows {
    const lists = new ListsOfCases();
    const listOf = new Uint32Array(starts.length);
    const nobody = lists.placeOf(this.owning(document.id));
    const paragraphs = spoken?.paragraphs ?? [];
    if (document.speakers.length === 0 || paragraphs.length === 0) return { lists: lists.all, listOf: listOf.fill(nobody) };
    const listOfSpeaker = document.speakers.map(({ caseId, interviewer }) =>
      caseId ? lists.placeOf([caseId]) : interviewer ? lists.placeOf(NONE) : nobody,
    );
    for (let row = 0, at = 0; row < starts.length; row++) {
      while (at + 1 < paragraphs.length && paragraphs[at + 1]!.start <= starts[row]!) at++;
      listOf[row] = listOfSpeaker[paragraphs[at]!.speaker] ?? nobody;
    }
    return { lists: lists.all, listOf };
  }

  /** The cases that own all of a document. */
  private owning(documentId: Id): readonly Id[] {
    return this.wholes.get(documentId) ?? NONE;
  }

  /** The cases that all of a document belongs to, wherever one looks; null where that depends on the place. */
  ofAll(document: SpokenDocument): readonly Id[] | null {
    return this.parts.has(document.id) || CaseFinder.needsText(document) ? null : this.owning(document.id);
  }
}

type ListedRows = Pick<CasesOfRows, 'lists' | 'listOf'>;

/** The cases of some rows, or of all. @param kept one flag a row */
export function casesIn({ lists, listOf }: ListedRows, kept: Uint8Array | null = null): readonly Id[] {
  const met = new Uint8Array(lists.length);
  for (let row = 0; row < listOf.length; row++) if (kept === null || kept[row]) met[listOf[row]!] = 1;
  const some = lists.filter((_, at) => met[at]);
  return some.length === 1 ? some[0]! : [...new Set(some.flat())];
}

type Rows = Pick<PassageColumns, 'starts' | 'ends'>;

/** Lists of cases, each once. */
class ListsOfCases {
  readonly all: (readonly Id[])[] = [];
  private readonly places = new Map<string, number>();

  placeOf(ids: readonly Id[]): number {
    const key = ids.length === 1 ? ids[0]! : ids.join();
    let place = this.places.get(key);
    if (place === undefined) this.places.set(key, (place = this.all.push(ids) - 1));
    return place;
  }
}

const finders = new WeakMap<Table<Case>, CaseFinder>();

/** What finds the cases of passages, remembered with the table. */
export function caseFinderOf(cases: Table<Case>): CaseFinder {
  let finder = finders.get(cases);
  if (!finder) finders.set(cases, (finder = new CaseFinder(cases)));
  return finder;
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const some = map.get(key);
  if (some) some.push(value);
  else map.set(key, [value]);
}
