import { codesOfSet } from '../codebook/conditions';
import { withDescendants } from '../codebook/tree';
import { idsWithMemo } from '../memos/references';
import { NOTHING_ANSWERED, type Answered } from '../model/answered';
import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { PassageColumns } from '../model/passage-columns';
import type { CodesAsked } from '../model/passage-condition';
import type { StudyState } from '../model/study-state';
import { caseFinderOf, type CaseFinder } from '../passages/case-finder';
import { CodeUseCounter } from '../passages/code-use';
import type { WordSearch } from '../model/word-search';
import { countCodes } from '../passages/counting';
import { listsByName } from '../words/expression';
import type { WordFinder } from '../words/find-words';
import type { SearchedWords } from '../words/searched-words';
import type { IndexedText } from '../words/vocabulary';

type Tables = StudyState['tables'];

/** What has to be known of a study to answer questions about its passages, worked out when it is first needed. */
export class AskedStudy {
  private readonly sets = new Map<Id, readonly Id[]>();

  /**
   * @param passages of all documents: what a live set of codes holds depends on them
   * @param language BCP 47 tag, for sentences
   * @param now milliseconds since 1970, for conditions that count back from today
   * @param words looks for words; null where nothing asks for any, as in scopes
   * @param answered what kept queries find that live sets ask for
   */
  constructor(
    readonly tables: Tables,
    private readonly passages: () => readonly PassageColumns[],
    readonly language: string,
    private readonly now: () => number,
    private readonly words: SearchedWords | null = null,
    readonly answered: Answered = NOTHING_ANSWERED,
  ) {}

  /** What looks for words in texts of the study; null where what was typed cannot be read. */
  finderOf(search: WordSearch): WordFinder | null {
    return this.searched.finderOf(search, this.language, listsByName(Object.values(this.tables.wordList)));
  }

  indexOf(text: Text): IndexedText {
    return this.searched.indexOf(text);
  }

  private get searched(): SearchedWords {
    if (!this.words) throw new Error('Words are asked for where no texts are at hand.');
    return this.words;
  }

  /** Whose the passages of a document are. */
  get finder(): CaseFinder {
    return caseFinderOf(this.tables.case);
  }

  /** The codes that each of the codes and sets asked for stands for. */
  groupsOf({ codeIds, setIds, withUnder }: CodesAsked): readonly (readonly Id[])[] {
    const expand = (id: Id): readonly Id[] => (withUnder ? withDescendants(this.tables.code, id) : [id]);
    return [...codeIds.map(expand), ...setIds.map((id) => this.codesOf(id).flatMap(expand))];
  }

  /** Ids of passages, and of whatever else, that have a memo. */
  get passagesWithMemo(): ReadonlySet<Id> {
    return idsWithMemo(this.tables.memo);
  }

  private codesOf(setId: Id): readonly Id[] {
    let codes = this.sets.get(setId);
    if (!codes) this.sets.set(setId, (codes = this.findCodesOf(setId)));
    return codes;
  }

  private findCodesOf(setId: Id): readonly Id[] {
    const set = this.tables.codeSet[setId];
    if (!set) return [];
    const columns = this.passages();
    const use = new CodeUseCounter(this.tables.code, this.finder, false);
    for (const some of columns) {
      const document: Document | undefined = this.tables.document[some.documentId];
      if (document) use.add(some, document, null);
    }
    const state = { tables: this.tables, passages: Object.fromEntries(columns.map((some) => [some.documentId, some])) };
    const facts = { state, counts: countCodes(columns, this.tables.code), cases: use.result(), now: this.now() };
    return codesOfSet(facts, set);
  }
}
