import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import type { CellKeys } from '@core/analysis/table-requests';
import { TAKEN_UP_AS, TAKEN_UP_SHOWN, type TakingUpAsked } from '@core/model/pattern';
import { nameOf, type Entry } from '@core/patterns/axis';
import { shownCell, shownNumber, type ShownCell, type ShownTable } from '@core/patterns/normalise';
import type { TakingUp } from '@core/patterns/taking-up';
import { counted } from '@core/text/counted';
import { selectCodes, selectStudy } from '../../state/study.selectors';
import { NumberPart } from '../../ui/sentence/number-part';
import { choicesOf, SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { AnalysisService } from '../../workers/analysis-service';
import type { Behind } from './evidence-side';
import { tableDrawing } from './drawing/table-drawing';
import { GroupsPart } from './groups-part';
import { NumberTable, type CellAt, type TableCell } from './number-table';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import { RowsPart } from './rows-part';
import { shadeOf } from './shades';
import { ALL_KEY, cellAt, keyOfHead, SortedLines } from './sorted-lines';
import { groupSheet, sizeWords } from './group-words';
import { headOf, type TableHead } from './table-head';
import type { Sheet, TableOut } from './take-out';
import { workedOut } from './worked-out';

const ALL: TableHead = { key: ALL_KEY, name: 'all' };

/** How one line says how times are shown. */
const SAID: Readonly<Record<(typeof TAKEN_UP_AS)[number], string>> = {
  'as they are': 'who speaks much has more of them.',
  'per row': 'each is a share of its row, in percent.',
  'per case': 'each is divided by all of its group, whether or not they speak of it.',
  'per 1,000 words': 'each is divided by the words of its group, coded or not.',
};

/** Who brings a theme up, who takes it on, and from whom: by speaker, or by any other group. */
@Component({
  selector: 'fl-taking-up',
  imports: [GroupsPart, NumberPart, NumberTable, PatternPlace, RowsPart, SentencePart],
  templateUrl: './taking-up-view.html',
  styleUrl: './pattern.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakingUpView {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(PatternDraft);
  private readonly codes = this.store.selectSignal(selectCodes);
  protected readonly asked = this.draft.of('taking-up');
  protected readonly ways = choicesOf(TAKEN_UP_SHOWN);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly caseWord = computed(() => this.study()?.caseWord ?? 'case');
  private readonly as = computed(() => this.asked().as ?? 'as they are');
  protected readonly measures = computed((): Choice<(typeof TAKEN_UP_AS)[number]>[] =>
    TAKEN_UP_AS.map((as) => ({ value: as, name: as === 'per case' ? `per ${this.caseWord()}` : as })),
  );
  protected readonly asWords = computed(() => this.measures().find((one) => one.value === this.as())!.name);
  /** What is counted: which of the numbers is shown makes no other count. */
  private readonly counting = computed((): TakingUpAsked => ({
    ...this.asked(),
    shown: 'who brings it up',
    as: this.as() === 'per 1,000 words' ? this.as() : 'as they are',
  }));
  protected readonly work = workedOut(this.counting, (data, asked, at) => this.analysis.takingUp(data, asked, at));
  private readonly openKeys = this.draft.opened<CellKeys>('taking-up');
  protected readonly evidence = workedOut(
    computed(() => {
      const keys = this.openKeys();
      return keys ? { keys, asked: this.asked() } : undefined;
    }),
    async (data, { keys, asked }, at) => {
      const found = await this.analysis.takingUpCell(data, asked, keys, at);
      return found && { keys, found, shown: asked.shown };
    },
  );
  protected readonly said = computed(() =>
    [
      this.asked().apart === 0
        ? 'Whoever speaks of it first in a document brings it up; everybody else who does takes it on, once.'
        : `Whoever speaks of it after ${counted(this.asked().apart, 'turn')} without it brings it up; everybody else who goes on takes it on, once.`,
      this.asked().shown === 'from whom to whom' ? 'In rows stands who brought it up, in columns who took it on.' : '',
      `Counts times, not passages; ${SAID[this.as()]}`,
    ]
      .filter(Boolean)
      .join(' '),
  );
  private readonly heads = computed(() => {
    const work = this.work.shown();
    const groups = (work?.groups ?? []).map((entry, at) => ({
      ...headOf(entry, {}),
      note: sizeWords(work!.sizes[at]!, this.caseWord()),
    }));
    const rows = this.asked().shown === 'from whom to whom' ? groups : (work?.rows ?? []).map((entry) => headOf(entry, this.codes()));
    return { rows, columns: groups };
  });
  /** A number of the table as it is shown, and as it was counted. */
  private readonly shownAt = computed(() => {
    const [work, { shown }, as] = [this.work.shown(), this.asked(), this.as()];
    const table = work && shownTable(work, shown);
    return (row: number, column: number): ShownCell => (table ? shownCell(table, row, column, as) : { count: 0, value: null });
  });
  protected readonly lines = new SortedLines(
    this.heads,
    computed(() => {
      const shownAt = this.shownAt();
      return (row: number, column: number) => shownAt(row, column).value;
    }),
  );
  protected readonly rowHeads = computed(() => [...this.lines.rows().map((at) => this.heads().rows[at]!), ALL]);
  protected readonly columnHeads = computed(() => {
    const of = this.work.shown()?.sizes.at(-1);
    return [
      ...this.lines.columns().map((at) => this.heads().columns[at]!),
      { ...ALL, ...(of && { note: sizeWords(of, this.caseWord()) }) },
    ];
  });
  protected readonly cellOf = computed(() => {
    const [rows, columns, shownAt, largest] = [this.lines.rows(), this.lines.columns(), this.shownAt(), this.lines.largest()];
    const plain = this.as() === 'as they are';
    return (row: number, column: number): TableCell => {
      const { count, value } = shownAt(rows[row] ?? rows.length, columns[column] ?? columns.length);
      const apart = row === rows.length || column === columns.length;
      return {
        words: value === null ? '·' : shownNumber(value, undefined, !plain),
        shade: apart ? null : shadeOf(value, largest),
        empty: count === 0,
        ...(!plain && { note: counted(count, 'time') }),
        ...(apart && { apart }),
      };
    };
  });
  protected readonly openAt = computed((): CellAt | null => {
    const keys = this.openKeys();
    return keys && cellAt(this.rowHeads(), this.columnHeads(), keys);
  });
  protected readonly behind = computed((): Behind | null => {
    const found = this.evidence.shown();
    if (!this.openKeys() || !found || !this.work.shown()) return null;
    const { keys, shown } = found;
    const { times, hits } = found.found;
    const { rows, columns } = this.heads();
    const nameIn = (heads: readonly TableHead[], key: string | null, all: string): string =>
      key === null ? all : (heads.find((one) => one.key === key)?.name ?? 'gone');
    const column = nameIn(columns, keys.column, 'anybody');
    const how = shown === 'who brings it up' ? 'brought up' : 'taken on';
    return {
      title:
        shown === 'from whom to whom' ? `From ${nameIn(rows, keys.row, 'anybody')} to ${column}` : nameIn(rows, keys.row, 'Any of them'),
      place: `${how} by ${column}`,
      where: `${how} by ${column} ${counted(times, 'time')}: ${counted(hits.length, 'passage')}`,
      hits,
      cases: [],
      question: null,
    };
  });
  protected readonly out = computed((): TableOut | null => {
    const work = this.work.shown();
    if (!work) return null;
    return {
      name: 'Taking up',
      sheets: () => {
        const { shown } = this.asked();
        const shownAs = this.as() === 'as they are' ? [] : [this.sheetOf(work, shown, this.as())];
        const others = TAKEN_UP_SHOWN.filter((one) => one !== shown);
        return [
          ...shownAs,
          ...[shown, ...others].map((one) => this.sheetOf(work, one, 'as they are')),
          groupSheet(work.groups, work.sizes, 'case'),
        ];
      },
      said: this.said(),
      drawing: tableDrawing(this.rowHeads(), this.columnHeads(), this.cellOf()),
    };
  });

  protected set(change: Partial<TakingUpAsked>): void {
    const whom = (shown: TakingUpAsked['shown']): boolean => shown === 'from whom to whom';
    // rows are other things now
    if (change.shown && whom(change.shown) !== whom(this.asked().shown)) this.close();
    this.draft.set({ ...this.asked(), ...change });
  }

  protected open({ row, column }: CellAt): void {
    this.openKeys.set({ row: keyOfHead(this.rowHeads()[row]!), column: keyOfHead(this.columnHeads()[column]!) });
  }

  protected close(): void {
    this.openKeys.set(null);
  }

  private sheetOf(work: TakingUp, shown: TakingUpAsked['shown'], as: (typeof TAKEN_UP_AS)[number]): Sheet {
    const table = shownTable(work, shown);
    const names = (entries: readonly Entry[]): string[] => [...entries.map(nameOf), 'all'];
    const columns = names(table.columns);
    return {
      name: `${shown.replace(/^./, (first) => first.toUpperCase())}${as === 'as they are' ? '' : ` ${as}`}`,
      rows: [
        ['', ...columns],
        ...names(table.rows).map((name, row) => [name, ...columns.map((_, column) => shownCell(table, row, column, as).value ?? '')]),
      ],
    };
  }
}

/** One of the three tables, to be shown in a measure. */
const shownTable = ({ rows, groups, brought, taken, whom, sizes }: TakingUp, shown: TakingUpAsked['shown']): ShownTable => ({
  rows: shown === 'from whom to whom' ? groups : rows,
  columns: groups,
  counts: { 'who brings it up': brought, 'who takes it on': taken, 'from whom to whom': whom }[shown],
  sizes,
});
