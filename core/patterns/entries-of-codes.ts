/** In place of an entry: a code that is in none, and one that is in several. */
export const [NO_ENTRY, SEVERAL] = [-1, -2];

/**
 * Which entries of an axis the codes of a document belong to. What is said of codes lies by the number of each, and
 * {@link numbers} says those of the document's own, so that nothing is laid out anew for each of a thousand documents.
 */
export interface EntriesOfCodes {
  /** The numbers of the document's codes, by their place in its list. */
  readonly numbers: Int32Array;
  /** By number, the entry of a code that is in just one, which is most of them; else {@link NO_ENTRY} or {@link SEVERAL}. */
  readonly single: Int32Array;
  /** By number, all entries of each code. */
  readonly lists: ListsOfEntries;
}

export type ListsOfEntries = readonly (readonly number[] | undefined)[];

/** What an axis says of codes by their numbers, for one document after the other. */
export class EntriesByNumber {
  private single: Int32Array;

  constructor(private readonly lists: ListsOfEntries) {
    this.single = Int32Array.from(lists, (list) =>
      list === undefined || list.length === 0 ? NO_ENTRY : list.length === 1 ? list[0]! : SEVERAL,
    );
  }

  /**
   * @param numbers of the document's codes, in their order
   * @param given how many numbers have been given: codes that are newer than the axis are in no entry
   */
  of(numbers: Int32Array, given: number): EntriesOfCodes {
    if (this.single.length < given) {
      const longer = new Int32Array(2 * given).fill(NO_ENTRY);
      longer.set(this.single);
      this.single = longer;
    }
    return { numbers, single: this.single, lists: this.lists };
  }
}
