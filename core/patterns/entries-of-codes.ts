/** In place of an entry: a code that is in none, and one that is in several. */
export const [NO_ENTRY, SEVERAL] = [-1, -2];

/** Which entries of an axis the codes of a document belong to, by the codes' local numbers. */
export interface EntriesOfCodes {
  /** The entry of each code that is in just one, which is most of them; else {@link NO_ENTRY} or {@link SEVERAL}. */
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

/** The entries of the codes of a document, out of those of all codes by their numbers. */
export class EntriesByNumber implements EntriesOfCodes {
  readonly single: Int32Array;
  readonly several: boolean;

  constructor(
    private readonly all: EntriesOfCodes,
    private readonly numbers: Int32Array,
  ) {
    this.several = all.several;
    this.single = new Int32Array(numbers.length);
    for (let code = 0; code < numbers.length; code++) this.single[code] = all.single[numbers[code]!] ?? NO_ENTRY;
  }

  lists(): ListsOfEntries {
    const lists = this.all.lists();
    return Array.from(this.numbers, (number) => lists[number]);
  }
}
