import type { Document, Text } from '../model/document';
import { hasText } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { TogetherAsked } from '../model/pattern';
import { CaseFinder } from '../passages/case-finder';
import { wordsIn } from '../passages/coverage';
import { union } from '../passages/union';
import type { AskedStudy } from '../queries/asked-study';
import { hitsOf, type Hit } from '../queries/evaluate';
import type { Narrowing } from '../queries/narrowing';
import type { Entry } from './axis';
import { Brought } from './brought';
import { foundAxisOf, oneAfterTheOther, type FoundAxis, type LookedAt } from './found-axis';
import { codedBySeveral } from './joined';
import { joinedEntries } from './joined-entries';
import { occurrencesOf, shared, Togetherness, type Occurrence } from './occurrences';
import { jaccardOf } from './jaccard';
import { RunningPairs, type OccurringIn } from './running-pairs';
import type { CountedCells } from './scratch';

/** How often codes are together, each with each; of a flow, those it goes to after those it comes from. */
export interface CodePairs {
  readonly entries: readonly Entry[];
  /** How many of them are those it comes from, of a flow; else all. */
  readonly from: number;
  /** Row by row, as many as entries each; on the diagonal a code's own count. */
  readonly counts: Float64Array;
  /** What both have of what either has, 0 to 1, likewise; null where nearness is asked for, which has no whole. */
  readonly jaccard: Float64Array | null;
  /** Documents or cases in scope with any coding, where that is what is counted; null for passages. */
  readonly of: number | null;
}

/** Two passages that are together. */
export interface PairHit {
  readonly first: Hit;
  readonly second: Hit;
}

/** What one document brings. */
interface Part {
  /** Where codings alone say what occurs, and overlapping passages are counted: these, to be looked through whenever it is added or taken away. */
  readonly occurring: OccurringIn | null;
  /** The entries that occur in it, where documents are counted. */
  readonly present: Uint32Array | null;
  /** Pairs of entries, the lower first, and how often, where they were counted one by one; of one entry with itself how often it occurs. */
  readonly counted: CountedCells | null;
  /** Words of both, for each of these; empty where they are not counted. */
  readonly words: Float64Array;
  /** Entries by case, where cases are counted, and the cases with any coding. */
  readonly byCase: ReadonlyMap<Id, ReadonlySet<number>>;
  readonly coded: boolean;
}

const EMPTY: Part = { occurring: null, present: null, counted: null, words: new Float64Array(), byCase: new Map(), coded: false };

/**
 * Counts how often codes are together. What counts as one is said by how coders count (`joinedByCoders`).
 *
 * Overlapping: pairs of passages, one of each code, that have a place in common; a passage that carries both is one pair
 * with itself. Near: pairs at most so many units apart, overlapping ones among them, adjacent units at distance 1.
 * Document, case: how many have both. Jaccard is of words in both ÷ words in either for passages, n₁₂ ÷ (n₁ + n₂ − n₁₂)
 * for documents and cases.
 */
export class PairCounter {
  private readonly found: FoundAxis;
  private readonly from: number;
  private readonly size: number;
  private readonly running: RunningPairs;
  private readonly brought = new Brought<Part>((part, by) => this.change(part, by));

  constructor(
    private readonly asked: Pick<TogetherAsked, 'rows' | 'to' | 'by' | 'within' | 'coders' | 'as'>,
    private readonly study: AskedStudy,
    private readonly narrowing: Narrowing,
  ) {
    const rows = foundAxisOf(asked.rows, study);
    this.found = asked.to ? oneAfterTheOther(rows, foundAxisOf(asked.to, study)) : rows;
    this.from = rows.entries.length;
    this.size = this.found.entries.length;
    this.running = new RunningPairs(this.size);
  }

  /** How many numbers the pairs are. */
  get cells(): number {
    return this.size * this.size;
  }

  needsText(document: Document): boolean {
    return (
      hasText(document) &&
      (this.asked.by === 'near' ||
        this.countsWords ||
        (this.asked.by === 'case' && CaseFinder.needsText(document)) ||
        this.found.needsText(document) ||
        this.narrowing.needsSpoken(document))
    );
  }

  /** The codes, sets or queries that are held against each other. */
  get entries(): readonly Entry[] {
    return this.found.entries;
  }

