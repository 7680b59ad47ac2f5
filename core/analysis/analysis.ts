import { checkCodebook, type CheckLimits, type Finding } from '../codebook/checks';
import { CodePageBuilder, type CodePage } from '../codebook/code-page';
import { GlossFinder } from '../glosses/find-glosses';
import { hasText, type Document, type Text } from '../model/document';
import type { Stretch } from '../model/stretch';
import type { WordSearch } from '../model/word-search';
import type { SweptDocument } from '../commands/sweep';
import { contextsOf, type SweepContext } from '../words/contexts';
import { ExpressionError } from '../words/expression';
import { WordFinder } from '../words/find-words';
import { shownHits, type FoundHit } from '../words/found-hit';
import { IndexedWords } from '../words/vocabulary';
import type { Gloss } from '../model/gloss';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { PassageCondition } from '../model/passage-condition';
import type { Question } from '../model/query';
import { NO_TABLES, type StudyState } from '../model/study-state';
import { caseFinderOf, CaseFinder, CodeUseCounter, type CodeUse, type SpokenDocument } from '../passages/code-use';
import { countCodes } from '../passages/counting';
import { AskedStudy } from '../queries/asked-study';
import { Evaluation, hitsOf, type Hit, type Scope } from '../queries/evaluate';
import { waysOut } from '../queries/explain';
import { KeptTexts } from './kept-texts';
import type { Answer, FoundWords, GlossUse, ReadTexts, Told } from './messages';
import { Requests, type Running, type Tell } from '../requests/requests';

/** Characters of texts that are kept at hand: those of ten million words. */
const CHARACTERS_KEPT = 60_000_000;
/** Hits that are shown: more are not looked through by a person, and would fill the memory. */
const MOST_HITS = 100_000;
/** Documents whose texts are read at once. */
const BATCH = 40;
/** Documents that are asked between two breaths. */
const ASKED_AT_ONCE = 200;

const NO_TEXTS: ReadonlyMap<Id, Text> = new Map();

/**
 * Holds the passages of the open study as columns, kept in step by whoever asks, and answers questions about them. A
 * newer question of a kind ends the older, and each can be ended by its number. It knows no worker: it is run in one, and
 * tested as it is.
 */
export class Analysis {
  private studyId: Id | null = null;
  private readonly columns = new Map<Id, PassageColumns>();
  private readonly texts = new KeptTexts(CHARACTERS_KEPT);
  /** Texts that changed since the study was opened: what the disk says of them may be older than the passages. */
  private readonly ahead = new Map<Id, Text>();
  private tables: StudyState['tables'] = NO_TABLES;
  private language = 'en';
  private words = new IndexedWords();
  private readonly requests = new Requests();

  constructor(private readonly read: ReadTexts) {}

  /** Takes what is new or changed, and forgets the documents that are gone. */
  update(told: Told): void {
    if (told.studyId !== this.studyId || told.anew) {
      for (const some of [this.columns, this.texts, this.ahead]) some.clear();
      this.tables = NO_TABLES;
      this.words = new IndexedWords();
      this.studyId = told.studyId;
    }
    this.language = told.language;
    // a document that has other words now has another text on disk
    for (const now of Object.values(told.tables.document ?? {})) {
      const before = this.tables.document[now.id];
      if (before && !sameWords(before, now)) this.texts.delete(now.id);
    }
    this.tables = { ...this.tables, ...told.tables };
    for (const one of told.changed) this.columns.set(one.documentId, one);
    for (const id of told.gone) this.columns.delete(id);
    for (const text of told.texts) {
      this.texts.delete(text.id);
      this.ahead.set(text.id, text);
    }
  }

  /** Ends a request, if it is still at work. */
  end(id: number): void {
    this.requests.end(id);
  }

  /** Answers a question. @param order document ids in the order of the answer @returns null if it was ended */
  ask(id: number, tell: Tell, question: Question, scope: Scope, everything: Scope, order: readonly Id[]): Promise<Answer | null> {
    return this.requests.run(
      'ask',
      id,
      async (running) => {
        const study = this.asked();
        const evaluation = new Evaluation(question, study, scope);
        const hits = await this.hitsOf(running, evaluation, order);
        const count = async (changed: Question, within: Scope): Promise<number> => {
          const tried = new Evaluation(changed, study, within);
          await this.evaluate(running, tried, order);
          return tried.found;
        };
        const ways = hits.length > 0 ? [] : await waysOut(question, count, scope, everything);
        return { hits, parts: evaluation.parts(), of: evaluation.passages, waysOut: ways };
      },
      tell,
    );
  }

