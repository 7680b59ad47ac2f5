import { checkCodebook, type CheckLimits, type Finding } from '../codebook/checks';
import { CodePageBuilder, type CodePage } from '../codebook/code-page';
import { GlossFinder } from '../glosses/find-glosses';
import { hasText, type Document, type Text } from '../model/document';
import type { Stretch } from '../model/stretch';
import type { WordSearch } from '../model/word-search';
import type { SweptDocument } from '../commands/sweep';
import { contextsOf, type SweepContext } from '../words/contexts';
import { ExpressionError, listsByName } from '../words/expression';
import { foundIn, writtenIn, type FoundElsewhere } from '../words/find-elsewhere';
import { PatternFinder } from '../words/find-pattern';
import { WordFinder, type WordHit } from '../words/find-words';
import type { Spoken } from '../text/paragraphs';
import { shownHits, type FoundHit } from '../words/found-hit';
import { IndexedWords } from '../words/vocabulary';
import type { Gloss } from '../model/gloss';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { PassageCondition } from '../model/passage-condition';
import type { Question } from '../model/query';
import type { Proposition } from '../model/proposition';
import type { Scope } from '../model/scope';
import { NO_TABLES, type StudyState } from '../model/study-state';
import { caseFinderOf, CaseFinder, CodeUseCounter, type CodeUse } from '../passages/code-use';
import { countCodes } from '../passages/counting';
import { AnswerCounter, type AnswerCounts } from '../queries/answer-counts';
import { AskedStudy } from '../queries/asked-study';
import { Evaluation, type Hit } from '../queries/evaluate';
import { waysOut } from '../queries/explain';
import { PropositionTest, type CaseSays } from '../queries/proposition';
import { Narrowing, spokenOf } from '../queries/narrowing';
import { KeptTexts } from './kept-texts';
import type { Answer, FoundWords, GlossUse, Leaves, ReadTexts, Told } from './messages';
import { Requests, type Running, type Tell } from '../requests/requests';

