import type { Document, Text } from '../model/document';
import { hasText } from '../model/document';
import type { Id } from '../model/ids';
import { casesIn, type CasesOfRows } from '../passages/case-finder';
import { wordsByPlace } from '../passages/coverage';
import type { AskedStudy } from '../queries/asked-study';
import type { Narrowing, Within } from '../queries/narrowing';
import { isWhole, type GroupAxis, type GroupsOfRows } from './axis';
import { placesOfCases } from './places-of-cases';

/** How much of the material in scope is in a group, coded or not. */
export interface GroupSize {
  readonly documents: number;
  readonly cases: number;
  /** Words of the texts; null where they were not all at hand, or where groups do not divide the material. */
  readonly words: number | null;
}

/** What one document brings to each of the groups that any of it is in. */
interface Part {
  readonly groups: readonly number[];
  readonly cases: readonly Iterable<Id>[];
  /** Null where the text was not at hand. */
  readonly words: readonly number[] | null;
}

/** Measures groups document by document: what is in them, whether or not anything was found there. */
export class GroupSizes {
  private readonly parts = new Map<Id, { readonly document: Document; readonly part: Part }>();
  private readonly any: number;
  /** By group, of the document that is measured: its words, and how far they were counted, since one that is cut counts once. */
  private readonly sums: Float64Array;
  private readonly reached: Uint32Array;

  constructor(
    private readonly groups: GroupAxis,
    private readonly study: AskedStudy,
    private readonly narrowing: Narrowing,
  ) {
    this.any = groups.entries.length;
    this.sums = new Float64Array(this.any + 1);
    this.reached = new Uint32Array(this.any + 1);
  }

  knows(document: Document): boolean {
    return this.parts.get(document.id)?.document === document;
  }

  /** @param text only where it was said to be needed; words of a document in parts cannot be counted without it */
  add(document: Document, text: Text | null): void {
    if (this.knows(document) || !this.narrowing.holds(document, text)) return;
    this.parts.set(document.id, { document, part: this.partOf(document, text) });
  }

  /** By group, and of all in scope at the end. */
  result(): GroupSize[] {
    const documents = new Array<number>(this.any + 1).fill(0);
    const cases = new Map<number, Set<Id>>();
    const words: (number | null)[] = documents.map(() => (this.groups.coders ? null : 0));
    words[this.any] = 0;
    for (const { part } of this.parts.values()) {
      part.groups.forEach((group, at) => {
        documents[group]!++;
        const some = cases.get(group);
        if (!some) cases.set(group, new Set(part.cases[at]));
        else for (const id of part.cases[at]!) some.add(id);
        if (part.words && words[group] !== null) words[group]! += part.words[at]!;
      });
      if (part.words === null) words.fill(null);
    }
    return documents.map((count, group) => ({ documents: count, cases: cases.get(group)?.size ?? 0, words: words[group]! }));
  }

  private partOf(document: Document, text: Text | null): Part {
    const within = this.narrowing.placesIn(document, text);
    const groups = this.groups.of({ document, spoken: text });
    const cases = this.study.finder.ofRows(document, text, within.places);
    if (isWhole(groups)) return this.wholePart(document, text, within, groups, cases);
    const { places, rows } = within;
    const ofRows = groups.ofRows(places);
    const { lists, listOf } = ofRows;
    const casesOf = new Map<number, Set<Id>>();
    const meet = (group: number, ids: readonly Id[]): void => {
      const some = casesOf.get(group);
      if (!some) casesOf.set(group, new Set(ids));
      else for (const id of ids) some.add(id);
    };
    // places of the same cases are in the very same groups, again and again in a talk
    const met = new Uint8Array(lists.length * cases.lists.length);
    const meetPlace = (row: number): void => {
      const alike = listOf[row]! * cases.lists.length + cases.listOf[row]!;
      if (!rows[row] || met[alike]) return;
      met[alike] = 1;
      const ids = cases.lists[cases.listOf[row]!]!;
      const place = { start: places.starts[row]!, end: places.ends[row]! };
      meet(this.any, ids);
      for (const group of lists[listOf[row]!]!) meet(group, NOBODY);
      for (const id of ids) for (const group of groups.atAs(place, id)) meet(group, [id]);
    };
    // where groups are told by whose places are, and by nothing else, one place of each list says what all do
    const byCases = listOf === cases.listOf ? placesOfCases(cases, within, text) : null;
    for (const row of byCases ? byCases.one : rows.keys()) meetPlace(row);
    const all = [...casesOf.keys()];
    const words = this.wordsOf(document, text, within, ofRows, all, byCases?.words ?? null);
    return { groups: all, cases: [...casesOf.values()], words };
  }

  /** Where all of a document is in the same groups. */
  private wholePart(document: Document, text: Text | null, within: Within, own: readonly number[], cases: CasesOfRows): Part {
    const ids = this.narrowing.isEverything ? cases.all : casesIn(cases, within.rows);
    const groups = [...own, this.any];
    const words = this.wordsOf(document, text, within, { lists: [own], listOf: ALL_ALIKE }, groups, null);
    return { groups, cases: groups.map(() => ids), words };
  }

  /**
   * Words by group; null where they cannot be told.
   * @param groups those of which anything is in the document
   * @param ofLists words in the places of each list, where they are known
   */
  private wordsOf(
    document: Document,
    text: Text | null,
    { places, rows }: Within,
    { lists, listOf }: GroupsOfRows,
    groups: readonly number[],
    ofLists: Float64Array | null,
  ): readonly number[] | null {
    if (!hasText(document)) return groups.map(() => 0);
    // all of a document is as long as its record says
    if (this.narrowing.isEverything && groups.every((group) => group === this.any || lists.every((list) => list.includes(group))))
      return groups.map(() => document.words);
    if (!text) return null;
    const { sums, reached } = this;
    if (ofLists) {
      for (let list = 0; list < lists.length; list++) {
        for (const group of lists[list]!) sums[group]! += ofLists[list]!;
        sums[this.any]! += ofLists[list]!;
      }
      return this.takeSums(groups);
    }
    const { from, to } = wordsByPlace(text, places);
    for (let row = 0; row < rows.length; row++) {
      if (!rows[row]) continue;
      const list = lists[listOf[row] ?? 0]!;
      for (let at = 0; at <= list.length; at++) {
        const group = at < list.length ? list[at]! : this.any;
        const first = Math.max(from[row]!, reached[group]!);
        if (first >= to[row]!) continue;
        sums[group]! += to[row]! - first;
        reached[group] = to[row]!;
      }
    }
    return this.takeSums(groups);
  }

  /** What was summed up, and nothing for the next document. */
  private takeSums(groups: readonly number[]): readonly number[] {
    const words = groups.map((group) => this.sums[group]!);
    for (const group of groups) this.sums[group] = this.reached[group] = 0;
    return words;
  }
}

const NOBODY: readonly Id[] = [];
/** No row has another list than the first. */
const ALL_ALIKE = new Uint32Array();
