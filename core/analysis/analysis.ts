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
import { NewestOnly } from './newest-only';

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

/**
 * Holds the passages of the open study as columns, kept in step by whoever asks, and answers questions about them. Of
 * those that take long, a newer one of a kind ends the older. It knows no worker: it is run in one, and tested as it is.
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
  private readonly uses = new NewestOnly();
  private readonly pages = new NewestOnly();
  private readonly glossUses = new NewestOnly();

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

  /** @param order document ids in the order of the answer */
  ask(question: Question, scope: Scope, everything: Scope, order: readonly Id[]): Answer {
    const asked = order.map((id) => this.columns.get(id)).filter((one) => one !== undefined);
    const hits = evaluate(question, asked, this.codes, scope);
    return { hits, waysOut: hits.length > 0 ? [] : waysOut(question, asked, this.codes, scope, everything) };
  }

  /** The use of every code in scope; null if a newer question came meanwhile. */
  async codeUse(scope: Scope, withWords: boolean, progress: (share: number) => void): Promise<ReadonlyMap<Id, CodeUse> | null> {
    const counter = new CodeUseCounter(this.codes, this.finder, scope.coderId, withWords);
    const done = await this.eachDocument(
      this.uses.begin(),
      scope,
      (document) => withWords || CaseFinder.needsText(document),
      (some, document, text) => counter.add(some, document, text),
      progress,
    );
    return done ? counter.result() : null;
  }

  /** What the page of a code shows; null if a newer question came meanwhile. */
  async codePage(codeId: Id, withUnder: boolean, scope: Scope): Promise<CodePage | null> {
    const builder = new CodePageBuilder(this.codes, codeId, withUnder, this.finder, scope.coderId);
    const concerned = [...scope.documentIds].filter((id) => this.columns.has(id) && builder.concerns(this.columns.get(id)!));
    const done = await this.eachDocument(
      this.pages.begin(),
      { ...scope, documentIds: new Set(concerned) },
      (document) => document.speakers.length > 0,
      (some, document, text) => builder.add(some, document, text),
    );
    return done ? builder.result() : null;
  }

  /** How often a word of the glossary stands in each document that has it, in any of its forms; the most first. */
  async glossUse(gloss: Gloss, documentIds: readonly Id[]): Promise<readonly { readonly documentId: Id; readonly count: number }[]> {
    const isNewest = this.glossUses.begin();
    const finder = new GlossFinder([gloss]);
    const found: { documentId: Id; count: number }[] = [];
    for (let at = 0; at < documentIds.length && isNewest(); at += BATCH)
      for (const [documentId, text] of await this.textsOf(documentIds.slice(at, at + BATCH))) {
        const count = finder.in(text.text).length;
        if (count > 0) found.push({ documentId, count });
      }
    return found.sort((a, b) => b.count - a.count);
  }

  /** Looks through the whole codebook. */
  checks(limits: CheckLimits): Finding[] {
    const all = [...this.columns.values()];
    return checkCodebook(this.codes, all, countCodes(all, this.codes), limits);
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

  /** Goes through documents in scope, with texts where they are needed. @returns false if a newer question came */
  private async eachDocument(
    isNewest: () => boolean,
    scope: Scope,
    needsText: (document: SpokenDocument) => boolean,
    visit: (columns: PassageColumns, document: SpokenDocument, text: Text | null) => void,
    progress?: (share: number) => void,
  ): Promise<boolean> {
    const ids = [...scope.documentIds].filter((id) => this.columns.has(id) && this.documents.has(id));
    for (let at = 0; at < ids.length; at += BATCH) {
      const some = ids.slice(at, at + BATCH);
      const read = await this.textsOf(some.filter((id) => needsText(this.documents.get(id)!)));
      if (!isNewest()) return false;
      for (const id of some) {
        const [columns, document] = [this.columns.get(id), this.documents.get(id)];
        // it may have gone while texts were read
        if (columns && document) visit(columns, document, read.get(id) ?? null);
      }
      progress?.((at + some.length) / ids.length);
    }
    return true;
  }
}
