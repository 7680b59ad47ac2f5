/** What a character is to a word. */
const NONE = 1;
/** Apostrophes and hyphens: within a word, not at its ends. */
const JOINER = 2;
const LETTER = 3;
/** Of a script that writes no spaces between words: each character is found by itself. */
const ALONE = 4;

const JOINERS = /['’\-‐‑]/u;
const WITHOUT_SPACES =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;
const IN_WORDS = /[\p{L}\p{M}\p{N}]/u;

/** By UTF-16 code unit, 0 where it was not met yet; half of a pair is looked up whole. */
const kinds = new Uint8Array(0x10000);

function kindOf(character: string): number {
  if (JOINERS.test(character)) return JOINER;
  if (!IN_WORDS.test(character)) return NONE;
  return WITHOUT_SPACES.test(character) ? ALONE : LETTER;
}

/**
 * Tells where the words of a stretch of text are: letters, marks and digits with the apostrophes and hyphens between
 * them. In scripts without spaces each character is told by itself, so that a word of several is found as a phrase.
 * @param tell given the start and the end of each, ascending
 */
export function eachWord(text: string, from: number, to: number, tell: (start: number, end: number) => void): void {
  let start = -1;
  let end = -1;
  for (let at = from; at < to;) {
    const unit = text.charCodeAt(at);
    const pair = unit >= 0xd800 && unit < 0xdc00 && at + 1 < to;
    let kind: number;
    if (pair) kind = kindOf(text.slice(at, at + 2));
    else {
      kind = kinds[unit]!;
      if (kind === 0) kinds[unit] = kind = kindOf(text[at]!);
    }
    const next = at + (pair ? 2 : 1);
    if (kind === LETTER) {
      if (start < 0) start = at;
      end = next;
    } else if (kind !== JOINER && start >= 0) {
      tell(start, end);
      start = -1;
    }
    if (kind === ALONE) tell(at, next);
    at = next;
  }
  if (start >= 0) tell(start, end);
}
