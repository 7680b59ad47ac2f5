import type { Document, Text } from '../model/document';
import { hasText } from '../model/document';
import type { Id } from '../model/ids';
import type { Stretch } from '../model/stretch';
import { wordsIn } from '../passages/coverage';
import { union } from '../passages/union';
import type { AskedStudy } from '../queries/asked-study';
import type { Narrowing } from '../queries/narrowing';
import { isWhole, type GroupAxis } from './axis';

/** How much of the material in scope is in a group, coded or not. */
export interface GroupSize {
  readonly documents: number;
  readonly cases: number;
  /** Words of the texts; null where they were not all at hand, or where groups do not divide the material. */
  readonly words: number | null;
}

/** What one document brings to the groups. */
interface Part {
  readonly cases: ReadonlyMap<number, ReadonlySet<Id>>;
  /** Null where the text was not at hand. */
  readonly words: ReadonlyMap<number, number> | null;
}

/** Measures groups document by document: what is in them, whether or not anything was found there. */
export class GroupSizes {
  private readonly parts = new Map<Id, { readonly document: Document; readonly part: Part }>();
  private readonly any: number;

  constructor(
    private readonly groups: GroupAxis,
    private readonly study: AskedStudy,
    private readonly narrowing: Narrowing,
  ) {
    this.any = groups.entries.length;
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
    const cases = Array.from(documents, () => new Set<Id>());
    const words: (number | null)[] = documents.map(() => (this.groups.coders ? null : 0));
    words[this.any] = 0;
    for (const { part } of this.parts.values()) {
      for (const [group, ids] of part.cases) {
        documents[group]!++;
        for (const id of ids) cases[group]!.add(id);
      }
      if (part.words === null) words.fill(null);
      else for (const [group, count] of part.words) if (words[group] !== null) words[group] = words[group]! + count;
    }
    return documents.map((count, group) => ({ documents: count, cases: cases[group]!.size, words: words[group]! }));
  }

  private partOf(document: Document, text: Text | null): Part {
    const groups = this.groups.of({ document, spoken: text });
    const cases = new Map<number, Set<Id>>();
    const meet = (group: number, caseId?: Id): void => {
      const some = cases.get(group) ?? new Set<Id>();
      cases.set(group, some);
      if (caseId !== undefined) some.add(caseId);
    };
    const pieces = this.narrowing.piecesIn(document, text);
    // pieces of the same cases are in the very same groups, again and again in a talk
    const alike = new Map<readonly number[], Map<string, Stretch[]>>();
    for (const piece of pieces) {
      const ids = this.study.finder.of(document, text, piece);
      const at = isWhole(groups) ? groups : groups.at(piece);
      const key = ids.length === 1 ? ids[0]! : ids.join();
      let byCases = alike.get(at);
      if (!byCases) alike.set(at, (byCases = new Map()));
      const known = byCases.get(key);
      if (known) {
        known.push(piece);
        continue;
      }
      byCases.set(key, [piece]);
      for (const group of [...at, this.any]) meet(group);
      for (const id of ids) {
        meet(this.any, id);
        for (const group of isWhole(groups) ? groups : groups.atAs(piece, id)) meet(group, id);
      }
    }
    const stretchesOf = new Map<number, readonly Stretch[]>([[this.any, pieces]]);
    for (const [at, byCases] of alike) {
      const own = byCases.size === 1 ? [...byCases.values()][0]! : inOrder([...byCases.values()].flat());
      for (const group of at) {
        const some = stretchesOf.get(group);
        stretchesOf.set(group, some ? inOrder([...some, ...own]) : own);
      }
    }
    return { cases, words: this.wordsOf(document, text, stretchesOf) };
  }

  private wordsOf(document: Document, text: Text | null, stretchesOf: ReadonlyMap<number, readonly Stretch[]>): Map<number, number> | null {
    if (!hasText(document)) return new Map();
    if (text) return new Map([...stretchesOf].map(([group, stretches]) => [group, wordsIn(text, union(stretches))]));
    // all of a document is as long as its record says
    const whole =
      this.narrowing.isEverything && [...stretchesOf.values()].every((some) => some.length === stretchesOf.get(this.any)!.length);
    return whole ? new Map([...stretchesOf.keys()].map((group) => [group, document.words])) : null;
  }
}

const inOrder = (stretches: Stretch[]): Stretch[] => stretches.sort((one, other) => one.start - other.start);
