import { hasText, type Document, type Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type {
  AttributesAsked,
  FrequenciesAsked,
  GroupsAsked,
  RowsAsked,
  SaturationAsked,
  SimilarityAsked,
  TogetherAsked,
  WeaveAsked,
  WordsAsked,
} from '../model/pattern';
import type { Scope } from '../model/scope';
import type { StudyState } from '../model/study-state';
import { CaseFinder } from '../passages/code-use';
import { PairCounter, type CodePairs, type PairHit } from '../patterns/code-pairs';
import { CodesByDocument, type CodesOverDocuments } from '../patterns/codes-over-documents';
import { CrossCounter, type CellEvidence, type CountedTable, type CrossTable } from '../patterns/cross-table';
import { attributeCounts, type AttributeCounts } from '../patterns/attribute-counts';
import { foundAxisOf } from '../patterns/found-axis';
import { groupAxisOf } from '../patterns/group-axis';
import type { Entry } from '../patterns/axis';
import { ProfileCounter } from '../patterns/similarity/profiles';
import { similarityOf, type Similarity } from '../patterns/similarity/similarity';
import { WordCounter, type WordCounts } from '../patterns/word-counts';
import { weaveOf, type Weave } from '../patterns/weave';
import type { Hit } from '../queries/evaluate';
import type { Narrowing } from '../queries/narrowing';
import type { Requests, Running, Tell } from '../requests/requests';
import { BATCH, type HeldStudy } from './held-study';

/** What a document is counted by, remembering what it was counted from. */
interface Counter {
  needsText(document: Document): boolean;
  knows(columns: PassageColumns | null, document: Document): boolean;
  add(columns: PassageColumns | null, document: Document, text: Text | null): void;
}

/** Counted so far, as long as nothing but passages changes. */
interface Counted<C> {
  readonly asked: string;
  readonly tables: StudyState['tables'];
  readonly counter: C;
  readonly narrowing: Narrowing;
  /** Documents in scope, in their order. */
  readonly documents: readonly Id[];
}

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

/** Patterns of the study. What was counted is kept, so that after a change of codings only changed documents are counted. */
export class PatternRequests {
  private readonly tables = new Map<string, Counted<CrossCounter>>();
  private pairs: Counted<PairCounter> | null = null;
  private profiles: Counted<ProfileCounter> | null = null;

  constructor(
    private readonly held: HeldStudy,
    private readonly requests: Requests,
  ) {}

  /** @param order ids of documents, as they stand beside each other @returns null if it was ended */
  crossTable(id: number, tell: Tell, asked: CountedTable, scope: Scope, order: readonly Id[]): Promise<CrossTable | null> {
    return this.requests.run(
      'cross-table',
      id,
      async (running) => {
        const counted = await this.countedTable(running, 'cross-table', asked, scope, order);
        return counted.counter.result(this.columnsOf(counted));
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
      'frequencies',
      id,
      async (running) => {
        const tables: CrossTable[] = [];
        for (const counting of countings) {
          const asked: CountedTable = { rows, coders, counting, columns: { by: 'everything' } };
          const counted = await this.countedTable(running, `frequencies ${counting}`, asked, scope, order);
          tables.push(counted.counter.result(this.columnsOf(counted)));
        }
        return tables;
      },
      tell,
    );
  }

  /** What stands behind a cell of a table. @returns null if it was ended */
  cell(id: number, asked: CountedTable, scope: Scope, order: readonly Id[], { row, column }: CellKeys): Promise<CellEvidence | null> {
    return this.requests.run('cell', id, async (running) => {
      const { counter, documents } = await this.tableOf('cell', asked, scope, order);
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
      'together',
      id,
      async (running) => {
        const counted = await this.countedPairs(running, asked, scope, order);
        return counted.counter.result(this.columnsOf(counted));
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
    return this.requests.run('pair', id, async (running) => {
      const counted = await this.countedPairs(running, asked, scope, order);
      const { counter } = counted;
      const places = keys.map((key) => placeOf(counter.entries, key)) as [number, number];
      const pairs: PairHit[] = [];
      const hits: Hit[] = [];
      if (places.some((one) => one < 0)) return { pairs, hits };
      const cases = asked.by === 'case' ? counter.casesWith(this.columnsOf(counted), places) : null;
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

  /** How alike codes, documents or cases are, with a plan and a tree. @returns null if it was ended */
  similarity(
    id: number,
    tell: Tell,
    asked: Omit<SimilarityAsked, 'pattern' | 'clusters'>,
    scope: Scope,
    order: readonly Id[],
  ): Promise<Similarity | null> {
    return this.requests.run(
      'similarity',
      id,
      async (running) => {
        const { compared, rows, occurring, coders } = asked;
        const profiled = { compared, rows, occurring, coders };
        const known = this.profiles ?? undefined;
        this.profiles = this.isOf(known, profiled, scope, order)
          ? known
          : await this.begin(profiled, scope, order, (narrowing) => new ProfileCounter(profiled, this.held.asked(), narrowing));
        const counted = this.profiles;
        await this.countNew(running, counted);
        const present = compared === 'cases' ? await this.casesIn(running, counted.narrowing, counted.documents) : counted.documents;
        return similarityOf(asked, counted.counter.result(this.columnsOf(counted)), this.held.tables, present);
      },
      tell,
    );
  }

  /** How many cases or documents in scope have which values. @returns null if it was ended, and `gone` where the attribute is */
  attributes(
    id: number,
    tell: Tell,
    asked: Pick<AttributesAsked, 'of' | 'against'>,
    scope: Scope,
    order: readonly Id[],
  ): Promise<AttributeCounts | 'gone' | null> {
    return this.requests.run(
      'attributes',
      id,
      async (running) => {
        const { tables } = this.held;
        const narrowing = this.held.narrowingTo(scope);
        const documents = (await this.inScope(narrowing, order)).map((document) => document.id);
        const of = tables.attribute[asked.of?.attributeId ?? '']?.of;
        const ids = of === 'case' ? await this.casesIn(running, narrowing, documents) : documents;
        return attributeCounts(asked, tables, ids) ?? 'gone';
      },
      tell,
    );
  }

  /** New codes document by document, in each group. @returns null if it was ended */
  codesOverDocuments(
    id: number,
    tell: Tell,
    { order: by, groups }: Pick<SaturationAsked, 'order' | 'groups'>,
    scope: Scope,
    order: readonly Id[],
  ): Promise<CodesOverDocuments[] | null> {
    return this.requests.run(
      'codes over documents',
      id,
      async (running) => {
        const narrowing = this.held.narrowingTo(scope);
        const documents = await this.inScope(narrowing, order);
        const axis = groupAxisOf(groups, this.held.asked(), documents);
        const codes = new CodesByDocument(axis);
        await this.held.eachDocument(
          running,
          documents.map((document) => document.id),
          (document) => axis.needsSpoken(document) || narrowing.needsSpoken(document),
          (columns, document, text) => {
            const left = columns && narrowing.leftOf(columns, document, text);
            if (left) codes.add(left, document, text);
          },
        );
        return codes.result(by);
      },
      tell,
    );
  }

  /** How often words, or runs of them, are found. @returns null if it was ended, and no rows where the group held against others is gone */
  wordCounts(id: number, tell: Tell, asked: WordsAsked, scope: Scope, order: readonly Id[]): Promise<WordCounts | null> {
    return this.requests.run(
      'word counts',
      id,
      async (running) => {
        const narrowing = this.held.narrowingTo(scope);
        const documents = (await this.inScope(narrowing, order)).filter(hasText);
        const axis = asked.typical && groupAxisOf(asked.typical.groups, this.held.asked(), documents);
        const at = axis && placeOf(axis.entries, asked.typical!.key);
        if (at === -1) return { rows: [], total: 0, others: 0, more: false };
        const groups = axis && at !== undefined ? { axis, at } : null;
        const counter = new WordCounter(asked, this.held.words, narrowing, groups, this.held.language);
        await this.held.eachDocument(
          running,
          documents.map((document) => document.id),
          () => true,
          (_, document, text) => {
            if (text) counter.add(document, text);
          },
        );
        return counter.result();
      },
      tell,
    );
  }

  /** The groups of the material in scope. @returns null if it was ended */
  groups(id: number, groups: GroupsAsked, scope: Scope, order: readonly Id[]): Promise<readonly Entry[] | null> {
    return this.requests.run(
      'groups',
      id,
      async () => groupAxisOf(groups, this.held.asked(), await this.inScope(this.held.narrowingTo(scope), order)).entries,
    );
  }

  /** Documents as threads, in the order they are asked for; those out of scope and pictures are left out. @returns null if it was ended */
  weave(id: number, tell: Tell, { documentIds, rows, by }: WeaveAsked, scope: Scope): Promise<Weave[] | null> {
    return this.requests.run(
      'weave',
      id,
      async (running) => {
        const narrowing = this.held.narrowingTo(scope);
        const documents = await this.inScope(narrowing, documentIds);
        const found = foundAxisOf(rows, this.held.asked());
        const questions = Object.values(this.held.tables.question)
          .filter((one) => documents.some((document) => document.answers.some((answer) => answer.questionId === one.id)))
          .sort((a, b) => a.order - b.order)
          .map((one) => one.id);
        const weaves: Weave[] = [];
        await this.held.eachDocument(
          running,
          documents.map((document) => document.id),
          hasText,
          (columns, document, text) => {
            const left = columns && narrowing.leftOf(columns, document, text);
            const weave = weaveOf(found, left, document, text, by, questions, this.held.language);
            if (weave) weaves.push(weave);
          },
        );
        return weaves;
      },
      tell,
    );
  }

  private async countedTable(
    running: Running,
    kind: string,
    asked: CountedTable,
    scope: Scope,
    order: readonly Id[],
  ): Promise<Counted<CrossCounter>> {
    const counted = await this.tableOf(kind, asked, scope, order);
    await this.countNew(running, counted);
    return counted;
  }

  /** A table that is ready to be counted, or was; the same one for whatever asks the same. */
  private async tableOf(kind: string, asked: CountedTable, scope: Scope, order: readonly Id[]): Promise<Counted<CrossCounter>> {
    const known = [...this.tables.values()].find((one) => this.isOf(one, asked, scope, order));
    const table =
      known ??
      (await this.begin(asked, scope, order, (narrowing, documents) => new CrossCounter(asked, this.held.asked(), narrowing, documents)));
    this.tables.set(kind, table);
    return table;
  }

  private async countedPairs(running: Running, asked: TogetherAsked, scope: Scope, order: readonly Id[]): Promise<Counted<PairCounter>> {
    const known = this.pairs ?? undefined;
    this.pairs = this.isOf(known, asked, scope, order)
      ? known
      : await this.begin(asked, scope, order, (narrowing) => new PairCounter(asked, this.held.asked(), narrowing));
    await this.countNew(running, this.pairs);
    return this.pairs;
  }

  private isOf<C>(
    known: Counted<C> | undefined,
    asked: { readonly rows: RowsAsked },
    scope: Scope,
    order: readonly Id[],
  ): known is Counted<C> {
    return known?.asked === this.signOf(asked, scope, order) && known.tables === this.held.tables;
  }

  /** What a count depends on beside tables and documents. What a live set of codes or a query holds can change with any coding. */
  private signOf(asked: { readonly rows: RowsAsked }, scope: Scope, order: readonly Id[]): string {
    const { language, version } = this.held;
    const follows = asked.rows.of === 'code sets' || asked.rows.of === 'queries';
    return JSON.stringify([asked, scope, order, language, follows ? version : null]);
  }

  private async begin<C>(
    asked: { readonly rows: RowsAsked },
    scope: Scope,
    order: readonly Id[],
    make: (narrowing: Narrowing, documents: readonly Document[]) => C,
  ): Promise<Counted<C>> {
    const { tables } = this.held;
    const sign = this.signOf(asked, scope, order);
    const narrowing = this.held.narrowingTo(scope);
    const documents = await this.inScope(narrowing, order);
    return {
      ...{ asked: sign, tables, narrowing },
      counter: make(narrowing, documents),
      documents: documents.map((document) => document.id),
    };
  }

  /** The documents in a scope, in an order. */
  private async inScope(narrowing: Narrowing, order: readonly Id[]): Promise<Document[]> {
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
  private async casesIn(running: Running, narrowing: Narrowing, documents: readonly Id[]): Promise<Id[]> {
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

  /** Counts the documents that changed since they were counted. @throws RequestEndedError */
  private async countNew(running: Running, { counter, documents }: Counted<Counter>): Promise<void> {
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

  private columnsOf({ documents }: Counted<unknown>): PassageColumns[] {
    return documents.flatMap((id) => this.held.columns.get(id) ?? []);
  }
}

/** The place of a key among entries: one more than the last for all of them, -1 for what is not there. */
const placeOf = (entries: readonly { readonly key: string }[], key: string | null): number =>
  key === null ? entries.length : entries.findIndex((one) => one.key === key);
