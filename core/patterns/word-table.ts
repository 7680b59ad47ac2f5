import type { Document, Text } from '../model/document';
import { hasText } from '../model/document';
import type { WordTableAsked } from '../model/pattern';
import type { StudyState } from '../model/study-state';
import type { AskedStudy } from '../queries/asked-study';
import type { Narrowing } from '../queries/narrowing';
import { quoted } from '../text/quoted';
import { ExpressionError, listsByName } from '../words/expression';
import { WordFinder, type WordHit } from '../words/find-words';
import type { IndexedWords } from '../words/vocabulary';
import { entryFor, isWhole, placeOf, type Entry, type GroupAxis } from './axis';
import { GroupSizes, type GroupSize } from './group-sizes';
import { searchOf } from './cell-question';
import { narrowed, shownGroups } from './table-cells';

/** Words that are looked for, as a row. */
export interface WordRow {
  readonly entry: Entry;
  readonly typed: string;
}

/** How often words stand in each group of the material. */
export interface WordTable {
  readonly rows: readonly WordRow[];
  readonly columns: readonly Entry[];
  /** Row by row, `(columns + 1)` each: the last holds what is anywhere in scope, in a column or not. */
  readonly counts: Float64Array;
  /** By column, and of all in scope at the end. */
  readonly sizes: readonly GroupSize[];
  /** Rows that cannot be looked for, and why. */
  readonly troubles: readonly string[];
}

/** The rows of a table: the word lists that are chosen, what is typed, and, with neither, the words that are given. */
export function wordRows(
  { typed, wordListIds }: WordTableAsked,
  { wordList }: StudyState['tables'],
  frequent: readonly string[],
): WordRow[] {
  const lists = wordListIds.flatMap((id) => wordList[id] ?? []);
  if (typed.length + lists.length === 0) return frequent.map((words) => rowOf(words, `"${words}"`));
  return [
    ...lists.map(({ id, name }) => ({ entry: entryFor(id, name), typed: `[${name}]` })),
    ...typed.map((words) => rowOf(words, words)),
  ];
}

const rowOf = (words: string, typed: string): WordRow => ({ entry: { key: `=${words}`, path: [words] }, typed });

/** Counts hits, not texts: each place where the words of a row stand, as a search finds it, in the group of its first word. */
export class WordTableCounter {
  private readonly rows: readonly { readonly row: WordRow; readonly finder: WordFinder }[];
  private readonly troubles: string[] = [];
  private readonly counts: Float64Array;
  private readonly sizes: GroupSizes;
  private readonly width: number;

  /** @param forms forms of a word count as one */
  constructor(
    rows: readonly WordRow[],
    private readonly groups: GroupAxis,
    study: AskedStudy,
    private readonly narrowing: Narrowing,
    private readonly words: IndexedWords,
    forms: boolean,
  ) {
    const lists = listsByName(Object.values(study.tables.wordList));
    this.rows = rows.flatMap((row) => {
      const { entry, typed } = row;
      try {
        return [{ row, finder: new WordFinder(searchOf(typed, forms), words.vocabulary, study.language, lists) }];
      } catch (error) {
        if (!(error instanceof ExpressionError)) throw error;
        this.troubles.push(`${quoted(entry.path.join(' '))}: ${error.message}`);
        return [];
      }
    });
    this.width = groups.entries.length + 1;
    this.counts = new Float64Array(this.rows.length * this.width);
    this.sizes = new GroupSizes(groups, study, narrowing);
  }

  add(document: Document, text: Text | null): void {
    this.sizes.add(document, text);
    if (!text || !hasText(document)) return;
    const groupsOf = this.groupsIn(document, text);
    this.rows.forEach(({ finder }, row) => {
      for (const hit of this.hitsOf(finder, document, text)) {
        for (const group of groupsOf(hit)) this.counts[row * this.width + group]!++;
        this.counts[(row + 1) * this.width - 1]!++;
      }
    });
  }

  /** Without the groups for what is in no other, where none of the words stand in them. */
  result(): WordTable {
    const { entries } = this.groups;
    const lines = [...this.rows.keys()];
    const kept = shownGroups(entries, (column) => lines.some((row) => this.counts[row * this.width + column]! > 0));
    const columns = [...kept, entries.length];
    const sizes = this.sizes.result();
    return {
      rows: this.rows.map(({ row }) => row),
      columns: kept.map((column) => entries[column]!),
      counts: narrowed(this.counts, this.width, lines, columns),
      sizes: columns.map((column) => sizes[column]!),
      troubles: this.troubles,
    };
  }

  /** The hits of a document that a cell of the first row counts. @param column key of a group; null for all of them */
  hitsIn(document: Document, text: Text, column: string | null): WordHit[] {
    const finder = this.rows[0]?.finder;
    if (!finder) return [];
    const { entries } = this.groups;
    const at = placeOf(entries, column);
    const groupsOf = this.groupsIn(document, text);
    return this.hitsOf(finder, document, text).filter((hit) => at === entries.length || groupsOf(hit).includes(at));
  }

  private hitsOf(finder: WordFinder, document: Document, text: Text): WordHit[] {
    const hits = finder.in(text, this.words.of(text));
    if (hits.length === 0) return hits;
    const keeps = this.narrowing.keeps(document, text, hits);
    return hits.filter((_, at) => keeps(at));
  }

  private groupsIn(document: Document, text: Text): (hit: WordHit) => readonly number[] {
    const groups = this.groups.of({ document, spoken: text });
    return (hit) => (isWhole(groups) ? groups : groups.at(hit.words[0] ?? hit));
  }
}
