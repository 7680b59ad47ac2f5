/** A word as it was typed: `*` stands for any letters, `?` for one. */
export type TypedWord = string;

/** What is looked for: phrases, and how they go together. */
export type WordExpression =
  | { readonly phrase: readonly TypedWord[] }
  | { readonly near: readonly [WordExpression, WordExpression]; readonly within: number }
  | { readonly all: readonly WordExpression[] }
  | { readonly any: readonly WordExpression[] }
  | { readonly not: WordExpression };

/** What was typed cannot be read. The message says what is wrong and what to do. */
export class ExpressionError extends Error {
  constructor(
    message: string,
    /** Where, in characters of what was typed. */
    readonly at: number,
  ) {
    super(message);
    this.name = 'ExpressionError';
  }
}

interface Sign {
  readonly kind: 'word' | 'phrase' | 'list' | 'open' | 'close' | 'and' | 'or' | 'not' | 'within';
  readonly text: string;
  readonly at: number;
  readonly number?: number;
}

/** Parentheses within each other. */
const DEEPEST = 50;

/** The words of a list by its name; undefined where there is no such list. */
export type WordListsByName = (name: string) => readonly string[] | undefined;

/**
 * Reads what is typed to look for words: `boat and (night or "last boat") not queue`, `help within 5 words of late`.
 * Words beside each other are all wanted, as with `and`; words in quotation marks follow each other; `[a name]` is any word
 * of the list that is called so. `and`, `or`,
 * `not` and `within` are looked for as words where they stand in quotation marks.
 * @throws ExpressionError
 */
export function readExpression(typed: string, lists: WordListsByName = () => undefined): WordExpression | null {
  const signs = signsIn(typed);
  if (signs.length === 0) return null;
  const reader = new Reader(signs, typed.length, lists);
  return reader.whole();
}

function signsIn(typed: string): Sign[] {
  const signs: Sign[] = [];
  const pattern =
    /\s+|"([^"]*)("|$)|[“”„«»]([^“”„«»]*)([“”„«»]|$)|\[([^\]]*)(\]|$)|\(|\)|within\s+(\d+)\s+(?:words?\s+)?of\b|[^\s()["“”„«»]+/giu;
  for (const match of typed.matchAll(pattern)) {
    const [text, straight, straightEnd, curly, curlyEnd, list, listEnd, distance] = match;
    const at = match.index;
    if (!text.trim()) continue;
    if (straight !== undefined || curly !== undefined) {
      if (!(straightEnd ?? curlyEnd)) throw new ExpressionError('A quotation mark is not closed.', at);
      signs.push({ kind: 'phrase', text: straight ?? curly ?? '', at });
    } else if (list !== undefined) {
      if (!listEnd) throw new ExpressionError('A bracket is not closed.', at);
      signs.push({ kind: 'list', text: list, at });
    } else if (distance !== undefined) signs.push({ kind: 'within', text, at, number: Number(distance) });
    else if (text === '(' || text === ')') signs.push({ kind: text === '(' ? 'open' : 'close', text, at });
    else {
      const lower = text.toLowerCase();
      signs.push({ kind: lower === 'and' || lower === 'or' || lower === 'not' ? lower : 'word', text, at });
    }
  }
  return signs;
}

class Reader {
  private next = 0;
  private depth = 0;

  constructor(
    private readonly signs: readonly Sign[],
    private readonly length: number,
    private readonly lists: WordListsByName,
  ) {}

  whole(): WordExpression {
    const expression = this.either();
    const left = this.signs[this.next];
    if (left)
      throw new ExpressionError(
        left.kind === 'close' ? 'A parenthesis is closed that was not opened.' : `“${left.text}” stands where a word should.`,
        left.at,
      );
    return expression;
  }

  /** `a or b` binds least. */
  private either(): WordExpression {
    const some = [this.both()];
    while (this.take('or')) some.push(this.both());
    return some.length === 1 ? some[0]! : { any: some };
  }

  private both(): WordExpression {
    const some = [this.beside()];
    for (;;) {
      if (this.take('and')) some.push(this.beside());
      else if (this.startsPart()) some.push(this.beside());
      else return some.length === 1 ? some[0]! : { all: some };
    }
  }

  private beside(): WordExpression {
    let one = this.single();
    for (let within = this.take('within'); within; within = this.take('within')) {
      const other = this.single();
      for (const part of [one, other])
        if ('not' in part || 'all' in part)
          throw new ExpressionError('“within … of” stands between words, phrases, or words with “or” between them.', within.at);
      one = { near: [one, other], within: within.number! };
    }
    return one;
  }

  private single(): WordExpression {
    const sign = this.signs[this.next++];
    if (!sign) throw new ExpressionError('A word is missing at the end.', this.length);
    switch (sign.kind) {
      case 'not':
        return { not: this.single() };
      case 'open': {
        if (++this.depth > DEEPEST) throw new ExpressionError('Parentheses lie too deep within each other.', sign.at);
        const inner = this.either();
        if (!this.take('close')) throw new ExpressionError('A parenthesis is not closed.', sign.at);
        this.depth--;
        return inner;
      }
      case 'word':
      case 'phrase': {
        const words = sign.text.split(/\s+/u).filter(Boolean);
        if (words.length === 0) throw new ExpressionError('There is nothing between the quotation marks.', sign.at);
        return { phrase: words };
      }
      case 'list': {
        const words = this.lists(sign.text.trim());
        if (!words)
          throw new ExpressionError(
            `There is no word list “${sign.text.trim()}”. To look for the word itself, leave the brackets out.`,
            sign.at,
          );
        return { any: words.map((line) => ({ phrase: line.split(/\s+/u).filter(Boolean) })) };
      }
      default:
        throw new ExpressionError(`“${sign.text}” stands where a word should. To look for it, put it in quotation marks.`, sign.at);
    }
  }

  private take(kind: Sign['kind']): Sign | null {
    const sign = this.signs[this.next];
    if (sign?.kind !== kind) return null;
    this.next++;
    return sign;
  }

  private startsPart(): boolean {
    const kind = this.signs[this.next]?.kind;
    return kind === 'word' || kind === 'phrase' || kind === 'list' || kind === 'open' || kind === 'not';
  }
}

/** Word lists by their names, whatever the capitals. */
export function listsByName(lists: Iterable<{ readonly name: string; readonly words: readonly string[] }>): WordListsByName {
  const byName = new Map([...lists].map(({ name, words }) => [name.toLocaleLowerCase(), words]));
  return (name) => byName.get(name.toLocaleLowerCase());
}

/** What was typed, with a word list under another name. */
export const listsRenamed = (typed: string, before: string, after: string): string =>
  typed.replace(/\[([^\]]*)\]/gu, (whole, name: string) =>
    name.trim().toLocaleLowerCase() === before.toLocaleLowerCase() ? `[${after}]` : whole,
  );