/** Characters of texts that are kept at hand: those of ten million words. */
const CHARACTERS_KEPT = 60_000_000;
/** Hits that are shown: more are not looked through by a person, and would fill the memory. */
const MOST_HITS = 100_000;
/** Places in memos, comments and definitions that are shown. */
const MOST_ELSEWHERE = 2_000;
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
  /** The scope that was asked in last, and what was worked out for it. */
  private lastScope: { readonly asked: string; readonly narrowing: Narrowing } | null = null;

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
    if (Object.keys(told.tables).length > 0) this.lastScope = null;
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
  ask(id: number, tell: Tell, question: Question, scope: Scope, order: readonly Id[]): Promise<Answer | null> {
    return this.requests.run(
      'ask',
      id,
      async (running) => {
        const study = this.asked();
        const evaluation = new Evaluation(question, study, this.narrowingTo(scope));
        const hits = await this.hitsOf(running, evaluation, order);
        const count = async (changed: Question, within: Scope): Promise<number> => {
          const tried = new Evaluation(changed, study, this.narrowingTo(within));
          await this.evaluate(running, tried, order);
          return tried.found;
        };
        const ways = hits.length > 0 ? [] : await waysOut(question, count, scope);
        return { hits, parts: evaluation.parts(), of: evaluation.passages, waysOut: ways };
      },
      tell,
    );
  }

  /** How much an answer is. @param hits passages, by document @returns null if it was ended */
  answerCounts(id: number, hits: ReadonlyMap<Id, ReadonlySet<Id>>): Promise<AnswerCounts | null> {
    const counter = new AnswerCounter(caseFinderOf(this.tables.case));
    return this.requests.run('answer counts', id, async (running) => {
      await this.eachDocument(running, [...hits.keys()], hasText, (columns, document, text) => {
        if (columns) counter.add(columns, document, text, hits.get(document.id)!);
      });
      return counter.result();
    });
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
      const [study, narrowing] = [this.asked(), this.narrowingTo(scope)];
      const answers: Hit[][] = [];
      for (const group of groups) {
        answers.push(await this.hitsOf(running, new Evaluation({ ...question, all: [...question.all, group] }, study, narrowing), order));
      }
      return answers;
    });
  }

  private asked(): AskedStudy {
    return new AskedStudy(this.tables, () => [...this.columns.values()], this.language, Date.now, this.words);
  }

  /** A scope made ready. As long as neither it nor the study's tables change, what was worked out for it is kept. */
  private narrowingTo(scope: Scope): Narrowing {
    const asked = JSON.stringify(scope);
    if (this.lastScope?.asked !== asked) this.lastScope = { asked, narrowing: new Narrowing(scope, this.asked()) };
    return this.lastScope.narrowing;
  }

  /** How much each of some scopes leaves of the study. @returns null if it was ended */
  leaves(id: number, scopes: readonly Scope[]): Promise<Leaves[] | null> {
    return this.requests.run('leaves', id, async (running) => {
      const study = this.asked();
      const narrowings = scopes.map((scope) => new Narrowing(scope, study));
      const left = scopes.map(() => ({ documents: 0, cases: new Set<Id>(), passages: 0 }));
      // whose a passage is depends on who speaks
      const needsText = (document: Document): boolean =>
        CaseFinder.needsText(document) || narrowings.some((one) => one.needsSpoken(document));
      await this.eachDocument(running, Object.keys(this.tables.document), needsText, (columns, document, text) => {
        narrowings.forEach((narrowing, at) => {
          if (!narrowing.holds(document, text)) return;
          const found = left[at]!;
          found.documents++;
          for (const caseId of narrowing.casesIn(document, text)) found.cases.add(caseId);
          found.passages += (columns && narrowing.leftOf(columns, document, text))?.starts.length ?? 0;
        });
      });
      return left.map(({ documents, cases, passages }) => ({ documents, cases: cases.size, passages }));
    });
  }

  /** Who speaks where in some documents, as they are in the study this was told of. */
  async spoken(documentIds: readonly Id[]): Promise<Map<Id, Spoken>> {
    const spoken = new Map<Id, Spoken>();
    for (let at = 0; at < documentIds.length; at += BATCH)
      for (const [id, text] of await this.textsOf(documentIds.slice(at, at + BATCH))) spoken.set(id, spokenOf(text));
    return spoken;
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
        const find = this.findingOf(search);
        if (typeof find === 'string') return { hits: 0, trouble: find };
        // whoever asked for an expression that runs away hears nothing more from here on
        await running.tell(0);
        const narrowing = this.narrowingTo(scope);
        const ids = order.filter((one) => {
          const document = this.tables.document[one];
          return document && hasText(document) && narrowing.mayHold(document);
        });
        let hits = 0;
        for (let at = 0; at < ids.length && hits < MOST_HITS; at += BATCH) {
          const texts = await this.textsOf(ids.slice(at, at + BATCH));
          const batch: FoundHit[] = [];
          for (const [documentId, text] of texts) {
            const document = this.tables.document[documentId];
            if (!document) continue;
            const found = this.shownIn(narrowing, document, text, find(text));
            for (const hit of found) if ((!onlyUncoded || hit.codeIds.length === 0) && hits + batch.length < MOST_HITS) batch.push(hit);
            if (isPattern(search)) await running.tell(Math.min(0.999, at / ids.length));
            else await running.breathe();
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

  /** What finds a search in a text, or what is wrong with what was typed. */
  private findingOf(search: WordSearch): ((text: Text) => WordHit[]) | string {
    try {
      if (isPattern(search)) {
        const pattern = new PatternFinder(search, this.language);
        return (text) => pattern.in(text);
      }
      const finder = new WordFinder(search, this.words.vocabulary, this.language, listsByName(Object.values(this.tables.wordList)));
      return (text) => finder.in(text, this.words.of(text));
    } catch (error) {
      if (error instanceof ExpressionError) return error.message;
      throw error;
    }
  }

  /** Looks for words in memos, comments and what is said of codes. @returns null if it was ended */
  findElsewhere(id: number, tell: Tell, search: WordSearch): Promise<FoundElsewhere[] | null> {
    return this.requests.run(
      'find elsewhere',
      id,
      async (running) => {
        const find = this.findingOf(search);
        if (typeof find === 'string') return [];
        await running.tell(0);
        const found: FoundElsewhere[] = [];
        for (const one of writtenIn(this.tables, this.columns.values())) {
          for (const hit of foundIn(one, find)) if (found.length < MOST_ELSEWHERE) found.push(hit);
          await running.tell(0.5);
        }
        return found;
      },
      tell,
    );
  }

  /** Holds a proposition against the cases in scope. @returns null if it was ended */
  proposition(id: number, tell: Tell, asked: Pick<Proposition, 'where' | 'then'>, scope: Scope): Promise<CaseSays[] | null> {
    return this.requests.run(
      'proposition',
      id,
      async (running) => {
        const narrowing = this.narrowingTo(scope);
        const test = new PropositionTest(asked, this.asked(), narrowing);
        await this.eachDocument(
          running,
          this.mayHold(narrowing),
          (document) => test.needsText(document),
          (columns, document, text) => test.add(columns, document, text),
        );
        return test.result();
      },
      tell,
    );
  }

  /** The hits in a text that are in scope, as they are shown. */
  private shownIn(narrowing: Narrowing, document: Document, text: Text, hits: readonly WordHit[]): FoundHit[] {
    if (hits.length === 0) return [];
    // a whole text is in scope where one of the words in it is
    const words = hits.flatMap((hit) => hit.words);
    const keeps = narrowing.keeps(document, text, words);
    let at = 0;
    const kept = hits.filter((hit) => {
      const from = at;
      at += hit.words.length;
      return hit.words.length === 0 || hit.words.some((_, nth) => keeps(from + nth));
    });
    const columns = this.columns.get(document.id);
    return shownHits(
      document,
      text,
      (columns && narrowing.leftOf(columns, document, text)) ?? undefined,
      caseFinderOf(this.tables.case),
      kept,
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
    await this.evaluate(running, evaluation, order, (found) => {
      for (const hit of found) hits.push(hit);
    });
    return hits;
  }

  /** Goes through the documents a question concerns, with texts where it needs them. @throws RequestEndedError */
  private async evaluate(
    running: Running,
    evaluation: Evaluation,
    order: readonly Id[],
    visit: (hits: readonly Hit[]) => void = () => undefined,
  ): Promise<void> {
    const ids = order.filter((id) => this.columns.has(id) && this.tables.document[id] && evaluation.mayConcern(this.tables.document[id]));
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
        if (columns && document) visit(evaluation.hitsIn(columns, document, texts.get(id) ?? null));
      }
      if (reading.length > 0) await running.tell(at / ids.length);
      else await running.breathe();
    }
  }

  /** The use of every code in scope. @returns null if it was ended */
  codeUse(id: number, tell: Tell, scope: Scope, withWords: boolean): Promise<ReadonlyMap<Id, CodeUse> | null> {
    const counter = new CodeUseCounter(this.tables.code, caseFinderOf(this.tables.case), withWords);
    const narrowing = this.narrowingTo(scope);
    return this.requests.run(
      'code use',
      id,
      async (running) => {
        await this.eachDocument(
          running,
          this.mayHold(narrowing),
          (document) => withWords || CaseFinder.needsText(document) || narrowing.needsSpoken(document),
          (some, document, text) => {
            const left = some && narrowing.leftOf(some, document, text);
            if (left) counter.add(left, document, text);
          },
        );
        return counter.result();
      },
      tell,
    );
  }

  /** What the page of a code shows. @returns null if it was ended */
  codePage(id: number, codeId: Id, withUnder: boolean, scope: Scope): Promise<CodePage | null> {
    const builder = new CodePageBuilder(this.tables.code, codeId, withUnder, caseFinderOf(this.tables.case));
    const narrowing = this.narrowingTo(scope);
    const concerned = this.mayHold(narrowing).filter((one) => this.columns.has(one) && builder.concerns(this.columns.get(one)!));
    return this.requests.run('code page', id, async (running) => {
      await this.eachDocument(
        running,
        concerned,
        (document) => document.speakers.length > 0 || narrowing.needsSpoken(document),
        (some, document, text) => {
          const left = some && narrowing.leftOf(some, document, text);
          if (left) builder.add(left, document, text);
        },
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

  /** The documents that may be in a scope, in no order. */
  private mayHold(narrowing: Narrowing): Id[] {
    return Object.values(this.tables.document).flatMap((document) => (narrowing.mayHold(document) ? [document.id] : []));
  }

  /** Goes through some documents, with texts where they are needed. @throws RequestEndedError */
  private async eachDocument(
    running: Running,
    ids: readonly Id[],
    needsText: (document: Document) => boolean,
    visit: (columns: PassageColumns | null, document: Document, text: Text | null) => void,
  ): Promise<void> {
    for (let at = 0; at < ids.length; at += BATCH) {
      const some = ids.slice(at, at + BATCH);
      const read = await this.textsOf(some.filter((id) => this.tables.document[id] && needsText(this.tables.document[id])));
      running.check();
      for (const id of some) {
        const document = this.tables.document[id];
        // it may have gone while texts were read
        if (document) visit(this.columns.get(id) ?? null, document, read.get(id) ?? null);
      }
      await running.tell((at + some.length) / ids.length);
    }
  }
}

const isPattern = ({ match }: WordSearch): boolean => match === 'regular expression';

/** Whether a document's text is as it was, by what its record says of its words: how far it was read, or what it is called, is no matter. */
const sameWords = (before: Document, now: Document): boolean => {
  const saidOf = ({ characters, words, speakers, source }: Document): string => JSON.stringify([characters, words, speakers, source]);
  return saidOf(before) === saidOf(now);
};