  /** Answers the same question for several groups. @param groups a further part for each @returns hits by group; null if it was ended */
  sideBySide(
    id: number,
    question: Question,
    groups: readonly PassageCondition[],
    scope: Scope,
    order: readonly Id[],
  ): Promise<Hit[][] | null> {
    return this.requests.run('side by side', id, async (running) => {
      const study = this.asked();
      const answers: Hit[][] = [];
      for (const group of groups) {
        answers.push(await this.hitsOf(running, new Evaluation({ ...question, all: [...question.all, group] }, study, scope), order));
      }
      return answers;
    });
  }

  private asked(): AskedStudy {
    return new AskedStudy(this.tables, () => [...this.columns.values()], this.language, Date.now, this.words);
  }

  /**
   * Looks for words in the texts in scope, and shows what it finds as it goes.
   * @param show given hits in the order of the documents
   * @param order document ids in the order of the answer
   * @returns how many hits there are, or what is wrong with what was typed; null if it was ended
   */
  findWords(
    id: number,
    tell: Tell,
    show: (hits: readonly FoundHit[]) => unknown,
    search: WordSearch,
    scope: Scope,
    order: readonly Id[],
    onlyUncoded: boolean,
  ): Promise<FoundWords | null> {
    return this.requests.run(
      'find words',
      id,
      async (running) => {
        let finder: WordFinder;
        try {
          finder = new WordFinder(search, this.words.vocabulary, this.language);
        } catch (error) {
          if (error instanceof ExpressionError) return { hits: 0, trouble: error.message };
          throw error;
        }
        const ids = order.filter((one) => scope.documentIds.has(one) && this.tables.document[one] && hasText(this.tables.document[one]));
        let hits = 0;
        for (let at = 0; at < ids.length && hits < MOST_HITS; at += BATCH) {
          const texts = await this.textsOf(ids.slice(at, at + BATCH));
          const batch: FoundHit[] = [];
          for (const [documentId, text] of texts) {
            const document = this.tables.document[documentId];
            if (!document) continue;
            const found = shownHits(document, text, this.columns.get(documentId), scope.coderId, finder.in(text, this.words.of(text)));
            for (const hit of found) if ((!onlyUncoded || hit.codeIds.length === 0) && hits + batch.length < MOST_HITS) batch.push(hit);
            await running.breathe();
          }
          hits += batch.length;
          if (batch.length > 0) show(batch);
          await running.tell(Math.min(1, (at + BATCH) / ids.length));
        }
        return { hits, ...(hits >= MOST_HITS && { more: true as const }) };
      },
      tell,
    );
  }

  /** What is to be coded around some hits, by document. @param hits ascending by start, by document @returns null if it was ended */
  contexts(id: number, hits: ReadonlyMap<Id, readonly Stretch[]>, context: SweepContext): Promise<SweptDocument[] | null> {
    return this.requests.run('contexts', id, async (running) => {
      const ids = [...hits.keys()];
      const documents: SweptDocument[] = [];
      for (let at = 0; at < ids.length; at += BATCH) {
        for (const [documentId, text] of await this.textsOf(ids.slice(at, at + BATCH)))
          documents.push({ documentId, places: contextsOf(text, hits.get(documentId)!, context, this.language) });
        await running.breathe();
      }
      return documents;
    });
  }

  private async hitsOf(running: Running, evaluation: Evaluation, order: readonly Id[]): Promise<Hit[]> {
    const hits: Hit[] = [];
    await this.evaluate(running, evaluation, order, (columns, rows) => {
      for (const hit of hitsOf(columns, rows)) hits.push(hit);
    });
    return hits;
  }

  /** Goes through the documents a question concerns, with texts where it needs them. @throws RequestEndedError */
  private async evaluate(
    running: Running,
    evaluation: Evaluation,
    order: readonly Id[],
    visit: (columns: PassageColumns, rows: readonly number[]) => void = () => undefined,
  ): Promise<void> {
    const ids = order.filter((id) => evaluation.concerns(id) && this.columns.has(id) && this.tables.document[id]);
    let at = 0;
    while (at < ids.length) {
      const some: Id[] = [];
      const reading: Id[] = [];
      while (at < ids.length && some.length < ASKED_AT_ONCE && reading.length < BATCH) {
        const id = ids[at++]!;
        some.push(id);
        if (evaluation.needsText(this.tables.document[id]!)) reading.push(id);
      }
      const texts = reading.length > 0 ? await this.textsOf(reading) : NO_TEXTS;
      running.check();
      for (const id of some) {
        const [columns, document] = [this.columns.get(id), this.tables.document[id]];
        // it may have gone while texts were read
        if (columns && document) visit(columns, evaluation.rowsIn(columns, document, texts.get(id) ?? null));
      }
      if (reading.length > 0) await running.tell(at / ids.length);
      else await running.breathe();
    }
  }

