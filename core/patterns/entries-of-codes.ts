/** In place of an entry: a code that is in none, and one that is in several. */
export const [NO_ENTRY, SEVERAL] = [-1, -2];

/** Which entries of an axis the codes of a document belong to, by the codes' local numbers. */
export interface EntriesOfCodes {
  /** The entry of each code that is in just one, which is most of them; else {@link NO_ENTRY} or {@link SEVERAL}. Can be longer. */
  readonly single: Int32Array;
  /** Whether any of the axis' codes is in several entries. */
  readonly several: boolean;
  /** All entries of each code, made when it is asked for. */
  lists(): ListsOfEntries;
}

export type ListsOfEntries = readonly (readonly number[] | undefined)[];

/** The entries of codes, from all of each. */
export function entriesFrom(lists: ListsOfEntries): EntriesOfCodes {
  const single = new Int32Array(lists.length);
  for (let code = 0; code < lists.length; code++) {
    const list = lists[code];
    single[code] = list === undefined || list.length === 0 ? NO_ENTRY : list.length === 1 ? list[0]! : SEVERAL;
  }
  return { single, several: single.includes(SEVERAL), lists: () => lists };
}

/**
 * The entries of the codes of a document, out of those of all codes by their numbers. One of these serves a document after
 * the other, since each of a thousand would have a few hundred codes of its own: what it says holds until the next is
 * looked at.
 */
export class EntriesByNumber implements EntriesOfCodes {
  readonly several: boolean;
  single: Int32Array = new Int32Array(256);
  private numbers: Int32Array = new Int32Array();
  private listed: ListsOfEntries | null = null;

  constructor(private readonly all: EntriesOfCodes) {
    this.several = all.several;
  }

  /** @param numbers of the document's codes, in their order */
  of(numbers: Int32Array): this {
    // a document is asked for several times, one after the other
    if (numbers === this.numbers) return this;
    this.numbers = numbers;
    this.listed = null;
    if (this.single.length < numbers.length) this.single = new Int32Array(2 * numbers.length);
    const { single, all } = this;
    for (let code = 0; code < numbers.length; code++) single[code] = all.single[numbers[code]!] ?? NO_ENTRY;
    return this;
  }

  lists(): ListsOfEntries {
    const lists = this.all.lists();
    return (this.listed ??= Array.from(this.numbers, (number) => lists[number]));
  }
}
