import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import type { CellKeys } from '@core/analysis/table-requests';
import { TAKEN_UP_SHOWN, type TakingUpAsked } from '@core/model/pattern';
import type { TakingUp } from '@core/patterns/taking-up';
import { counted } from '@core/text/counted';
import { selectCodes } from '../../state/study.selectors';
import { NumberPart } from '../../ui/sentence/number-part';
import { choicesOf, SentencePart } from '../../ui/sentence/sentence-part';
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
import { headOf, type TableHead } from './table-head';
import type { Sheet, TableOut } from './take-out';
import { workedOut } from './worked-out';

const ALL: TableHead = { key: ALL_KEY, name: 'all' };

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
  /** What is counted: which of the numbers is shown makes no other count. */
  private readonly counting = computed((): TakingUpAsked => ({ ...this.asked(), shown: 'who brings it up' }));
  protected readonly work = workedOut(this.counting, (data, asked, at) => this.analysis.takingUp(data, asked, at));
  private readonly openKeys = this.draft.opened<CellKeys>('taking-up');
  private readonly evidence = workedOut(
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
      'Counts times, not passages; who speaks much has more of them.',
    ]
      .filter(Boolean)
      .join(' '),
  );
  private readonly heads = computed(() => {
    const work = this.work.shown();
    const groups = (work?.groups ?? []).map((entry) => headOf(entry, {}));
    const rows = this.asked().shown === 'from whom to whom' ? groups : (work?.rows ?? []).map((entry) => headOf(entry, this.codes()));
    return { rows, columns: groups };
  });
  private readonly valueAt = computed(() => {
    const [work, { shown }] = [this.work.shown(), this.asked()];
    return (row: number, column: number): number => (work ? (tableOf(work, shown)[row * (work.groups.length + 1) + column] ?? 0) : 0);
  });
  protected readonly lines = new SortedLines(this.heads, this.valueAt);
  protected readonly rowHeads = computed(() => [...this.lines.rows().map((at) => this.heads().rows[at]!), ALL]);
  protected readonly columnHeads = computed(() => [...this.lines.columns().map((at) => this.heads().columns[at]!), ALL]);
  protected readonly cellOf = computed(() => {
    const [rows, columns, valueAt, largest] = [this.lines.rows(), this.lines.columns(), this.valueAt(), this.lines.largest()];
    return (row: number, column: number): TableCell => {
      const value = valueAt(rows[row] ?? rows.length, columns[column] ?? columns.length);
      const apart = row === rows.length || column === columns.length;
      return { words: value.toLocaleString(), shade: apart ? null : shadeOf(value, largest), empty: value === 0, ...(apart && { apart }) };
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
        const sheets = TAKEN_UP_SHOWN.map((shown) => this.sheetOf(work, shown));
        const first = TAKEN_UP_SHOWN.indexOf(this.asked().shown);
        return [sheets[first]!, ...sheets.filter((_, at) => at !== first)];
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

  private sheetOf(work: TakingUp, shown: TakingUpAsked['shown']): Sheet {
    const [groups, table, width] = [work.groups, tableOf(work, shown), work.groups.length + 1];
    const names = (heads: readonly TableHead[]): string[] => [...heads.map((one) => one.name), 'all'];
    const rows = shown === 'from whom to whom' ? groups : work.rows;
    return {
      name: shown.replace(/^./, (first) => first.toUpperCase()),
      rows: [
        ['', ...names(groups.map((one) => headOf(one, {})))],
        ...names(rows.map((one) => headOf(one, {}))).map((name, row) => [name, ...table.slice(row * width, (row + 1) * width)]),
      ],
    };
  }
}

const tableOf = (work: TakingUp, shown: TakingUpAsked['shown']): Float64Array =>
  ({ 'who brings it up': work.brought, 'who takes it on': work.taken, 'from whom to whom': work.whom })[shown];