  /** The use of every code in scope. @returns null if it was ended */
  codeUse(id: number, tell: Tell, scope: Scope, withWords: boolean): Promise<ReadonlyMap<Id, CodeUse> | null> {
    const counter = new CodeUseCounter(this.tables.code, caseFinderOf(this.tables.case), scope.coderId, withWords);
    return this.requests.run(
      'code use',
      id,
      async (running) => {
        await this.eachDocument(
          running,
          scope,
          (document) => withWords || CaseFinder.needsText(document),
          (some, document, text) => counter.add(some, document, text),
        );
        return counter.result();
      },
      tell,
    );
  }

  /** What the page of a code shows. @returns null if it was ended */
  codePage(id: number, codeId: Id, withUnder: boolean, scope: Scope): Promise<CodePage | null> {
    const builder = new CodePageBuilder(this.tables.code, codeId, withUnder, caseFinderOf(this.tables.case), scope.coderId);
    const concerned = [...scope.documentIds].filter((one) => this.columns.has(one) && builder.concerns(this.columns.get(one)!));
    return this.requests.run('code page', id, async (running) => {
      await this.eachDocument(
        running,
        { ...scope, documentIds: new Set(concerned) },
        (document) => document.speakers.length > 0,
        (some, document, text) => builder.add(some, document, text),
      );
      return builder.result();
    });
  }

  /** How often a word of the glossary stands in each document that has it, in any of its forms; the most first. @returns null if it was ended */
  glossUse(id: number, gloss: Gloss, documentIds: readonly Id[]): Promise<readonly GlossUse[] | null> {
    return this.requests.run('gloss use', id, async (running) => {
      const finder = new GlossFinder([gloss]);
      const found: GlossUse[] = [];
      for (let at = 0; at < documentIds.length; at += BATCH) {
        for (const [documentId, text] of await this.textsOf(documentIds.slice(at, at + BATCH))) {
          const count = finder.in(text.text).length;
          if (count > 0) found.push({ documentId, count });
        }
        await running.breathe();
      }
      return found.sort((a, b) => b.count - a.count);
    });
  }

  /** Looks through the whole codebook. @returns null if it was ended */
  checks(id: number, limits: CheckLimits): Promise<Finding[] | null> {
    return this.requests.run('checks', id, () => {
      const all = [...this.columns.values()];
      return checkCodebook(this.tables.code, all, countCodes(all, this.tables.code), limits);
    });
  }

  /** Texts by document, as they are in the study this was told of. */
  private async textsOf(ids: readonly Id[]): Promise<Map<Id, Text>> {
    const missing = ids.filter((id) => !this.ahead.has(id) && !this.texts.has(id));
    const studyId = this.studyId;
    if (missing.length > 0 && studyId)
      for (const text of await this.read(studyId, missing)) if (this.studyId === studyId) this.texts.put(text);
    const found = new Map<Id, Text>();
    for (const id of ids) {
      const text = this.ahead.get(id) ?? this.texts.get(id);
      if (text) found.set(id, text);
    }
    this.texts.trim();
    return found;
  }

  /** Goes through documents in scope, with texts where they are needed. @throws RequestEndedError */
  private async eachDocument(
    running: Running,
    scope: Scope,
    needsText: (document: SpokenDocument) => boolean,
    visit: (columns: PassageColumns, document: SpokenDocument, text: Text | null) => void,
  ): Promise<void> {
    const ids = [...scope.documentIds].filter((id) => this.columns.has(id) && Object.hasOwn(this.tables.document, id));
    for (let at = 0; at < ids.length; at += BATCH) {
      const some = ids.slice(at, at + BATCH);
      const read = await this.textsOf(some.filter((id) => needsText(this.tables.document[id]!)));
      running.check();
      for (const id of some) {
        const [columns, document] = [this.columns.get(id), this.tables.document[id]];
        // it may have gone while texts were read
        if (columns && document) visit(columns, document, read.get(id) ?? null);
      }
      await running.tell((at + some.length) / ids.length);
    }
  }
}

/** Whether a document's text is as it was, by what its record says of its words: how far it was read, or what it is called, is no matter. */
const sameWords = (before: Document, now: Document): boolean => {
  const saidOf = ({ characters, words, speakers, source }: Document): string => JSON.stringify([characters, words, speakers, source]);
  return saidOf(before) === saidOf(now);
};
