/// <reference lib="webworker" />
import { expose } from 'comlink';
import { checkCodebook, type CheckLimits, type Finding } from '@core/codebook/checks';
import { CodePageBuilder, type CodePage } from '@core/codebook/code-page';
import type { Case } from '@core/model/case';
import type { Code } from '@core/model/code';
import { GlossFinder } from '@core/glosses/find-glosses';
import type { Text } from '@core/model/document';
import type { Gloss } from '@core/model/gloss';
import type { Id } from '@core/model/ids';
import type { Question } from '@core/model/query';
import type { Table } from '@core/model/study-state';
import { CaseFinder, CodeUseCounter, type CodeUse, type SpokenDocument } from '@core/passages/code-use';
import type { PassageColumns } from '@core/model/passage-columns';
import { countCodes } from '@core/passages/counting';
import { evaluate, type Hit, type Scope } from '@core/queries/evaluate';
import { waysOut, type WayOut } from '@core/queries/explain';
import { StudyStorage } from '../storage/study-storage';

/** What was found; for an empty answer, the steps that would bring something back. */
export interface Answer {
  readonly hits: readonly Hit[];
  readonly waysOut: readonly WayOut[];
}

/** What of the study has changed since the worker was last told; null where nothing has. */
export interface Told {
  readonly studyId: Id;
  readonly changed: readonly PassageColumns[];
  readonly gone: readonly Id[];
  readonly codes: Table<Code> | null;
  readonly documents: readonly SpokenDocument[] | null;
  readonly cases: Table<Case> | null;
}

/** Texts that are kept at hand; more would fill the memory. */
const TEXTS_KEPT = 300;
/** Documents whose texts are read at once. */
const BATCH = 40;

let studyId: Id | null = null;
const columns = new Map<Id, PassageColumns>();
const documents = new Map<Id, SpokenDocument>();
const texts = new Map<Id, Text>();
let codes: Table<Code> = {};
let finder = new CaseFinder({});
/** Rises with every question of a kind that takes long, so that an older one can stop. */
const newest = { use: 0, page: 0 };

/** Texts from disk, by document. Corrected ones are never old: a correction changes the document's passages or its record. */
async function textsOf(ids: readonly Id[]): Promise<Map<Id, Text>> {
  const missing = ids.filter((id) => !texts.has(id));
  if (missing.length > 0 && studyId) {
    const storage = await StudyStorage.of(studyId);
    try {
      for (const text of await storage.texts(missing)) texts.set(text.id, text);
    } finally {
      storage.close();
    }
  }
  const found = new Map(ids.flatMap((id) => (texts.has(id) ? [[id, texts.get(id)!] as const] : [])));
  for (const id of texts.keys()) {
    if (texts.size <= TEXTS_KEPT) break;
    texts.delete(id);
  }
  return found;
}

/** Goes through documents in scope, with texts where they are needed. @returns false if a newer question came */
async function eachDocument(
  kind: keyof typeof newest,
  scope: Scope,
  needsText: (document: SpokenDocument) => boolean,
  visit: (columns: PassageColumns, document: SpokenDocument, text: Text | null) => void,
  progress?: (share: number) => void,
): Promise<boolean> {
  const turn = ++newest[kind];
  const ids = [...scope.documentIds].filter((id) => columns.has(id) && documents.has(id));
  for (let at = 0; at < ids.length; at += BATCH) {
    const some = ids.slice(at, at + BATCH);
    const read = await textsOf(some.filter((id) => needsText(documents.get(id)!)));
    if (turn !== newest[kind]) return false;
    for (const id of some) visit(columns.get(id)!, documents.get(id)!, read.get(id) ?? null);
    progress?.((at + some.length) / ids.length);
  }
  return true;
}

/** Holds the passages of the open study as columns, kept in step by the interface, and answers questions. */
const analysis = {
  /** Takes what is new or changed, and forgets the documents that are gone. */
  update(told: Told): void {
    if (told.studyId !== studyId) {
      columns.clear();
      documents.clear();
      texts.clear();
      studyId = told.studyId;
    }
    for (const one of told.changed) columns.set(one.documentId, one);
    for (const id of told.gone) columns.delete(id);
    if (told.codes) codes = told.codes;
    if (told.cases) finder = new CaseFinder(told.cases);
    if (told.documents) {
      documents.clear();
      // a document whose record changed may have another text now
      texts.clear();
      for (const one of told.documents) documents.set(one.id, one);
    }
  },

  /** @param order document ids in the order of the answer */
  ask(question: Question, scope: Scope, everything: Scope, order: readonly Id[]): Answer {
    const asked = order.map((id) => columns.get(id)).filter((one) => one !== undefined);
    const hits = evaluate(question, asked, codes, scope);
    return { hits, waysOut: hits.length > 0 ? [] : waysOut(question, asked, codes, scope, everything) };
  },

  /** The use of every code in scope; null if a newer question came meanwhile. */
  async codeUse(scope: Scope, withWords: boolean, progress: (share: number) => void): Promise<ReadonlyMap<Id, CodeUse> | null> {
    const counter = new CodeUseCounter(codes, finder, scope.coderId, withWords);
    const done = await eachDocument(
      'use',
      scope,
      (document) => withWords || CaseFinder.needsText(document),
      (some, document, text) => counter.add(some, document, text),
      progress,
    );
    return done ? counter.result() : null;
  },

  /** What the page of a code shows; null if a newer question came meanwhile. */
  async codePage(codeId: Id, withUnder: boolean, scope: Scope): Promise<CodePage | null> {
    const builder = new CodePageBuilder(codes, codeId, withUnder, finder, scope.coderId);
    const done = await eachDocument(
      'page',
      { ...scope, documentIds: new Set([...scope.documentIds].filter((id) => columns.has(id) && builder.concerns(columns.get(id)!))) },
      (document) => document.speakers.length > 0,
      (some, document, text) => builder.add(some, document, text),
    );
    return done ? builder.result() : null;
  },

  /** How often a word of the glossary stands in each document that has it, in any of its forms. */
  async glossUse(gloss: Gloss, documentIds: readonly Id[]): Promise<{ readonly documentId: Id; readonly count: number }[]> {
    const finder = new GlossFinder([gloss]);
    const found: { documentId: Id; count: number }[] = [];
    for (let at = 0; at < documentIds.length; at += BATCH)
      for (const [documentId, text] of await textsOf(documentIds.slice(at, at + BATCH))) {
        const count = finder.in(text.text).length;
        if (count > 0) found.push({ documentId, count });
      }
    return found.sort((a, b) => b.count - a.count);
  },

  /** Looks through the whole codebook. */
  checks(limits: CheckLimits): Finding[] {
    const all = [...columns.values()];
    return checkCodebook(codes, all, countCodes(all, codes), limits);
  },
};

export type AnalysisWorker = typeof analysis;
expose(analysis);
