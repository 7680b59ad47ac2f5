import { checkCodebook, type CheckLimits, type Finding } from '../codebook/checks';
import { CodePageBuilder, type CodePage } from '../codebook/code-page';
import { GlossFinder } from '../glosses/find-glosses';
import type { Case } from '../model/case';
import type { Code } from '../model/code';
import type { Text } from '../model/document';
import type { Gloss } from '../model/gloss';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { Question } from '../model/query';
import type { Table } from '../model/study-state';
import { CaseFinder, CodeUseCounter, type CodeUse, type SpokenDocument } from '../passages/code-use';
import { countCodes } from '../passages/counting';
import { evaluate, type Hit, type Scope } from '../queries/evaluate';
import { waysOut, type WayOut } from '../queries/explain';
import { Requests, type Running, type Tell } from '../requests/requests';

/** What was found; for an empty answer, the steps that would bring something back. */
export interface Answer {
  readonly hits: readonly Hit[];
  readonly waysOut: readonly WayOut[];
}

/** What of the study has changed since it was last told; null where nothing has. */
export interface Told {
  readonly studyId: Id;
  /** What is known of this study so far is not to be relied on: it was read anew. */
  readonly anew: boolean;
  readonly changed: readonly PassageColumns[];
  readonly gone: readonly Id[];
  readonly codes: Table<Code> | null;
  readonly documents: readonly SpokenDocument[] | null;
  readonly cases: Table<Case> | null;
  /** Texts that changed, as they are now: the disk may not have them yet. */
  readonly texts: readonly Text[];
}

/** Reads texts of a study from where they are kept. */
export type ReadTexts = (studyId: Id, documentIds: readonly Id[]) => Promise<readonly Text[]>;

/** Texts that are kept at hand; more would fill the memory. */
const TEXTS_KEPT = 300;
/** Documents whose texts are read at once. */
const BATCH = 40;
/** Documents that are asked between two breaths. */
const ASKED_AT_ONCE = 200;

/** How often a word of the glossary stands in a document. */
export interface GlossUse {
  readonly documentId: Id;
  readonly count: number;
}

/**
 * Holds the passages of the open study as columns, kept in step by whoever asks, and answers questions about them. A
 * newer question of a kind ends the older, and each can be ended by its number. It knows no worker: it is run in one, and
 * tested as it is.
 */
export class Analysis {
  private studyId: Id | null = null;
  private readonly columns = new Map<Id, PassageColumns>();
  private readonly documents = new Map<Id, SpokenDocument>();
  private readonly texts = new Map<Id, Text>();
  /** Texts that changed since the study was opened: what the disk says of them may be older than the passages. */
  private readonly ahead = new Map<Id, Text>();
  private codes: Table<Code> = {};
  private finder = new CaseFinder({});
  private readonly requests = new Requests();

  constructor(private readonly read: ReadTexts) {}

  /** Takes what is new or changed, and forgets the documents that are gone. */
  update(told: Told): void {
    if (told.studyId !== this.studyId || told.anew) {
      for (const some of [this.columns, this.documents, this.texts, this.ahead]) some.clear();
      this.studyId = told.studyId;
    }
    for (const one of told.changed) this.columns.set(one.documentId, one);
    for (const id of told.gone) this.columns.delete(id);
    if (told.codes) this.codes = told.codes;
    if (told.cases) this.finder = new CaseFinder(told.cases);
    if (told.documents) {
      this.documents.clear();
      // a document whose record changed may have another text on disk now
      this.texts.clear();
      for (const one of told.documents) this.documents.set(one.id, one);
    }
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
  ask(id: number, question: Question, scope: Scope, everything: Scope, order: readonly Id[]): Promise<Answer | null> {
    return this.requests.run('ask', id, async (running) => {
      const asked = order.map((document) => this.columns.get(document)).filter((one) => one !== undefined);
      const hits: Hit[] = [];
      for (let at = 0; at < asked.length; at += ASKED_AT_ONCE) {
        for (const hit of evaluate(question, asked.slice(at, at + ASKED_AT_ONCE), this.codes, scope)) hits.push(hit);
        await running.breathe();
      }
      return { hits, waysOut: hits.length > 0 ? [] : waysOut(question, asked, this.codes, scope, everything) };
    });
  }

  /** The use of every code in scope. @returns null if it was ended */
  codeUse(id: number, tell: Tell, scope: Scope, withWords: boolean): Promise<ReadonlyMap<Id, CodeUse> | null> {
    const counter = new CodeUseCounter(this.codes, this.finder, scope.coderId, withWords);
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
    const builder = new CodePageBuilder(this.codes, codeId, withUnder, this.finder, scope.coderId);
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
      return checkCodebook(this.codes, all, countCodes(all, this.codes), limits);
    });
  }

  /** Texts by document, as they are in the study this was told of. */
  private async textsOf(ids: readonly Id[]): Promise<Map<Id, Text>> {
    const missing = ids.filter((id) => !this.ahead.has(id) && !this.texts.has(id));
    const studyId = this.studyId;
    if (missing.length > 0 && studyId)
      for (const text of await this.read(studyId, missing)) if (this.studyId === studyId) this.texts.set(text.id, text);
    const found = new Map<Id, Text>();
    for (const id of ids) {
      const text = this.ahead.get(id) ?? this.texts.get(id);
      if (text) found.set(id, text);
    }
    for (const id of this.texts.keys()) {
      if (this.texts.size <= TEXTS_KEPT) break;
      this.texts.delete(id);
    }
    return found;
  }

  /** Goes through documents in scope, with texts where they are needed. @throws RequestEndedError */
  private async eachDocument(
    running: Running,
    scope: Scope,
    needsText: (document: SpokenDocument) => boolean,
    visit: (columns: PassageColumns, document: SpokenDocument, text: Text | null) => void,
  ): Promise<void> {
    const ids = [...scope.documentIds].filter((id) => this.columns.has(id) && this.documents.has(id));
    for (let at = 0; at < ids.length; at += BATCH) {
      const some = ids.slice(at, at + BATCH);
      const read = await this.textsOf(some.filter((id) => needsText(this.documents.get(id)!)));
      running.check();
      for (const id of some) {
        const [columns, document] = [this.columns.get(id), this.documents.get(id)];
        // it may have gone while texts were read
        if (columns && document) visit(columns, document, read.get(id) ?? null);
      }
      await running.tell((at + some.length) / ids.length);
    }
  }
}
