import type { SweptDocument } from '../commands/sweep';
import { GlossFinder } from '../glosses/find-glosses';
import { hasText, type Document, type Text } from '../model/document';
import type { Gloss } from '../model/gloss';
import type { Id } from '../model/ids';
import type { Scope } from '../model/scope';
import type { Stretch } from '../model/stretch';
import type { WordSearch } from '../model/word-search';
import { caseFinderOf } from '../passages/case-finder';
import type { Narrowing } from '../queries/narrowing';
import type { Requests, Tell } from '../requests/requests';
import { contextsOf, type SweepContext } from '../words/contexts';
import { ExpressionError, listsByName } from '../words/expression';
import { foundIn, writtenIn, type FoundElsewhere, type PlacesElsewhere } from '../words/find-elsewhere';
import { PatternFinder } from '../words/find-pattern';
import { WordFinder, type WordHit } from '../words/find-words';
import { shownHits, type FoundHit } from '../words/found-hit';
import { BATCH, type HeldStudy } from './held-study';
import type { FoundWords, GlossUse } from './messages';

/** Hits that are shown: more are not looked through by a person, and would fill the memory. */
const MOST_HITS = 100_000;
/** Documents that are looked through before the first hits are shown. */
const FIRST_BATCH = 4;
/** Places in memos, comments and definitions that are shown. */
const MOST_ELSEWHERE = 2_000;

/** What is looked for in texts and in what is written beside them. */
export class WordRequests {
  constructor(
    private readonly held: HeldStudy,
    private readonly requests: Requests,
  ) {}

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
        const narrowing = this.held.narrowingTo(scope);
        const ids = order.filter((one) => {
          const document = this.held.tables.document[one];
          return document && hasText(document) && narrowing.mayHold(document);
        });
        let hits = 0;
        // the first few show at once; then more at a time cost less
        for (let at = 0, size = FIRST_BATCH; at < ids.length && hits < MOST_HITS; at += size, size = Math.min(BATCH, size * 2)) {
          const texts = await this.held.textsOf(ids.slice(at, at + size));
          const batch: FoundHit[] = [];
          for (const [documentId, text] of texts) {
            const document = this.held.tables.document[documentId];
            if (!document) continue;
            const found = this.shownIn(narrowing, document, text, find(text));
            for (const hit of found) if ((!onlyUncoded || hit.codeIds.length === 0) && hits + batch.length < MOST_HITS) batch.push(hit);
            if (isPattern(search)) await running.tell(Math.min(0.999, at / ids.length));
            else await running.breathe();
          }
          hits += batch.length;
          if (batch.length > 0) show(batch);
          await running.tell(Math.min(1, (at + size) / ids.length));
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
        const pattern = new PatternFinder(search, this.held.language);
        return (text) => pattern.in(text);
      }
      const finder = new WordFinder(
        search,
        this.held.words.vocabulary,
        this.held.language,
        listsByName(Object.values(this.held.tables.wordList)),
      );
      return (text) => finder.in(text, this.held.words.of(text));
    } catch (error) {
      if (error instanceof ExpressionError) return error.message;
      throw error;
    }
  }

  /** Looks for words in memos, comments and what is said of codes. @returns null if it was ended */
  findElsewhere(id: number, tell: Tell, search: WordSearch): Promise<PlacesElsewhere | null> {
    return this.requests.run(
      'find elsewhere',
      id,
      async (running) => {
        const find = this.findingOf(search);
        if (typeof find === 'string') return { places: [] };
        await running.tell(0);
        const found: FoundElsewhere[] = [];
        for (const one of writtenIn(this.held.tables, this.held.columns.values())) {
          for (const hit of foundIn(one, find)) {
            if (found.length === MOST_ELSEWHERE) return { places: found, more: true };
            found.push(hit);
          }
          await running.tell(0.5);
        }
        return { places: found };
      },
      tell,
    );
  }

  /** How often a word of the glossary stands in each document that has it, in any of its forms; the most first. @returns null if it was ended */
  glossUse(id: number, gloss: Gloss, documentIds: readonly Id[]): Promise<readonly GlossUse[] | null> {
    return this.requests.run('gloss use', id, async (running) => {
      const finder = new GlossFinder([gloss]);
      const found: GlossUse[] = [];
      for (let at = 0; at < documentIds.length; at += BATCH) {
        for (const [documentId, text] of await this.held.textsOf(documentIds.slice(at, at + BATCH))) {
          const count = finder.in(text.text).length;
          if (count > 0) found.push({ documentId, count });
        }
        await running.breathe();
      }
      return found.sort((a, b) => b.count - a.count);
    });
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
    const columns = this.held.columns.get(document.id);
    return shownHits(
      document,
      text,
      (columns && narrowing.leftOf(columns, document, text)) ?? undefined,
      caseFinderOf(this.held.tables.case),
      kept,
    );
  }

  /** What is to be coded around some hits, by document. @param hits ascending by start, by document @returns null if it was ended */
  contexts(id: number, hits: ReadonlyMap<Id, readonly Stretch[]>, context: SweepContext): Promise<SweptDocument[] | null> {
    return this.requests.run('contexts', id, async (running) => {
      const ids = [...hits.keys()];
      const documents: SweptDocument[] = [];
      for (let at = 0; at < ids.length; at += BATCH) {
        for (const [documentId, text] of await this.held.textsOf(ids.slice(at, at + BATCH)))
          documents.push({ documentId, places: contextsOf(text, hits.get(documentId)!, context, this.held.language) });
        await running.breathe();
      }
      return documents;
    });
  }
}

const isPattern = ({ match }: WordSearch): boolean => match === 'regular expression';