  /** Whether nothing has changed in a document since it was counted. */
  knows(columns: PassageColumns | null): boolean {
    return columns === null || this.brought.knows(columns);
  }

  add(columns: PassageColumns | null, document: Document, text: Text | null): void {
    if (columns && !this.brought.knows(columns)) this.brought.bring(columns, this.partOf(columns, document, text));
  }

  /** The pairs over some documents that were counted. */
  result(documents: Iterable<PassageColumns>): CodePairs {
    const { size } = this;
    const { by } = this.asked;
    const parts = this.brought.only(documents);
    const cases = by === 'case' ? casesOf(parts) : null;
    const counts = cases ? countedOf(cases.values(), size) : this.running.result();
    const words = this.countsWords ? wordsOf(parts, size) : null;
    return {
      entries: this.found.entries,
      from: this.from,
      counts,
      jaccard: by === 'near' ? null : by === 'overlap' ? words && jaccardOf(words, size) : jaccardOf(counts, size),
      of: by === 'document' ? parts.filter(({ coded }) => coded).length : (cases?.size ?? null),
    };
  }

  /** The pairs of passages of a document that a cell counts; for documents and cases, the passages of both codes. */
  pairsIn(columns: PassageColumns, document: Document, text: Text | null, one: number, other: number): PairHit[] {
    const here = this.lookedAt(columns, document, text);
    if (!here) return [];
    const hitOf = ({ rows }: Occurrence): Hit => hitsOf(here.columns, rows.slice(0, 1))[0]!;
    const occurrences = this.occurrencesIn(here);
    const [first, second] = [occurrences[one] ?? [], occurrences[other] ?? []];
    if (one === other) return first.map((one) => ({ first: hitOf(one), second: hitOf(one) }));
    const pairs: PairHit[] = [];
    const together = this.togetherIn(here);
    for (const a of first) for (const b of second) if (together.of(a, b)) pairs.push({ first: hitOf(a), second: hitOf(b) });
    return pairs;
  }

  /** The passages of a document that carry either of two, if the document has both, or, where cases count, those of cases in some. */
  passagesIn(
    columns: PassageColumns,
    document: Document,
    text: Text | null,
    entries: readonly number[],
    caseIds: ReadonlySet<Id> | null,
  ): Hit[] {
    const here = this.lookedAt(columns, document, text);
    if (!here) return [];
    const found = this.found.in(here);
    if (!caseIds && entries.some((entry) => !found[entry])) return [];
    const rows = [...new Set(entries.flatMap((entry) => found[entry]?.rows ?? []))].sort((a, b) => a - b);
    const kept = caseIds ? rows.filter((row) => this.casesAt(here, row).some((id) => caseIds.has(id))) : rows;
    return hitsOf(here.columns, kept);
  }

  /** The cases that have all of some entries. */
  casesWith(documents: Iterable<PassageColumns>, entries: readonly number[]): Set<Id> {
    const cases = casesOf(this.brought.of(documents));
    return new Set([...cases].flatMap(([id, some]) => (entries.every((entry) => some.has(entry)) ? [id] : [])));
  }

  private get countsWords(): boolean {
    return this.asked.by === 'overlap' && this.asked.as === 'jaccard';
  }

  private lookedAt(columns: PassageColumns, document: Document, text: Text | null): LookedAt | null {
    const left = this.narrowing.leftOf(columns, document, text);
    return left && { columns: left, document, text, spoken: text };
  }

  private casesAt({ columns, document, spoken }: LookedAt, row: number): readonly Id[] {
    return this.study.finder.of(document, spoken, { start: columns.starts[row]!, end: columns.ends[row]! });
  }

  private occurrencesIn(here: LookedAt): (readonly Occurrence[] | undefined)[] {
    const found = this.found.in(here).slice(0, this.size);
    return found.map((one) => one && occurrencesOf(here.columns, one, this.asked.coders));
  }

  private togetherIn(here: LookedAt): Togetherness {
    return new Togetherness(here, this.asked, this.study.language);
  }

  private change({ occurring, present, counted }: Part, by: 1 | -1): void {
    if (occurring) this.running.overlapping(occurring, this.found.entriesOf!(occurring.columns), by);
    if (present) this.running.present(present, by);
    if (counted) this.running.put(counted, by);
  }

