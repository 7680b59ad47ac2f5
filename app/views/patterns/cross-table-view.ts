import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { CellKeys } from '@core/analysis/table-requests';
import { COUNTED, EMPTY_SHOWN, SHOWN_AS, type CrossTableAsked } from '@core/model/pattern';
import { nameOf, placeOf, type Entry } from '@core/patterns/axis';
import { absentCells } from '@core/patterns/absence';
import { cellQuestion } from '@core/patterns/cell-question';
import type { CrossTable } from '@core/patterns/cross-table';
import { expectedWords, FEW_CASES, largestShown, shownCell, shownNumber } from '@core/patterns/normalise';
import { selectCodes, selectData, selectScope, selectStudy } from '../../state/study.selectors';
import { GroupBars, type BarAt } from '../../ui/charts/group-bars';
import { choicesOf, SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { AnalysisService } from '../../workers/analysis-service';
import { CodersPart } from './coders-part';
import { tableDrawing } from './drawing/table-drawing';
import { crossSheets } from './cross-sheets';
import { crossBars, type CrossBars, type PlacedLine } from './cross-bars';
import { evidenceWords, type Behind } from './evidence-side';
import { GroupsPart } from './groups-part';
import { NumberTable, type CellAt, type TableCell } from './number-table';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import { RowsPart } from './rows-part';
import { shadeOf } from './shades';
import { shownAs } from './shown-as';
import { workedOut } from './worked-out';
import { sizeWords } from './group-words';
import { ALL_KEY } from './sorted-lines';
import { headOf, type TableHead } from './table-head';
import type { Sheet, TableOut } from './take-out';

const SHOWN: readonly Choice<NonNullable<CrossTableAsked['shown']>>[] = [
  { value: 'table', name: 'as a table' },
  { value: 'bars', name: 'as bars in groups' },
];

/** How one line says what it counts, after “counting”. */
const SAID: Readonly<Record<CrossTableAsked['as'], string>> = {
  'as they are': '',
  'per row': 'Each is a share of its row, in percent.',
  'per column': 'Each is a share of its column, in percent.',
  'per case': 'Each is divided by all of its group, coded or not.',
  'per 1,000 words': 'Each is divided by the words of its group.',
  presence: 'A dot: found there at least once.',
  'against expected':
    'Pearson residuals: how far each is from what its row and column would lead one to expect. Passages of one document depend on each other, so take them as a hint.',
};

/** What is found, in which group of the material: every cell opens to its passages. */
@Component({
  selector: 'fl-cross-table',
  imports: [CodersPart, GroupBars, GroupsPart, NumberTable, PatternPlace, RowsPart, SentencePart],
  templateUrl: './cross-table-view.html',
  styleUrl: './pattern.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CrossTableView {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(PatternDraft);
  private readonly data = this.store.selectSignal(selectData);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly scope = this.store.selectSignal(selectScope);
  private readonly codes = this.store.selectSignal(selectCodes);
  protected readonly asked = this.draft.of('cross-table');
  protected readonly caseWord = computed(() => this.study()?.caseWord ?? 'case');
  /** What is counted: how it is shown makes no other count. */
  private readonly table = computed(() => {
    const { rows, columns, counting, coders } = this.asked();
    return { rows, columns, counting, coders };
  });
  protected readonly work = workedOut(this.table, (data, asked, at) => this.analysis.crossTable(data, asked, at));
  /** The cell that is open, by its keys. */
  private readonly openKeys = this.draft.opened<CellKeys>('cross-table');
  protected readonly evidence = workedOut(
    computed(() => {
      const keys = this.openKeys();
      return keys ? { keys, table: this.table() } : undefined;
    }),
    async (data, { keys, table }, at) => {
      const found = await this.analysis.cell(data, table, keys, at);
      return found && { keys, found };
    },
  );
  private readonly sorted = signal<{ readonly row?: string; readonly column?: string }>({});

  protected readonly countings = computed((): Choice<CrossTableAsked['counting']>[] =>
    COUNTED.map((counting) => ({ value: counting, name: counting === 'cases' ? `${this.caseWord()}s` : counting })),
  );
  protected readonly ways = computed((): Choice<CrossTableAsked['as']>[] =>
    SHOWN_AS.map((as) => ({ value: as, name: as === 'per case' ? `per ${this.caseWord()}` : as })),
  );
  protected readonly empties: readonly Choice<CrossTableAsked['empty']>[] = choicesOf(EMPTY_SHOWN).map((one) => ({
    ...one,
    name: one.value === 'all' ? 'all rows and columns' : one.value === 'without empty' ? 'without empty ones' : 'only empty ones',
  }));
  protected readonly countingWords = computed(() => this.countings().find((one) => one.value === this.asked().counting)!.name);
  protected readonly asWords = computed(() => this.ways().find((one) => one.value === this.asked().as)!.name);
  protected readonly emptyWords = computed(() => this.empties.find((one) => one.value === this.asked().empty)!.name);
  protected readonly said = computed(() => {
    const { as, counting, coders } = this.asked();
    const together =
      counting === 'passages' && coders === 'together' && this.work.shown()?.severalCoders
        ? 'What several coders marked over each other counts once.'
        : '';
    const sums = 'What is in several rows or columns counts once under “all”.';
    const absences = Object.keys(this.data()?.tables.absence ?? {}).length > 0 ? ' ∅: expected, not found.' : '';
    return [`A dash: looked for, not found.${absences}`, SAID[as], together, sums].filter(Boolean).join(' ');
  });

  /** Lines found in the rows and columns of the count, as they are shown; before the table is turned. */
  private readonly lines = computed(() => {
    const table = this.work.shown();
    if (!table) return { rows: [], columns: [] };
    const { empty } = this.asked();
    const width = table.columns.length + 1;
    const countAt = (row: number, column: number): number => table.counts[row * width + column]!;
    const isShown = (count: number): boolean => empty === 'all' || (empty === 'without empty' ? count > 0 : count === 0);
    const rows: PlacedLine[] = table.rows
      .map((entry, at) => ({ entry, at }))
      .filter(({ at }) => isShown(countAt(at, table.columns.length)));
    const columns: PlacedLine[] = table.columns
      .map((entry, at) => ({ entry, at }))
      .filter(({ at }) => isShown(countAt(table.rows.length, at)));
    const { row, column } = this.sorted();
    const sortBy = (some: PlacedLine[], value: (at: number) => number | null): PlacedLine[] =>
      some.sort((a, b) => (value(b.at) ?? -Infinity) - (value(a.at) ?? -Infinity));
    const keyOf = (head: string): string | null => (head === ALL_KEY ? null : head);
    if (column !== undefined) {
      const at = placeOf(table.columns, keyOf(column));
      if (at >= 0) sortBy(rows, (one) => this.cell(table, one, at).value ?? countAt(one, at));
    }
    if (row !== undefined) {
      const at = placeOf(table.rows, keyOf(row));
      if (at >= 0) sortBy(columns, (one) => this.cell(table, at, one).value ?? countAt(at, one));
    }
    return {
      rows: [...rows, { entry: null, at: table.rows.length }],
      columns: [...columns, { entry: null, at: table.columns.length }],
    };
  });
  private readonly largest = computed(() => {
    const table = this.work.shown();
    return table ? largestShown(table, this.asked().as) : 0;
  });
  protected readonly turned = computed(() => this.asked().turned);
  protected readonly rowHeads = computed(() => (this.turned() ? this.columnHeadsBefore() : this.rowHeadsBefore()));
  protected readonly columnHeads = computed(() => (this.turned() ? this.rowHeadsBefore() : this.columnHeadsBefore()));
  private readonly rowHeadsBefore = computed((): TableHead[] =>
    this.lines().rows.map(({ entry }) => (entry ? headOf(entry, this.codes()) : { key: ALL_KEY, name: 'all' })),
  );
  private readonly columnHeadsBefore = computed((): TableHead[] => {
    const table = this.work.shown();
    return this.lines().columns.map(({ entry, at }) => ({
      key: entry?.key ?? ALL_KEY,
      name: entry ? nameOf(entry) : 'all',
      note: table ? sizeWords(table.sizes[at]!, this.caseWord()) : '',
    }));
  });
  /** What is marked as expected and not found, by the keys of its cell. */
  private readonly absentAt = computed(() => {
    const [data, scope, { rows, columns }] = [this.data(), this.scope(), this.asked()];
    return absentCells(
      Object.values(data?.tables.absence ?? {}),
      scope,
      (keys: CellKeys) => data && cellQuestion(data, rows, columns, keys),
    );
  });
  protected readonly cellOf = computed(() => {
    const absentAt = this.absentAt();
    const [table, { rows, columns }, turned, largest, { as }] = [
      this.work.shown(),
      this.lines(),
      this.turned(),
      this.largest(),
      this.asked(),
    ];
    return (row: number, column: number): TableCell => {
      const [r, c] = turned ? [column, row] : [row, column];
      const [one, other] = [rows[r], columns[c]];
      if (!table || !one || !other) return { words: '', shade: null, empty: true };
      const apart = one.entry === null || other.entry === null;
      const { value, count, expected } = this.cell(table, one.at, other.at);
      const words = value === null ? '' : as === 'presence' ? '•' : shownNumber(this.scaled(value), undefined, as !== 'as they are');
      const absent = count === 0 && !apart && absentAt({ row: one.entry.key, column: other.entry.key }) !== null;
      const notes = [
        absent ? 'expected, not found' : '',
        as === 'as they are' ? '' : `${shownNumber(this.scaled(count))} ${this.countingWords()}`,
        expected === undefined ? '' : expectedWords(expected),
        value === null && count > 0 ? 'nothing to divide by' : '',
      ].filter(Boolean);
      return {
        words: value === null && count > 0 ? '·' : words,
        shade: apart ? null : shadeOf(value, largest),
        empty: count === 0 && as !== 'against expected',
        ...(notes.length > 0 && { note: notes.join(', ') }),
        ...(apart && { apart: true }),
        ...(absent && { absent }),
      };
    };
  });
  protected readonly shown = computed(() => this.asked().shown ?? 'table');
  protected readonly forms = SHOWN;
  protected readonly formWords = computed(() => SHOWN.find((one) => one.value === this.shown())!.name);
  protected readonly bars = computed((): CrossBars => {
    const [table, { rows, columns }, { as }] = [this.work.shown(), this.lines(), this.asked()];
    const valueAt = (row: number, column: number): number | null => {
      const [r, c] = this.turned() ? [column, row] : [row, column];
      const value = table ? this.cell(table, r, c).value : null;
      return value === null ? null : this.scaled(value);
    };
    return crossBars(this.turned() ? { rows: columns, columns: rows } : { rows, columns }, valueAt, as !== 'as they are');
  });
  protected readonly openAt = computed((): CellAt | null => {
    const keys = this.openKeys();
    if (!keys) return null;
    const { rows, columns } = this.lines();
    const row = rows.findIndex(({ entry }) => (entry?.key ?? null) === keys.row);
    const column = columns.findIndex(({ entry }) => (entry?.key ?? null) === keys.column);
    return this.turned() ? { row: column, column: row } : { row, column };
  });
  protected readonly sortedBy = computed(() => {
    const { row, column } = this.sorted();
    const [r, c] = this.turned() ? [column, row] : [row, column];
    return { ...(r !== undefined && { row: r }), ...(c !== undefined && { column: c }) };
  });
  protected readonly behind = computed((): Behind | null => {
    const [found, table, data] = [this.evidence.shown(), this.work.shown(), this.data()];
    if (!this.openKeys() || !found || !table || !data) return null;
    const { keys } = found;
    const nameOfKey = (entries: readonly Entry[], key: string | null, all: string): string =>
      key === null ? all : nameOf(entries.find((one) => one.key === key) ?? { key, path: ['gone'] });
    const place = keys.column === null ? 'anywhere in scope' : `in ${nameOfKey(table.columns, keys.column, '')}`;
    return {
      title: nameOfKey(table.rows, keys.row, 'Any of them'),
      place,
      where: `${place} · ${evidenceWords(found.found, this.caseWord())}`,
      hits: found.found.hits,
      cases: found.found.cases,
      question: cellQuestion(data, this.asked().rows, this.asked().columns, keys),
    };
  });
  protected readonly title = computed(() => {
    const { rows } = this.asked();
    return `${rows.of === 'queries' ? 'Kept queries' : rows.of === 'code sets' ? 'Sets of codes' : 'Codes'} by ${this.groupWords()}`;
  });
  /** By what the material is divided, in words. */
  private groupWords(): string {
    const { columns } = this.asked();
    if ('nested' in columns) {
      const { attribute = {} } = this.data()?.tables ?? {};
      return columns.nested.map(({ attributeId }) => attribute[attributeId]?.name ?? '').join(' and ') || 'nothing';
    }
    return columns.by === 'case' ? this.caseWord() : columns.by === 'everything' ? 'nothing' : columns.by;
  }
  /** Groups that are so small that a share or a rate says little. */
  protected readonly small = computed(() => {
    const [table, { as }] = [this.work.shown(), this.asked()];
    if (!table || as === 'as they are' || as === 'presence') return '';
    const few = table.columns.filter((_, at) => table.sizes[at]!.cases > 0 && table.sizes[at]!.cases < FEW_CASES);
    return few.length > 0 && few.length < table.columns.length
      ? `Fewer than ${FEW_CASES} ${this.caseWord()}s in ${few.map(nameOf).slice(0, 6).join(', ')}${few.length > 6 ? '…' : ''}.`
      : few.length > 0
        ? `Each group has fewer than ${FEW_CASES} ${this.caseWord()}s.`
        : '';
  });
  /** The table as it is taken out: as shown, with what was counted and how large groups are. */
  protected readonly out = computed((): TableOut | null => {
    const table = this.work.shown();
    if (!table) return null;
    const drawing = tableDrawing(this.rowHeads(), this.columnHeads(), this.cellOf());
    return { name: this.title(), sheets: () => this.sheetsOf(table), said: this.said(), drawing };
  });

  private sheetsOf(table: CrossTable): Sheet[] {
    const [absentAt, memos] = [this.absentAt(), this.data()?.tables.memo ?? {}];
    return crossSheets({
      ...{ table, ...this.lines(), caseWord: this.caseWord() },
      countAt: (row, column) => this.scaled(table.counts[row * (table.columns.length + 1) + column]!),
      shownAt: this.asked().as === 'as they are' ? null : (row, column) => this.cell(table, row, column).value,
      absentAt: (row, column) => {
        const absence = absentAt({ row, column });
        return absence && (memos[absence.memoId]?.entries.at(-1)?.text ?? '');
      },
    });
  }

  protected setForm(form: NonNullable<CrossTableAsked['shown']>): void {
    this.draft.set(shownAs(this.asked(), form, 'table'));
  }

  protected set(change: Partial<CrossTableAsked>): void {
    this.draft.set({ ...this.asked(), ...change });
  }

  protected open({ row, column }: CellAt): void {
    const { rows, columns } = this.lines();
    const [r, c] = this.turned() ? [column, row] : [row, column];
    if (rows[r] && columns[c]) this.openKeys.set({ row: rows[r].entry?.key ?? null, column: columns[c].entry?.key ?? null });
  }

  protected openBar({ thing, group }: BarAt): void {
    const [one, other] = [this.bars().rows[thing]?.entry, this.bars().columns[group]?.entry];
    if (one && other) this.openKeys.set(this.turned() ? { row: other.key, column: one.key } : { row: one.key, column: other.key });
  }

  protected close(): void {
    this.openKeys.set(null);
  }

  /** Orders by a row or column, or, if it is ordered by it, as it was. */
  protected sort(of: 'row' | 'column', { key }: TableHead): void {
    const axis = this.turned() ? (of === 'row' ? 'column' : 'row') : of;
    this.sorted.update(({ [axis]: before, ...rest }) => (before === key ? rest : { ...rest, [axis]: key }));
  }

  private cell(table: CrossTable, row: number, column: number) {
    return shownCell(table, row, column, this.asked().as);
  }

  /** Milliseconds as seconds; everything else as it is. */
  private scaled(value: number): number {
    return this.asked().counting === 'seconds' && ['as they are', 'per case', 'per 1,000 words'].includes(this.asked().as)
      ? value / 1_000
      : value;
  }
}
