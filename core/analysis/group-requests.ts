import { hasText, type Document } from '../model/document';
import type { Id } from '../model/ids';
import type { TakingUpAsked, WordsAsked } from '../model/pattern';
import type { Scope } from '../model/scope';
import { caseFinderOf } from '../passages/case-finder';
import { groupAxisOf } from '../patterns/group-axis';
import { TakingUpCounter, type TakingUp, type TakingUpEvidence } from '../patterns/taking-up';
import { WordTableCounter, wordRows, type WordRow, type WordTable } from '../patterns/word-table';
import type { Hit } from '../queries/evaluate';
import type { Narrowing } from '../queries/narrowing';
import type { Requests, Running, Tell } from '../requests/requests';
import { shownHits, type FoundHit } from '../words/found-hit';
import { LastCounted, type Counted, type CountedPatterns } from './counted-patterns';
import type { HeldStudy } from './held-study';
import type { CellKeys } from './table-requests';

/** A table of words as it is asked for, with what words are counted where none are named. */
export type AskedWordTable = WordsAsked & { readonly table: NonNullable<WordsAsked['table']> };

/** Frequent words that are the rows of a table where none are named. */
const FREQUENT = 40;

/** What themes and words are in which groups of the material, beside cross-tables: who takes a theme up, and where words stand. */
export class GroupRequests {
  private readonly taking = new LastCounted<TakingUpCounter>(2);

  constructor(
    private readonly held: HeldStudy,
    private readonly requests: Requests,
    private readonly counting: CountedPatterns,
  ) {}

  /** Who brings themes up and who takes them on. @returns null if it was ended */
  takingUp(id: number, tell: Tell, asked: TakingUpAsked, scope: Scope, order: readonly Id[]): Promise<TakingUp | null> {
    return this.requests.run(
      null,
      id,
      async (running) => {
        const counted = await this.countedTaking(running, asked, scope, order);
        return counted.counter.result(this.counting.columnsOf(counted));
      },
      tell,
    );
  }

  /** What stands behind a number of it. @returns null if it was ended */
  takingUpCell(
    id: number,
    asked: TakingUpAsked,
    scope: Scope,
    order: readonly Id[],
    { row, column }: CellKeys,
  ): Promise<TakingUpEvidence | null> {
    return this.requests.run(null, id, async (running) => {
      const counted = await this.countedTaking(running, asked, scope, order);
      const cell = counted.counter.cellOf(asked.shown, row, column);
      const hits: Hit[] = [];
      let times = 0;
      for (const columns of this.counting.columnsOf(counted)) {
        const one = counted.counter.evidenceIn(columns, cell);
        times += one.times;
        hits.push(...one.hits);
      }
      return { times, hits };
    });
  }

  /** How often words stand in each group. @returns null if it was ended */
  wordTable(id: number, tell: Tell, asked: AskedWordTable, scope: Scope, order: readonly Id[]): Promise<WordTable | null> {
    return this.requests.run(
      null,
      id,
      async (running) => {
        const narrowing = this.held.narrowingTo(scope);
        const documents = await this.counting.inScope(narrowing, order);
        const { typed, wordListIds } = asked.table;
        const frequent = typed.length + wordListIds.length === 0 ? await this.frequent(running, asked, narrowing, documents) : [];
        const rows = wordRows(asked.table, this.held.tables, frequent);
        const counter = this.wordCounter(rows, asked, narrowing, documents);
        await this.held.eachDocument(running, idsOf(documents), hasText, (_, document, text) => counter.add(document, text));
        return counter.result();
      },
      tell,
    );
  }

  /** The places that a cell of a table of words counts. @param column key of a group; null for all @returns null if it was ended */
  wordCell(
    id: number,
    asked: AskedWordTable,
    scope: Scope,
    order: readonly Id[],
    row: WordRow,
    column: string | null,
  ): Promise<FoundHit[] | null> {
    return this.requests.run(null, id, async (running) => {
      const narrowing = this.held.narrowingTo(scope);
      const documents = await this.counting.inScope(narrowing, order);
      const counter = this.wordCounter([row], asked, narrowing, documents);
      const finder = caseFinderOf(this.held.tables.case);
      const found: FoundHit[] = [];
      await this.held.eachDocument(running, idsOf(documents), hasText, (columns, document, text) => {
        const hits = text ? counter.hitsIn(document, text, column) : [];
        const left = (hits.length > 0 && columns && narrowing.leftOf(columns, document, text)) || undefined;
        if (text) found.push(...shownHits(document, text, left, finder, hits));
      });
      return found;
    });
  }

  private async countedTaking(
    running: Running,
    { rows, groups, apart, as }: TakingUpAsked,
    scope: Scope,
    order: readonly Id[],
  ): Promise<Counted<TakingUpCounter>> {
    const asked = { rows, groups, apart, ...(as === 'per 1,000 words' && { words: true }) };
    const counted = await this.counting.of(
      this.taking,
      asked,
      scope,
      order,
      (narrowing, documents) => new TakingUpCounter(asked, this.held.asked(), narrowing, documents),
    );
    await this.counting.countNew(running, counted);
    return counted;
  }

  private wordCounter(
    rows: readonly WordRow[],
    { table, forms }: AskedWordTable,
    narrowing: Narrowing,
    documents: readonly Document[],
  ): WordTableCounter {
    const study = this.held.asked();
    return new WordTableCounter(rows, groupAxisOf(table.groups, study, documents), study, narrowing, this.held.words, forms);
  }

  /** The words that are found most. */
  private async frequent(running: Running, asked: WordsAsked, narrowing: Narrowing, documents: readonly Document[]): Promise<string[]> {
    const { WordCounter } = await import('../patterns/word-counts');
    const counter = new WordCounter(asked, this.held.words, narrowing, null, this.held.language);
    await this.held.eachDocument(running, idsOf(documents), hasText, (_, document, text) => {
      if (text) counter.add(document, text);
    });
    return counter
      .result()
      .rows.slice(0, FREQUENT)
      .map((row) => row.words);
  }
}

const idsOf = (documents: readonly Document[]): Id[] => documents.map(({ id }) => id);
