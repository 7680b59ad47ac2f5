/**
 * Names of a way through the codebook as one text, from the top, with ` / ` between them. A slash that stands by itself
 * within a name gets a backslash in front, so that {@link splitPath} finds the same names again.
 * @example joinPath(['Money', 'Fare / tips']) // → 'Money / Fare \/ tips'
 */
export const joinPath = (names: readonly string[]): string => names.map((name) => name.replace(ALONE, '$1\\$2/')).join(' / ');

/** The names of a path, from the top; empty ones are passed over. */
export const splitPath = (path: string): string[] =>
  path
    .split(/\s+\/(?:\s+|$)|^\/\s+/u)
    .map((name) => name.replace(ESCAPED, '$1$2/').trim())
    .filter(Boolean);

/** A slash with nothing but blanks or backslashes beside it. */
const ALONE = /(^|\s)(\\*)\/(?=\s|$)/gu;
const ESCAPED = /(^|\s)\\(\\*)\/(?=\s|$)/gu;
