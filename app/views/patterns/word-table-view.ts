import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import type { GroupsAsked, WordsAsked, WordTableAsked } from '@core/model/pattern';
import type { Question } from '@core/model/query';
import { absentCells } from '@core/patterns/absence';
import { nameOf } from '@core/patterns/axis';
import { searchOf, wordCellQuestion } from '@core/patterns/cell-question';
import { shownNumber } from '@core/patterns/normalise';
import type { WordRow } from '@core/patterns/word-table';
import { counted } from '@core/text/counted';
import { naturalOrder } from '@core/text/natural-order';
import { listsByName, readExpression } from '@core/words/expression';
import { selectData, selectScope, selectStudy } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { ChosenOf } from '../../ui/sentence/chosen-of';
import { choicesOf, SentencePart } from '../../ui/sentence/sentence-part';
import { AnalysisService } from '../../workers/analysis-service';
import { tableDrawing } from './drawing/table-drawing';
import { GroupsPart } from './groups-part';
import { NumberTable, type CellAt, type TableCell } from './number-table';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import { shadeOf } from './shades';
import { ALL_KEY, cellAt, keyOfHead, SortedLines } from './sorted-lines';
import { groupSheet, sizeWords } from './group-words';
import { headOf, type TableHead } from './table-head';
import type { TableOut } from './take-out';
import { FORMS_COUNT, WORD_FORMS, wordFormOf, wordsShownAs } from './word-forms';
import { WordHitsSide, type WordsBehind } from './word-hits-side';
import { workedOut } from './worked-out';

/** A cell: the words of its row, and the key of its group; null for all. */
interface WordCell {
  readonly row: WordRow;
  readonly column: string | null;
}

const NO_TABLE: WordTableAsked = { typed: [], wordListIds: [], groups: { by: 'document' }, as: 'as they are' };
/** Lines that can be typed. */
const MOST = 500;

