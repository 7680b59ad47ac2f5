import type { Id } from '../../model/ids';

/** A code as some file or list names it, before it is held against the codebook. */
export interface ListedCode {
  /** Names from the top of the list down to the code itself. */
  readonly path: readonly string[];
  /** The file's own id of it, where it gives one. */
  readonly guid: Id | null;
  readonly definition: string;
  readonly useWhen: string;
  readonly doNotUseWhen: string;
  readonly example: string;
  readonly notes: string;
  /** One to three characters; null where the file names none. */
  readonly mark: string | null;
  /** `#RRGGBB`; null where the file names none. */
  readonly colour: string | null;
  /** Whether the code is kept but no longer offered; null where the file does not say. */
  readonly retired: boolean | null;
  /** Line, row or number in the file, from 1, for messages. */
  readonly row: number;
}

/** A set of codes as a file names it. */
export interface ListedSet {
  readonly name: string;
  readonly guids: readonly Id[];
}

/** What a file or list says of a codebook. */
export interface ListedCodebook {
  readonly codes: readonly ListedCode[];
  readonly sets: readonly ListedSet[];
  /** What must be mended in the file first: nothing of it is taken over while there is any. */
  readonly faults: readonly string[];
  /** What was passed over or read in a way the researcher should know. */
  readonly notes: readonly string[];
}

/** A codebook with more codes than this is taken for a mistake. */
export const MOST_CODES = 20_000;

/** The file holds too many codes to be a codebook, or null. */
export const tooMany = (count: number): string | null =>
  count > MOST_CODES
    ? `There are ${count.toLocaleString('en')} codes in it; a codebook has room for ${MOST_CODES.toLocaleString('en')}. Is it a table of something else? Leave out what is not wanted and try again.`
    : null;

/** An empty description, for readers that know only names. */
export const UNDESCRIBED = {
  guid: null,
  definition: '',
  useWhen: '',
  doNotUseWhen: '',
  example: '',
  notes: '',
  mark: null,
  colour: null,
  retired: null,
} as const;

/**
 * Faults every source can have: two codes of one name in one place, a name that is missing or too long.
 * @param word what a row of the source is called
 */
export function faultsOf(codes: readonly ListedCode[], word: string): string[] {
  const faults: string[] = [];
  const many = tooMany(codes.length);
  if (many) return [many];
  const seen = new Map<string, number>();
  for (const code of codes) {
    const name = code.path.at(-1) ?? '';
    if (!name) faults.push(`The code in ${word} ${code.row} has no name.`);
    if (name.length > 500) faults.push(`The name in ${word} ${code.row} is longer than 500 characters.`);
    const key = code.path.map((part) => part.toLowerCase()).join('\u0000');
    const first = seen.get(key);
    if (first !== undefined)
      faults.push(
        `“${code.path.join(' / ')}” is there twice, in ${word} ${first} and ${word} ${code.row}. Give one of them another name or take it out.`,
      );
    else seen.set(key, code.row);
  }
  return faults;
}
