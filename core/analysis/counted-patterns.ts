import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { RowsAsked } from '../model/pattern';
import type { Scope } from '../model/scope';
import type { StudyState } from '../model/study-state';
import { CaseFinder } from '../passages/case-finder';
import type { Narrowing } from '../queries/narrowing';
import type { Running } from '../requests/requests';
import { BATCH, type HeldStudy } from './held-study';

/** What a document is counted by, remembering what it was counted from. */
export interface Counter {
  needsText(document: Document): boolean;
  knows(columns: PassageColumns | null, document: Document): boolean;
  add(columns: PassageColumns | null, document: Document, text: Text | null): void;
}

/** Numbers that are kept of the tables asked for last: those of ten times 500 codes in 4,000 documents. */
const CELLS_KEPT = 20_000_000;
/** Two patterns beside each other are kept however large they are. */
const ALWAYS_KEPT = 2;

/** Counted so far, as long as nothing but passages changes. */
export interface Counted<C> {
  readonly asked: string;
  readonly tables: StudyState['tables'];
  readonly counter: C;
  readonly narrowing: Narrowing;
  /** Documents in scope, in their order. */
  readonly documents: readonly Id[];
}

/** The counts that were asked for last: what one pattern counted is not thrown away by another beside it. */
export class LastCounted<C> {
  private last: readonly Counted<C>[] = [];

  /**
   * @param most how many are remembered
   * @param cellsOf how many numbers one holds, where they can be many
   */
  constructor(
    private readonly most: number,
    private readonly cellsOf: (counter: C) => number = () => 0,
  ) {}

  /** The one that is it, or a new one. */
  async of(isIt: (one: Counted<C>) => boolean, begin: () => Promise<Counted<C>>): Promise<Counted<C>> {
    const one = this.last.find(isIt) ?? (await begin());
    let cells = 0;
    this.last = [one, ...this.last.filter((other) => other !== one)].filter(({ counter }, at) => {
      cells += this.cellsOf(counter);
      return at < ALWAYS_KEPT || (at < this.most && cells <= CELLS_KEPT);
    });
    return one;
  }
}

interface AsksForRows {
  readonly rows: RowsAsked;
  /** More rows, of a flow. */
  readonly to?: RowsAsked | undefined;
}

/** What was counted of the study's documents, so that after a change of codings only changed documents are counted. */
export class CountedPatterns {
  constructor(private readonly held: HeldStudy) {}

  /** What counts this, as it was remembered or made anew. @param make given the documents in scope */
  of<C>(
    last: LastCounted<C>,
    asked: AsksForRows,
    scope: Scope,
    order: readonly Id[],
    make: (narrowing: Narrowing, documents: readonly Document[]) => C,
  ): Promise<Counted<C>> {
    const { tables } = this.held;
    const sign = this.signOf(asked, scope, order);
    return last.of(
      (known) => known.asked === sign && known.tables === tables,
      async () => {
        const narrowing = this.held.narrowingTo(scope);
        const documents = await this.inScope(narrowing, order);
        return {
          ...{ asked: sign, tables, narrowing },
          counter: make(narrowing, documents),
          documents: documents.map((document) => document.id),
        };
      },
    );
  }

  /** Counts the documents that changed since they were counted. @throws RequestEndedError */
  async countNew(running: Running, { counter, documents }: Counted<Counter>): Promise<void> {
    const changed = documents.filter((id) => {
      const document = this.held.tables.document[id];
      return document && !counter.knows(this.held.columns.get(id) ?? null, document);
    });
    if (changed.length > 0)
      await this.held.eachDocument(
        running,
        changed,
        (document) => counter.needsText(document),
        (columns, document, text) => counter.add(columns, document, text),
      );
  }

  /** The documents in a scope, in an order. */
  async inScope(narrowing: Narrowing, order: readonly Id[]): Promise<Document[]> {
    const may = order.flatMap((id) => {
      const document = this.held.tables.document[id];
      return document && narrowing.mayHold(document) ? [document] : [];
    });
    const found: Document[] = [];
    for (let at = 0; at < may.length; at += BATCH) {
      const some = may.slice(at, at + BATCH);
      const texts = await this.held.textsOf(some.flatMap((document) => (narrowing.needsSpoken(document) ? [document.id] : [])));
      found.push(...some.filter((document) => narrowing.holds(document, texts.get(document.id) ?? null)));
    }
    return found;
  }

  /** The cases of which anything is in a scope. */
  async casesIn(running: Running, narrowing: Narrowing, documents: readonly Id[]): Promise<Id[]> {
    const { finder, tables } = this.held.asked();
    const found = new Set<Id>();
    await this.held.eachDocument(
      running,
      documents,
      (document) => !narrowing.isEverything && CaseFinder.needsText(document),
      (_, document, text) => {
        for (const id of narrowing.isEverything ? finder.in(document) : narrowing.casesIn(document, text)) found.add(id);
      },
    );
    return [...found].filter((id) => Object.hasOwn(tables.case, id));
  }

  columnsOf({ documents }: Counted<unknown>): PassageColumns[] {
    return documents.flatMap((id) => this.held.columns.get(id) ?? []);
  }

  /** What a count depends on beside tables and documents. What a live set or a query holds can change with any coding. */
  private signOf(asked: AsksForRows, scope: Scope, order: readonly Id[]): string {
    const { answersGiven, language, version } = this.held;
    const follows = [asked.rows, asked.to].some((rows) => rows?.of === 'code sets' || rows?.of === 'queries');
    return JSON.stringify([asked, scope, order, language, answersGiven, follows ? version : null]);
  }
}
