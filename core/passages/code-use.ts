import type { Code } from '../model/code';
import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import type { Table } from '../model/study-state';
import type { PassageColumns } from '../model/passage-columns';
import type { CaseFinder, SpokenDocument } from './case-finder';
import { lineage } from './counting';
import { wordsIn } from './coverage';
import { coveredOf, shareCovered } from './covered';
import { union } from './union';
import type { Stretch } from '../model/stretch';

/** Where a code is used beyond the count of its passages. */
export interface CodeUse {
  /** Cases with at least one passage that carries the code. */
  readonly cases: number;
  readonly casesWithUnder: number;
  /** Words in the union of its passages; null where the texts were not looked at. */
  readonly words: number | null;
  readonly wordsWithUnder: number | null;
  /** Milliseconds of recordings in the union of its spans. */
  readonly milliseconds: number;
  readonly millisecondsWithUnder: number;
  /** Share of the pictures it stands in that its areas cover, 0 to 1: pixels in their union ÷ pixels of those pictures. Null where it stands in none. */
  readonly area: number | null;
  readonly areaWithUnder: number | null;
  /** When it was last given to a passage, ms since 1970. */
  readonly lastUsed: number;
}

/** What the passages of every code cover, each with what is under it added to those above. */
class Covering {
  readonly words = new Map<Id, number>();
  readonly milliseconds = new Map<Id, number>();
  private readonly areas = new Map<Id, { covered: number; all: number }>();

  /** @param rowsOf the rows that carry a code, ascending */
  add(columns: PassageColumns, document: SpokenDocument, text: Text | null, rowsOf: ReadonlyMap<Id, readonly number[]>): void {
    const stretchesOf = (rows: readonly number[]): Stretch[] =>
      // rows are in reading order, so the stretches are sorted by start
      union(rows.map((row) => ({ start: columns.starts[row]!, end: columns.ends[row]! })));
    for (const [id, rows] of rowsOf) {
      if (columns.ground === 'picture') {
        const { covered, all } = coveredOf(document, { ...columns, areas: rows.map((row) => columns.areas[row]!) });
        const before = this.areas.get(id) ?? { covered: 0, all: 0 };
        this.areas.set(id, { covered: before.covered + covered, all: before.all + all });
      } else if (columns.ground === 'time') {
        const lasting = stretchesOf(rows).reduce((sum, { start, end }) => sum + end - start, 0);
        this.milliseconds.set(id, (this.milliseconds.get(id) ?? 0) + lasting);
      } else if (text) this.words.set(id, (this.words.get(id) ?? 0) + wordsIn(text, stretchesOf(rows)));
    }
  }

  /** Every code of which anything is covered. */
  ids(): Id[] {
    return [this.words, this.milliseconds, this.areas].flatMap((some) => [...some.keys()]);
  }

  area(id: Id): number | null {
    const found = this.areas.get(id);
    return found ? shareCovered({ measure: 'pixels', ...found }) : null;
  }
}

/** Gathers the use of every code, one document after the other. */
export class CodeUseCounter {
  private readonly cases = new Map<Id, Set<Id>>();
  private readonly casesUnder = new Map<Id, Set<Id>>();
  private readonly own = new Covering();
  private readonly under = new Covering();
  private readonly last = new Map<Id, number>();

  /** @param withWords counts words as well, for which every text is needed */
  constructor(
    private readonly codes: Table<Code>,
    private readonly finder: CaseFinder,
    private readonly withWords: boolean,
  ) {}

  add(columns: PassageColumns, document: SpokenDocument, text: Text | null): void {
    const own = new Map<Id, number[]>();
    const under = new Map<Id, number[]>();
    const measured = columns.ground !== 'text' || (this.withWords && text !== null);
    const casesOfRow = new Map<number, readonly Id[]>();
    const lines = columns.codes.map((id) => lineage(this.codes, id));
    for (let at = 0; at < columns.codingRow.length; at++) {
      const row = columns.codingRow[at]!;
      const local = columns.codingCode[at]!;
      const id = columns.codes[local]!;
      const time = columns.codingAt[at]!;
      if (time > (this.last.get(id) ?? -1)) this.last.set(id, time);
      let cases = casesOfRow.get(row);
      if (!cases) casesOfRow.set(row, (cases = this.finder.of(document, text, { start: columns.starts[row]!, end: columns.ends[row]! })));
      for (const caseId of cases) addTo(this.cases, id, caseId);
      for (const above of lines[local]!) for (const caseId of cases) addTo(this.casesUnder, above, caseId);
      if (!measured) continue;
      push(own, id, row);
      for (const above of lines[local]!) push(under, above, row);
    }
    this.own.add(columns, document, text, own);
    this.under.add(columns, document, text, under);
  }

  result(): ReadonlyMap<Id, CodeUse> {
    const ids = new Set([...this.last.keys(), ...this.casesUnder.keys(), ...this.under.ids()]);
    return new Map(
      [...ids].map((id) => [
        id,
        {
          cases: this.cases.get(id)?.size ?? 0,
          casesWithUnder: this.casesUnder.get(id)?.size ?? 0,
          words: this.withWords ? (this.own.words.get(id) ?? 0) : null,
          wordsWithUnder: this.withWords ? (this.under.words.get(id) ?? 0) : null,
          milliseconds: this.own.milliseconds.get(id) ?? 0,
          millisecondsWithUnder: this.under.milliseconds.get(id) ?? 0,
          area: this.own.area(id),
          areaWithUnder: this.under.area(id),
          lastUsed: this.last.get(id) ?? 0,
        },
      ]),
    );
  }
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const some = map.get(key);
  if (some) some.push(value);
  else map.set(key, [value]);
}

function addTo<K, V>(map: Map<K, Set<V>>, key: K, value: V): void {
  const some = map.get(key);
  if (some) some.add(value);
  else map.set(key, new Set([value]));
}
