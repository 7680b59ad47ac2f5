import type { Text } from '../model/document';
import type { WordSearch } from '../model/word-search';
import { ExpressionError } from './expression';
import { hitOf, hitUnitsIn, type WordHit } from './find-words';

/**
 * A regular expression (ECMAScript, with `u`) made ready to look through one text after another. It is held against each
 * paragraph by itself, without the label of who speaks; `^` and `$` are where a paragraph begins and ends. Some
 * expressions take longer than anybody waits: this is to be run where it can be ended.
 */
export class PatternFinder {
  private readonly expression: RegExp;

  /**
   * @param language BCP 47 tag of the study, for sentences
   * @throws ExpressionError where what was typed is no regular expression
   */
  constructor(
    private readonly search: WordSearch,
    private readonly language: string,
  ) {
    if (!search.typed) throw new ExpressionError('Write a regular expression.', 0);
    try {
      this.expression = new RegExp(search.typed, search.capitals ? 'gu' : 'giu');
    } catch (error) {
      const reason = (error as Error).message.replace(/^Invalid regular expression: /, '').replace(/^\/.*\/[a-z]*: /s, '');
      throw new ExpressionError(`This is no regular expression: ${reason}.`, 0);
    }
  }

  /** Places in a text, ascending. What matches without a character is no place. */
  in(text: Text): WordHit[] {
    const words = text.paragraphs.flatMap(({ body, end }) =>
      [...text.text.slice(body, end).matchAll(this.expression)].flatMap(({ index, 0: found }) =>
        found ? [{ start: body + index, end: body + index + found.length }] : [],
      ),
    );
    const { unit } = this.search;
    if (words.length === 0 || unit === 'words') return words.map(hitOf);
    let at = 0;
    return hitUnitsIn(text, unit, this.language, null).flatMap((place) => {
      while (at < words.length && words[at]!.start < place.start) at++;
      const from = at;
      while (at < words.length && words[at]!.end <= place.end) at++;
      return at > from ? [{ ...place, words: words.slice(from, at) }] : [];
    });
  }
}
