import type { Id } from '../model/ids';
import type { FrequenciesAsked, TogetherAsked } from '../model/pattern';
import type { Scope } from '../model/scope';
import { PairCounter, type CodePairs, type PairHit } from '../patterns/code-pairs';
import { CrossCounter, type CellEvidence, type CrossTable } from '../patterns/cross-table';
import type { CountedTable } from '../patterns/table-measure';
import type { Hit } from '../queries/evaluate';
import type { Narrowing } from '../queries/narrowing';
import type { Requests, Running, Tell } from '../requests/requests';
import { placeOf } from '../patterns/axis';
import { LastCounted, type Counted, type CountedPatterns } from './counted-patterns';
import type { HeldStudy } from './held-study';

/** Pairs of passages, or passages, that stand behind a number. */
export interface PairEvidence {
  readonly pairs: readonly PairHit[];
  readonly hits: readonly Hit[];
}

/** Keys of a row and a column; null for all of them. */
export interface CellKeys {
  readonly row: string | null;
  readonly column: string | null;
}

/** Tables and pairs of the study. What was counted is kept, so that after a change of codings only changed documents are counted. */
export class TableRequests {
  /** As many as two patterns beside each other need, each with what is open in it: frequencies are a table for each measure. */
  private readonly tables = new LastCounted<CrossCounter>(14, ({ cells }) => cells);
  private readonly pairs = new LastCounted<PairCounter>(2, ({ cells }) => cells);

  constructor(
    private readonly held: HeldStudy,
    private readonly requests: Requests,
    private readonly counting: CountedPatterns,
  ) {}

  /** @param order ids of documents, as they stand beside each other @returns null if it was ended */
  crossTable(id: number, tell: Tell, asked: CountedTable, scope: Scope, order: readonly Id[]): Promise<CrossTable | null> {
    return this.requests.run(
      null,
      id,
      async (running) => {
        const counted = await this.countedTable(running, asked, scope, order);
        return counted.counter.result(this.counting.columnsOf(counted));
      },
      tell,
    );
  }

  /** A table of one column for each measure asked for. @returns null if it was ended */
  frequencies(
    id: number,
    tell: Tell,
    { rows, coders }: Pick<FrequenciesAsked, 'rows' | 'coders'>,
    countings: readonly CountedTable['counting'][],
    scope: Scope,
    order: readonly Id[],
  ): Promise<CrossTable[] | null> {
    return this.requests.run(
      null,
      id,
      async (running) => {
        const tables: CrossTable[] = [];
        for (const counting of countings) {
          const asked: CountedTable = { rows, coders, counting, columns: { by: 'everything' } };
          const counted = await this.countedTable(running, asked, scope, order);
          tables.push(counted.counter.result(this.counting.columnsOf(counted)));
        }
        return tables;
      },
      tell,
    );
  }

  /** What stands behind a cell of a table. @returns null if it was ended */
  cell(id: number, asked: CountedTable, scope: Scope, order: readonly Id[], { row, column }: CellKeys): Promise<CellEvidence | null> {
    return this.requests.run(null, id, async (running) => {
      const { counter, documents } = await this.tableOf(asked, scope, order);
      const { found, groups } = counter;
      const cell = { row: placeOf(found.entries, row), column: placeOf(groups.entries, column) };
      const hits: Hit[] = [];
      const cases = new Set<Id>();
      let places = 0;
      if (cell.row >= 0 && cell.column >= 0)
        await this.held.eachDocument(
          running,
          documents.filter((one) => this.held.columns.has(one) && counter.mayConcern(this.held.tables.document[one]!, cell)),
          (document) => counter.needsText(document),
          (columns, document, text) => {
            if (!columns) return;
            const one = counter.evidenceIn(columns, document, text, cell);
            hits.push(...one.hits);
            for (const caseId of one.cases) cases.add(caseId);
            places += one.places;
          },
        );
      return { hits, places, cases: [...cases] };
    });
  }

  /** How often codes are together. @returns null if it was ended */
  together(id: number, tell: Tell, asked: TogetherAsked, scope: Scope, order: readonly Id[]): Promise<CodePairs | null> {
    return this.requests.run(
      null,
      id,
      async (running) => {
        const counted = await this.countedPairs(running, asked, scope, order);
        return counted.counter.result(this.counting.columnsOf(counted));
      },
      tell,
    );
  }

  /** What stands behind two codes together: pairs of passages, or all passages of both where documents or cases are counted. @returns null if it was ended */
  pair(
    id: number,
    asked: TogetherAsked,
    scope: Scope,
    order: readonly Id[],
    keys: readonly [string, string],
  ): Promise<PairEvidence | null> {
    return this.requests.run(null, id, async (running) => {
      const counted = await this.countedPairs(running, asked, scope, order);
      const { counter } = counted;
      const places = keys.map((key) => placeOf(counter.entries, key)) as [number, number];
      const pairs: PairHit[] = [];
      const hits: Hit[] = [];
      if (places.some((one) => one < 0)) return { pairs, hits };
      const cases = asked.by === 'case' ? counter.casesWith(this.counting.columnsOf(counted), places) : null;
      await this.held.eachDocument(
        running,
        counted.documents,
        (document) => counter.needsText(document),
        (columns, document, text) => {
          if (!columns) return;
          if (asked.by === 'overlap' || asked.by === 'near') pairs.push(...counter.pairsIn(columns, document, text, ...places));
          else hits.push(...counter.passagesIn(columns, document, text, places, cases));
        },
      );
      return { pairs, hits };
    });
  }

  private async countedTable(running: Running, asked: CountedTable, scope: Scope, order: readonly Id[]): Promise<Counted<CrossCounter>> {
    const counted = await this.tableOf(asked, scope, order);
    await this.counting.countNew(running, counted);
    return counted;
  }

  /** A table that is ready to be counted, or was; the same one for whatever asks the same. */
  private tableOf(asked: CountedTable, scope: Scope, order: readonly Id[]): Promise<Counted<CrossCounter>> {
    return this.counting.of(
      this.tables,
      asked,
      scope,
      order,
      (narrowing, documents) => new CrossCounter(asked, this.held.asked(), narrowing, documents),
    );
  }

  private async countedPairs(running: Running, asked: TogetherAsked, scope: Scope, order: readonly Id[]): Promise<Counted<PairCounter>> {
    const make = (narrowing: Narrowing): PairCounter => new PairCounter(asked, this.held.asked(), narrowing);
    const counted = await this.counting.of(this.pairs, asked, scope, order, make);
    await this.counting.countNew(running, counted);
    return counted;
  }
}