  private partOf(columns: PassageColumns, document: Document, text: Text | null): Part {
    const here = this.lookedAt(columns, document, text);
    if (!here) return EMPTY;
    const coded = here.columns.codingRow.length > 0;
    const occurring = this.occurringIn(here);
    if (occurring) return { ...EMPTY, occurring, coded };
    if (this.asked.by === 'document') {
      const found = this.found.in(here);
      const present = Array.from({ length: this.size }, (_, entry) => entry).filter((entry) => found[entry]);
      return { ...EMPTY, present: Uint32Array.from(present), coded };
    }
    return { ...this.measuredPart(here), coded };
  }

  /** Overlapping passages, where codings alone say what is found. Areas overlap by their pixels, not by where they begin and end. */
  private occurringIn({ columns }: LookedAt): Part['occurring'] {
    const { by, coders } = this.asked;
    if (!this.found.entriesOf || by !== 'overlap' || this.countsWords || columns.ground === 'picture') return null;
    const together = coders === 'together' && codedBySeveral(columns);
    return { columns, joined: together ? joinedEntries(columns, this.found.entriesOf(columns), this.size, false) : null };
  }

  private measuredPart(here: LookedAt): Omit<Part, 'coded'> {
    const occurrences = this.occurrencesIn(here);
    const sums = new Map<number, number>();
    const increase = (a: number, b: number, by = 1): void => {
      const cell = Math.min(a, b) * this.size + Math.max(a, b);
      sums.set(cell, (sums.get(cell) ?? 0) + by);
    };
    const present = [...occurrences.keys()].filter((entry) => occurrences[entry]);
    const byCase = new Map<Id, Set<number>>();
    if (this.asked.by === 'case') {
      for (const entry of present)
        for (const { rows } of occurrences[entry]!)
          for (const row of rows)
            for (const id of this.casesAt(here, row)) {
              const some = byCase.get(id);
              if (some) some.add(entry);
              else byCase.set(id, new Set([entry]));
            }
      // every case with any coding counts, whether or not the codes are among those asked for
      for (const row of new Set(here.columns.codingRow))
        for (const id of this.casesAt(here, row)) if (!byCase.has(id)) byCase.set(id, new Set());
    } else {
      for (const entry of present) increase(entry, entry, occurrences[entry]!.length);
      this.togetherIn(here).each(occurrences, increase);
    }
    const words = this.countsWords ? this.wordsOf(here, occurrences, [...sums.keys()]) : new Map<number, number>();
    return {
      ...EMPTY,
      counted: { cells: Uint32Array.from(sums.keys()), amounts: Float64Array.from(sums.values()) },
      // what shares no pair of passages shares no word
      words: Float64Array.from([...sums.keys()], (cell) => words.get(cell) ?? 0),
      byCase,
    };
  }

  /** Words that the passages of two entries share, by cell; of one its own words. */
  private wordsOf(
    { columns, text }: LookedAt,
    occurrences: readonly (readonly Occurrence[] | undefined)[],
    cells: readonly number[],
  ): Map<number, number> {
    const words = new Map<number, number>();
    if (!text || columns.ground !== 'text') return words;
    const unions = occurrences.map((some) => some && union([...some].sort((a, b) => a.start - b.start)));
    for (const cell of cells) {
      const [a, b] = [unions[Math.floor(cell / this.size)], unions[cell % this.size]];
      if (a && b) words.set(cell, wordsIn(text, a === b ? a : shared(a, b)));
    }
    return words;
  }
}

/** The entries of each case, of all documents together. */
function casesOf(parts: readonly Part[]): Map<Id, Set<number>> {
  const cases = new Map<Id, Set<number>>();
  for (const { byCase } of parts)
    for (const [id, entries] of byCase) {
      const some = cases.get(id);
      if (some) for (const entry of entries) some.add(entry);
      else cases.set(id, new Set(entries));
    }
  return cases;
}

/** How many of some sets have both of two entries. */
function countedOf(sets: Iterable<ReadonlySet<number>>, size: number): Float64Array {
  const running = new RunningPairs(size);
  for (const entries of sets) running.present(Uint32Array.from(entries), 1);
  return running.result();
}

function wordsOf(parts: readonly Part[], size: number): Float64Array {
  const running = new RunningPairs(size);
  for (const { counted, words } of parts) if (counted) running.put({ cells: counted.cells, amounts: words }, 1);
  return running.result();
}