/** Words and word lists in groups of the material: how often each stands there, and where. */
@Component({
  selector: 'fl-word-table',
  imports: [ChosenOf, GroupsPart, NumberTable, PatternPlace, SentencePart, WordHitsSide],
  templateUrl: './word-table-view.html',
  styleUrl: './pattern.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WordTableView {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(PatternDraft);
  private readonly ask = inject(Ask);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scope = this.store.selectSignal(selectScope);
  protected readonly asked = this.draft.of('words');
  protected readonly table = computed(() => this.asked().table ?? NO_TABLE);
  protected readonly forms = WORD_FORMS;
  protected readonly formWords = computed(() => wordFormOf(this.asked()));
  protected readonly formsCount = FORMS_COUNT;
  protected readonly ways = choicesOf(['as they are', 'per 1,000 words'] as const);
  /** What is counted: how it is shown makes no other count. */
  private readonly counting = computed(() => ({ ...this.asked(), table: { ...this.table(), as: 'as they are' as const } }));
  protected readonly work = workedOut(this.counting, (data, asked, at) => this.analysis.wordTable(data, asked, at));
  private readonly openCell = this.draft.opened<WordCell>('words');
  protected readonly evidence = workedOut(
    computed(() => {
      const open = this.openCell();
      return open ? { open, asked: this.counting() } : undefined;
    }),
    async (data, { open, asked }, at) => {
      const hits = await this.analysis.wordCell(data, asked, open.row, open.column, at);
      return hits && { open, hits };
    },
  );
  protected readonly lists = computed(() =>
    naturalOrder(
      Object.values(this.data()?.tables.wordList ?? {}).map(({ id, name }) => ({ id, name })),
      ({ name }) => name,
    ),
  );
  private readonly absences = computed(() => Object.keys(this.data()?.tables.absence ?? {}).length > 0);
  protected readonly rowWords = computed(() => {
    const { typed, wordListIds } = this.table();
    if (typed.length > 0) return counted(typed.length, 'word or phrase', 'words or phrases');
    return wordListIds.length > 0 ? 'no other words' : 'the most frequent words';
  });
  protected readonly said = computed(() => {
    const troubles = this.work.shown()?.troubles ?? [];
    return [
      `Counts places in the texts, coded or not; a dash: not found${this.absences() ? '; ∅: expected, not found' : ''}.`,
      this.table().as === 'per 1,000 words' ? 'Each is divided by the words of its group.' : '',
      this.asked().forms ? 'Forms are one by their Snowball stem.' : '',
      troubles.length > 0 ? `Not looked for: ${troubles.slice(0, 3).join(' ')}${troubles.length > 3 ? ' …' : ''}` : '',
    ]
      .filter(Boolean)
      .join(' ');
  });
  private readonly heads = computed(() => {
    const work = this.work.shown();
    return {
      rows: (work?.rows ?? []).map(({ entry }) => headOf(entry, {})),
      columns: (work?.columns ?? []).map((entry, at) => ({ ...headOf(entry, {}), note: sizeWords(work!.sizes[at]!, null) })),
    };
  });
  private readonly valueAt = computed(() => {
    const [work, { as }] = [this.work.shown(), this.table()];
    return (row: number, column: number): number | null => {
      if (!work) return null;
      const count = work.counts[row * (work.columns.length + 1) + column] ?? 0;
      if (as === 'as they are') return count;
      const { words } = work.sizes[column]!;
      return words ? (count / words) * 1_000 : null;
    };
  });
  protected readonly lines = new SortedLines(this.heads, this.valueAt);
  protected readonly rowHeads = computed((): TableHead[] => this.lines.rows().map((at) => this.heads().rows[at]!));
  protected readonly columnHeads = computed((): TableHead[] => {
    const work = this.work.shown();
    const all = { key: ALL_KEY, name: 'all', note: work ? sizeWords(work.sizes[work.columns.length]!, null) : '' };
    return [...this.lines.columns().map((at) => this.heads().columns[at]!), all];
  });
  protected readonly cellOf = computed(() => {
    const [work, rows, columns] = [this.work.shown(), this.lines.rows(), this.lines.columns()];
    const [valueAt, largest, { as }, isAbsent] = [this.valueAt(), this.lines.largest(), this.table(), this.isAbsent()];
    return (row: number, column: number): TableCell => {
      const [r, c] = [rows[row]!, columns[column] ?? columns.length];
      const [value, count] = [valueAt(r, c), work?.counts[r * (columns.length + 1) + c] ?? 0];
      const apart = column === columns.length;
      const absent = count === 0 && !apart && work !== null && isAbsent({ row: work.rows[r]!, column: work.columns[c]!.key }) !== null;
      return {
        words: value === null ? '·' : shownNumber(value, undefined, as !== 'as they are'),
        shade: apart ? null : shadeOf(value, largest),
        empty: count === 0,
        ...(as !== 'as they are' && { note: counted(count, 'place') }),
        ...(apart && { apart }),
        ...(absent && { absent }),
      };
    };
  });
  /** What a cell asks, by which it is marked where nothing is found. */
  private readonly questionOf = computed(() => {
    const [data, { groups }, { forms }] = [this.data(), this.table(), this.asked()];
    return (row: WordRow, column: string | null): Question | null =>
      data && wordCellQuestion(data, searchOf(row.typed, forms), groups, column);
  });
  /** What is marked as expected and not found. */
  private readonly isAbsent = computed(() => {
    const questionOf = this.questionOf();
    const absences = Object.values(this.data()?.tables.absence ?? {});
    return absentCells(absences, this.scope(), ({ row, column }: WordCell) => questionOf(row, column));
  });
  protected readonly openAt = computed((): CellAt | null => {
    const open = this.openCell();
    return open && cellAt(this.rowHeads(), this.columnHeads(), { row: open.row.entry.key, column: open.column });
  });
  protected readonly behind = computed((): WordsBehind | null => {
    const [found, work] = [this.evidence.shown(), this.work.shown()];
    if (!this.openCell() || !found || !work) return null;
    const { row, column } = found.open;
    const group = column === null ? null : work.columns.find((one) => one.key === column);
    const place = column === null ? 'anywhere in scope' : `in ${group ? nameOf(group) : 'what is gone'}`;
    return {
      title: nameOf(row.entry),
      where: `${place} · ${counted(found.hits.length, 'place')}`,
      place,
      question: this.questionOf()(row, column),
      hits: found.hits,
      typed: row.typed,
      forms: this.asked().forms,
    };
  });
  protected readonly out = computed((): TableOut | null => {
    const work = this.work.shown();
    if (!work) return null;
    const { as } = this.table();
    const sheet = (name: string, valueAt: (row: number, column: number) => number | null) => {
      const columns = [...work.columns.keys(), work.columns.length];
      return {
        name,
        rows: [
          ['', ...work.columns.map(nameOf), 'all'],
          ...work.rows.map(({ entry }, row) => [nameOf(entry), ...columns.map((column) => valueAt(row, column) ?? '')]),
        ],
      };
    };
    return {
      name: 'Words by groups',
      sheets: () => [
        ...(as === 'as they are' ? [] : [sheet('Shown', this.valueAt())]),
        sheet('Counted', (row, column) => work.counts[row * (work.columns.length + 1) + column]!),
        groupSheet(work.columns, work.sizes, null),
      ],
      said: this.said(),
      drawing: tableDrawing(this.rowHeads(), this.columnHeads(), this.cellOf()),
    };
  });

  protected setForm(shown: NonNullable<WordsAsked['shown']>): void {
    this.draft.set(wordsShownAs(this.asked(), shown));
  }

  protected setForms(forms: boolean): void {
    this.draft.set({ ...this.asked(), forms });
  }

  protected set(change: Partial<WordTableAsked>): void {
    this.draft.set({ ...this.asked(), table: { ...this.table(), ...change } });
  }

  protected setGroups(groups: GroupsAsked): void {
    this.close();
    this.set({ groups });
  }

  /** Asks for the words of the rows. */
  protected async editRows(): Promise<void> {
    const lists = listsByName(Object.values(this.data()?.tables.wordList ?? {}));
    let typed: readonly string[] = [];
    const reply = await this.ask.reply({
      title: 'Words of the table',
      lines: [
        'Each line is a row, written as where words are looked for: words, “a phrase”, wait* for its beginnings, boat or ferry.',
        'With no line and no word list, the most frequent words are the rows.',
      ],
      label: 'Words, one row in a line',
      text: this.table().typed.join('\n'),
      long: { what: 'words of a table', of: this.study()?.id ?? '' },
      yes: 'Count these',
      tries: (raw) => {
        typed = [...new Set(raw.split('\n').flatMap((line) => line.trim() || []))];
        if (typed.length > MOST) return `At most ${MOST} lines.`;
        for (const line of typed) {
          if (line.length > 500) return `“${line.slice(0, 40)}…” is longer than 500 characters.`;
          try {
            readExpression(line, lists);
          } catch (error) {
            return `“${line.slice(0, 60)}”: ${(error as Error).message}`;
          }
        }
        return null;
      },
    });
    if (reply !== null) this.set({ typed: [...typed] });
  }

  protected open({ row, column }: CellAt): void {
    const [work, at] = [this.work.shown(), this.lines.rows()[row]];
    const head = this.columnHeads()[column];
    if (!work || at === undefined || !head) return;
    this.openCell.set({ row: work.rows[at]!, column: keyOfHead(head) });
  }

  protected close(): void {
    this.openCell.set(null);
  }
}
