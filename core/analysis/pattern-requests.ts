import { hasText } from '../model/document';
import type { Id } from '../model/ids';
import type { AttributesAsked, GroupsAsked, SaturationAsked, SimilarityAsked, WeaveAsked, WordsAsked } from '../model/pattern';
import type { Scope } from '../model/scope';
import { attributeCounts, type AttributeCounts } from '../patterns/attribute-counts';
import { placeOf, type Entry } from '../patterns/axis';
import { CodesByDocument, type CodesOverDocuments } from '../patterns/codes-over-documents';
import { foundAxisOf } from '../patterns/found-axis';
import { groupAxisOf } from '../patterns/group-axis';
import { ProfileCounter } from '../patterns/similarity/profiles';
import type { Similarity } from '../patterns/similarity/similarity';
import { weaveOf, type Weave } from '../patterns/weave';
import type { WordCounts } from '../patterns/word-counts';
import type { Narrowing } from '../queries/narrowing';
import type { Requests, Tell } from '../requests/requests';
import { LastCounted, type CountedPatterns } from './counted-patterns';
import type { HeldStudy } from './held-study';

/** Patterns beside tables: what is alike, attributes, new codes, words, threads. */
export class PatternRequests {
  private readonly profiles = new LastCounted<ProfileCounter>(2);

  constructor(
    private readonly held: HeldStudy,
    private readonly requests: Requests,
    private readonly counting: CountedPatterns,
  ) {}

  /** How alike codes, documents or cases are, with a plan and a tree. @returns null if it was ended */
  similarity(
    id: number,
    tell: Tell,
    asked: Omit<SimilarityAsked, 'pattern' | 'clusters'>,
    scope: Scope,
    order: readonly Id[],
  ): Promise<Similarity | null> {
    return this.requests.run(
      null,
      id,
      async (running) => {
        const { compared, rows, occurring, coders } = asked;
        const profiled = { compared, rows, occurring, coders };
        const make = (narrowing: Narrowing): ProfileCounter => new ProfileCounter(profiled, this.held.asked(), narrowing);
        const counted = await this.counting.of(this.profiles, profiled, scope, order, make);
        await this.counting.countNew(running, counted);
        const { documents, narrowing } = counted;
        // those without a code are asked for only where a fact of theirs could be compared
        const present =
          asked.attributeIds.length === 0
            ? []
            : compared === 'cases'
              ? await this.counting.casesIn(running, narrowing, documents)
              : documents;
        // what reckons with matrices is loaded where something is asked of it
        const { similarityOf } = await import('../patterns/similarity/similarity');
        return similarityOf(asked, counted.counter.result(this.counting.columnsOf(counted)), this.held.tables, present);
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
      null,
      id,
      async (running) => {
        const { tables } = this.held;
        const narrowing = this.held.narrowingTo(scope);
        const documents = (await this.counting.inScope(narrowing, order)).map((document) => document.id);
        const of = tables.attribute[asked.of?.attributeId ?? '']?.of;
        const ids = of === 'case' ? await this.counting.casesIn(running, narrowing, documents) : documents;
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
      null,
      id,
      async (running) => {
        const narrowing = this.held.narrowingTo(scope);
        const documents = await this.counting.inScope(narrowing, order);
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
      null,
      id,
      async (running) => {
        const narrowing = this.held.narrowingTo(scope);
        const documents = (await this.counting.inScope(narrowing, order)).filter(hasText);
        const axis = asked.typical && groupAxisOf(asked.typical.groups, this.held.asked(), documents);
        const at = axis && placeOf(axis.entries, asked.typical!.key);
        if (at === -1) return { rows: [], total: 0, others: 0, more: false };
        const groups = axis && at !== undefined ? { axis, at } : null;
        // the lists of words that are left out are loaded where words are counted
        const { WordCounter } = await import('../patterns/word-counts');
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
      null,
      id,
      async () => groupAxisOf(groups, this.held.asked(), await this.counting.inScope(this.held.narrowingTo(scope), order)).entries,
    );
  }

  /** Documents as threads, in the order they are asked for; those out of scope and pictures are left out. @returns null if it was ended */
  weave(id: number, tell: Tell, { documentIds, rows, by }: WeaveAsked, scope: Scope): Promise<Weave[] | null> {
    return this.requests.run(
      null,
      id,
      async (running) => {
        const narrowing = this.held.narrowingTo(scope);
        const documents = await this.counting.inScope(narrowing, documentIds);
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
}
