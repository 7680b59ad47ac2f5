import { NOTHING_ANSWERED, type Answered } from '../model/answered';
import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { Scope } from '../model/scope';
import { NO_TABLES, type StudyState } from '../model/study-state';
import { AskedStudy } from '../queries/asked-study';
import { Narrowing } from '../queries/narrowing';
import type { Running } from '../requests/requests';
import { SearchedWords } from '../words/searched-words';
import { IndexedWords } from '../words/vocabulary';
import { KeptTexts } from './kept-texts';
import type { ReadTexts, Told } from './messages';

/** Characters of texts that are kept at hand: those of ten million words. */
const CHARACTERS_KEPT = 60_000_000;
/** Documents whose texts are read at once. */
export const BATCH = 40;

/** The open study as the analysis holds it: passages as columns, tables, and as many texts as there is room for. */
export class HeldStudy {
  private studyId: Id | null = null;
  readonly columns = new Map<Id, PassageColumns>();
  private readonly texts = new KeptTexts(CHARACTERS_KEPT);
  /** Texts that changed since the study was opened: what the disk says of them may be older than the passages. */
  private readonly ahead = new Map<Id, Text>();
  tables: StudyState['tables'] = NO_TABLES;
  language = 'en';
  /** How often it was told of changes. */
  version = 0;
  /** What kept queries find that live sets ask for. */
  answered = NOTHING_ANSWERED;
  /** How often that became another. */
  answersGiven = 0;
  words = new IndexedWords();
  /** The scope that was asked in last, and what was worked out for it. */
  private lastScope: { readonly asked: string; readonly narrowing: Narrowing } | null = null;

  constructor(private readonly read: ReadTexts) {}

  /** Takes what is new or changed, and forgets the documents that are gone. */
  update(told: Told): void {
    if (told.studyId !== this.studyId || told.anew) {
      for (const some of [this.columns, this.texts, this.ahead]) some.clear();
      this.tables = NO_TABLES;
      this.answersAre(NOTHING_ANSWERED);
      this.words = new IndexedWords();
      this.studyId = told.studyId;
    }
    this.language = told.language;
    this.version++;
    // a document that has other words now has another text on disk
    for (const now of Object.values(told.tables.document ?? {})) {
      const before = this.tables.document[now.id];
      if (before && !sameWords(before, now)) this.texts.delete(now.id);
    }
    // what was worked out from tables holds as long as they are the very same
    if (Object.keys(told.tables).length > 0) {
      this.lastScope = null;
      this.tables = { ...this.tables, ...told.tables };
    }
    for (const one of told.changed) this.columns.set(one.documentId, one);
    for (const id of told.gone) this.columns.delete(id);
    for (const text of told.texts) {
      this.texts.delete(text.id);
      this.ahead.set(text.id, text);
    }
  }

  /** Takes what kept queries find that live sets ask for: scopes may hold other documents now. */
  answersAre(answered: Answered): void {
    if (answered === this.answered) return;
    this.answered = answered;
    this.answersGiven++;
    this.lastScope = null;
  }

  /** The study as questions are asked of it. */
  asked(): AskedStudy {
    const columns = () => [...this.columns.values()];
    return new AskedStudy(this.tables, columns, this.language, Date.now, new SearchedWords(this.words), this.answered);
  }

  /** A scope made ready. As long as neither it nor the study's tables change, what was worked out for it is kept. */
  narrowingTo(scope: Scope): Narrowing {
    const asked = JSON.stringify(scope);
    if (this.lastScope?.asked !== asked) this.lastScope = { asked, narrowing: new Narrowing(scope, this.asked()) };
    return this.lastScope.narrowing;
  }

  /** Texts by document, as they are in the study this was told of. */
  async textsOf(ids: readonly Id[]): Promise<Map<Id, Text>> {
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
  mayHold(narrowing: Narrowing): Id[] {
    return Object.values(this.tables.document).flatMap((document) => (narrowing.mayHold(document) ? [document.id] : []));
  }

  /** Goes through some documents, with texts where they are needed. @throws RequestEndedError */
  async eachDocument(
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

/** Whether a document's text is as it was, by what its record says of its words: how far it was read, or what it is called, is no matter. */
const sameWords = (before: Document, now: Document): boolean => {
  const saidOf = ({ characters, words, speakers, source }: Document): string => JSON.stringify([characters, words, speakers, source]);
  return saidOf(before) === saidOf(now);
};
