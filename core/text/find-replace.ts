import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import type { TextEdit } from './edit';

/** What is looked for. */
export interface Sought {
  readonly words: string;
  readonly matchCase: boolean;
  readonly wholeWords: boolean;
}

/** A place where the words stand. */
export interface TextHit {
  readonly documentId: Id;
  readonly start: number;
  readonly end: number;
}

const LETTER = String.raw`[\p{L}\p{M}\p{N}_]`;

/**
 * The source of a pattern that matches these characters as they are, whichever they are. For patterns under the Unicode
 * flag, which refuses to escape a character that needs none: a hyphen, for instance.
 */
export const literally = (words: string): string => words.replace(/[.*+?^${}()|[\]\\/]/g, String.raw`\$&`);

/** A pattern where it stands as whole words: no letter, digit or underline beside it. */
export const asWholeWords = (pattern: string): string => `(?<!${LETTER})(?:${pattern})(?!${LETTER})`;

/** The pattern of the words: white space between them may be of any length within the line. Null for nothing sought. */
export function patternOf({ words, matchCase, wholeWords }: Sought): RegExp | null {
  const parts = words.normalize('NFC').trim().split(/\s+/).filter(Boolean);
  if (parts.length === 0) return null;
  const source = parts.map(literally).join(String.raw`[ \t\u00a0]+`);
  return new RegExp(wholeWords ? asWholeWords(source) : source, matchCase ? 'gu' : 'giu');
}

/** Finds the words in texts, document by document, ascending. @param limit stops after as many hits */
export function findInTexts(texts: Iterable<Text>, sought: Sought, limit = Infinity): TextHit[] {
  const pattern = patternOf(sought);
  const hits: TextHit[] = [];
  if (!pattern) return hits;
  for (const { id, text } of texts) {
    for (const match of text.matchAll(pattern)) {
      if (hits.length >= limit) return hits;
      hits.push({ documentId: id, start: match.index, end: match.index + match[0].length });
    }
  }
  return hits;
}

/** The edits that put other words in the place of hits in one text. */
export const replaceHits = (hits: readonly TextHit[], replacement: string): TextEdit[] =>
  hits.map(({ start, end }) => ({ from: start, to: end, insert: replacement }));
