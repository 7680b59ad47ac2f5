import type { Text } from '../model/document';
import type { WordSearch } from '../model/word-search';
import { ExpressionError, type WordListsByName } from './expression';
import { WordFinder } from './find-words';
import { IndexedWords, type IndexedText } from './vocabulary';

/** Looks for words in texts that were numbered once. Where texts are: whoever only asks of records needs none of it. */
export class SearchedWords {
  /** @param words texts that were indexed before */
  constructor(private readonly words = new IndexedWords()) {}

  /** What looks for words within a stretch; null where what was typed cannot be read. @param language BCP 47 tag, for word forms */
  finderOf(search: WordSearch, language: string, lists: WordListsByName): WordFinder | null {
    try {
      return new WordFinder({ ...search, unit: 'paragraph' }, this.words.vocabulary, language, lists);
    } catch (error) {
      if (error instanceof ExpressionError) return null;
      throw error;
    }
  }

  indexOf(text: Text): IndexedText {
    return this.words.of(text);
  }
}
