import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import type { AttributesAsked, Nested } from '@core/model/pattern';
import type { AttributeCounts } from '@core/patterns/attribute-counts';
import { nameOf, placeOf } from '@core/patterns/axis';
import { expectedWords, FEW_EXPECTED, largestShown, shownCell, shownNumber } from '@core/patterns/normalise';
import { counted } from '@core/text/counted';
import { selectData, selectStudy } from '../../state/study.selectors';
import { choicesOf, SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { AnalysisService } from '../../workers/analysis-service';
import { AttributeLevels } from './attribute-levels';
import { MembersSide, type Members } from './members-side';
import { NumberTable, type CellAt, type TableCell } from './number-table';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import { shadeOf } from './shades';
import { ALL_KEY } from './sorted-lines';
import { headOf, type TableHead } from './table-head';
import type { Sheet, TableOut } from './take-out';
import { workedOut } from './worked-out';

const SAID: Readonly<Record<AttributesAsked['as'], string>> = {
  'as they are': '',
  'per row': 'Percent of the row.',
  'per column': 'Percent of the column.',
  'against expected': `Pearson residuals: how far each is from what chance would give; under ${FEW_EXPECTED} expected they say little.`,
};

/** How the values of an attribute are spread, and of two against each other; what is not known is shown as well. */
@Component({
  selector: 'fl-attributes',
  imports: [MembersSide, NumberTable, PatternPlace, SentencePart],
  providers: [AttributeLevels],
  templateUrl: './attributes-view.html',
  styleUrls: ['./pattern.scss', './attributes-view.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AttributesView {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(PatternDraft);
  private readonly data = this.store.selectSignal(selectData);
  private readonly study = this.store.selectSignal(selectStudy);
  protected readonly levels = inject(AttributeLevels);
  private readonly drafted = inject(PatternDraft).of('attributes');
  /** What is asked; the first attribute until one is chosen. */
  protected readonly asked = computed((): AttributesAsked => {
    const asked = this.drafted();
    const [first] = this.levels.all();
    return asked.of || !first ? asked : { ...asked, of: this.levels.level(first) };
  });
  private readonly counting = computed(() => {
    const { of, against } = this.asked();
    return of ? { of, against } : undefined;
  });
  protected readonly work = workedOut(this.counting, (data, asked, at) => this.analysis.attributes(data, asked, at));
  protected readonly counts = computed(() => {
    const work = this.work.shown();
    return work === 'gone' ? null : work;
  });
  protected readonly choices = computed((): Choice<Nested>[] =>
    this.levels
      .all()
      .map((attribute) => ({ value: this.levels.level(attribute), name: `${attribute.name} of ${this.wordOf(attribute.of)}` })),
  );
  /** Attributes of the same things, to hold it against. */
  protected readonly others = computed((): Choice<Nested | null>[] => {
    const { of } = this.asked();
    const attributes = this.data()?.tables.attribute ?? {};
    const kind = attributes[of?.attributeId ?? '']?.of;
    return [
      { value: null, name: 'nothing else' },
      ...this.levels
        .all()
        .filter((one) => one.of === kind && one.id !== of?.attributeId)
        .map((one) => ({ value: this.levels.level(one), name: one.name })),
    ];
  });
  protected readonly ways = choicesOf(['as they are', 'per row', 'per column', 'against expected'] as const);
  /** Held against another that is still there. */
  protected readonly isTwo = computed(() => this.counts()?.columns[0]?.key !== 'all');
  protected readonly said = computed(() => {
    const counts = this.counts();
    if (!counts) return '';
    const word = counts.of === 'case' ? this.caseWord() : 'document';
    const { summary } = counts;
    const of = `Of ${counted(counts.members.length, word)} in scope, each counted once.`;
    const number = summary
      ? `Known of ${summary.known.toLocaleString()}: ${shownNumber(summary.least)} to ${shownNumber(summary.most)}, mean ${shownNumber(summary.mean)}, median ${shownNumber(summary.median)}${summary.deviation === null ? '' : `, standard deviation ${shownNumber(summary.deviation)}`}.`
      : '';
    return [of, number, this.isTwo() ? SAID[this.asked().as] : ''].filter(Boolean).join(' ');
  });
  /** One attribute: its values with bars. */
  protected readonly lines = computed(() => {
    const counts = this.counts();
    if (!counts || this.isTwo()) return [];
    const largest = Math.max(1, ...counts.rows.map((_, at) => counts.counts[at * 2]!));
    return counts.rows.map((entry, row) => {
      const count = counts.counts[row * 2]!;
      return {
        key: entry.key,
        name: nameOf(entry),
        row,
        count,
        width: (count / largest) * 100,
        share: counts.members.length > 0 ? (count / counts.members.length) * 100 : 0,
      };
    });
  });
  private readonly openKeys = this.draft.opened<{ readonly row: string | null; readonly column: string | null }>('attributes');
  protected readonly openAt = computed((): CellAt | null => {
    const [keys, counts] = [this.openKeys(), this.counts()];
    if (!keys || !counts) return null;
    return { row: placeOf(counts.rows, keys.row), column: placeOf(counts.columns, keys.column) };
  });
  protected readonly members = computed((): Members | null => {
    const [at, counts] = [this.openAt(), this.counts()];
    if (!at || !counts || at.row < 0 || at.column < 0) return null;
    const [row, column] = [counts.rows[at.row], this.isTwo() ? counts.columns[at.column] : undefined];
    return {
      of: counts.of,
      title: [row, column].flatMap((one) => (one ? [nameOf(one)] : [])).join(' · ') || 'all',
      ids: counts.members.filter((one) => (!row || one.row === at.row) && (!column || one.column === at.column)).map(({ id }) => id),
    };
  });
  protected readonly rowHeads = computed((): TableHead[] => [
    ...(this.counts()?.rows ?? []).map((entry) => headOf(entry, {})),
    { key: ALL_KEY, name: 'all' },
  ]);
  protected readonly columnHeads = computed((): TableHead[] => [
    ...(this.counts()?.columns ?? []).map((entry) => headOf(entry, {})),
    { key: ALL_KEY, name: 'all' },
  ]);
  protected readonly cellOf = computed(() => {
    const [counts, { as }] = [this.counts(), this.asked()];
    const table = counts && { ...counts, sizes: [] };
    const largest = table ? largestShown(table, as) : 0;
    return (row: number, column: number): TableCell => {
      if (!table || row > table.rows.length || column > table.columns.length) return { words: '', shade: null, empty: true };
      const { count, value: shown, expected } = shownCell(table, row, column, as);
      const apart = row === table.rows.length || column === table.columns.length;
      const notes = [as === 'as they are' ? '' : count.toLocaleString(), expected === undefined ? '' : expectedWords(expected)].filter(
        Boolean,
      );
      return {
        words: shown === null ? '·' : shownNumber(shown, undefined, as !== 'as they are'),
        shade: apart ? null : shadeOf(shown, largest),
        empty: count === 0 && as !== 'against expected',
        ...(notes.length > 0 && { note: notes.join(', ') }),
        ...(apart && { apart: true }),
      };
    };
  });
  protected readonly title = computed(() => {
    const { of, against } = this.asked();
    if (!of) return 'Attributes';
    return [of, ...(this.isTwo() && against ? [against] : [])].map((one) => this.levels.nameOf(one)).join(' and ');
  });
  protected readonly out = computed((): TableOut | null => {
    const counts = this.counts();
    if (!counts) return null;
    return { name: this.title(), sheets: () => this.sheetsOf(counts), said: this.said() };
  });

  private sheetsOf(counts: AttributeCounts): Sheet[] {
    const [rows, columns] = [this.rowHeads(), this.columnHeads()];
    const width = counts.columns.length + 1;
    const table = (value: (row: number, column: number) => number | null) => [
      ['', ...columns.map(({ name }) => name)],
      ...rows.map(({ name }, row) => [name, ...columns.map((_, column) => value(row, column) ?? '')]),
    ];
    const raw = { name: 'Counted', rows: table((row, column) => counts.counts[row * width + column]!) };
    const { as } = this.asked();
    return this.isTwo() && as !== 'as they are'
      ? [{ name: 'Shown', rows: table((row, column) => shownCell({ ...counts, sizes: [] }, row, column, as).value) }, raw]
      : [raw];
  }

  protected set(change: Partial<AttributesAsked>): void {
    this.openKeys.set(null);
    const next = { ...this.asked(), ...change };
    // one attribute is not held against itself, nor against one of something else
    const attributes = this.data()?.tables.attribute ?? {};
    const [one, other] = [next.of, next.against].map((level) => attributes[level?.attributeId ?? '']);
    this.draft.set(one && other && (one.id === other.id || one.of !== other.of) ? { ...next, against: null } : next);
  }

  protected async askCuts(which: 'of' | 'against'): Promise<void> {
    const level = this.asked()[which];
    const cut = level && (await this.levels.askCuts(level));
    if (cut) this.set({ [which]: cut });
  }

  protected open({ row, column }: CellAt): void {
    const counts = this.counts();
    if (counts) this.openKeys.set({ row: counts.rows[row]?.key ?? null, column: counts.columns[column]?.key ?? null });
  }

  protected rowPlace(key: string): number {
    return this.rowHeads().findIndex((one) => one.key === key);
  }

  protected columnPlace(key: string): number {
    return this.columnHeads().findIndex((one) => one.key === key);
  }

  protected close(): void {
    this.openKeys.set(null);
  }

  protected percent(share: number): string {
    return `${share.toLocaleString(undefined, { maximumFractionDigits: 0 })} %`;
  }

  private caseWord(): string {
    return this.study()?.caseWord ?? 'case';
  }

  private wordOf(of: 'case' | 'document'): string {
    return of === 'case' ? `${this.caseWord()}s` : 'documents';
  }
}
