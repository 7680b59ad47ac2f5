import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { COUNTED, type Counting, type FrequenciesAsked } from '@core/model/pattern';
import type { Entry } from '@core/patterns/axis';
import { cellQuestion } from '@core/patterns/cell-question';
import type { CrossTable } from '@core/patterns/cross-table';
import { shownNumber } from '@core/patterns/normalise';
import { selectCodes, selectData, selectDocuments, selectStudy } from '../../state/study.selectors';
import type { Area } from '../../ui/charts/area-chart';
import { ShareChart } from '../../ui/charts/share-chart';
import { NumberPart } from '../../ui/sentence/number-part';
import { SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { Swatch } from '../../ui/swatch/swatch';
import { AnalysisService } from '../../workers/analysis-service';
import { CodersPart } from './coders-part';
import { evidenceWords, type Behind } from './evidence-side';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import { RowsPart } from './rows-part';
import { shownAs } from './shown-as';
import type { TableOut } from './take-out';
import { IN_CLOUD, WordCloud, type CloudWord } from './word-cloud';
import { workedOut } from './worked-out';

/** One thing that is counted, by every measure. */
interface Line {
  readonly entry: Entry | null;
  readonly name: string;
  readonly counts: Readonly<Partial<Record<Counting, number>>>;
}

const EVERYTHING = { by: 'everything' } as const;

type Form = NonNullable<FrequenciesAsked['shown']>;
/** Slices that can be told from each other. */
const MOST_SLICES = 8;

/** How often things are found, by every measure at once; a click on a number opens what it counts. */
@Component({
  selector: 'fl-frequencies',
  imports: [
    CodersPart,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
    NumberPart,
    PatternPlace,
    RowsPart,
    SentencePart,
    ShareChart,
    Swatch,
    WordCloud,
  ],
  templateUrl: './frequencies-view.html',
  styleUrls: ['./pattern.scss', './frequencies-view.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FrequenciesView {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(PatternDraft);
  private readonly data = this.store.selectSignal(selectData);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly documents = this.store.selectSignal(selectDocuments);
  protected readonly codes = this.store.selectSignal(selectCodes);
  protected readonly asked = this.draft.of('frequencies');
  protected readonly caseWord = computed(() => this.study()?.caseWord ?? 'case');
  /** Seconds are counted where there are recordings. */
  protected readonly measures = computed((): Counting[] => {
    const timed = Object.values(this.documents()).some((document) => document.ground.of === 'time');
    return COUNTED.filter((one) => timed || one !== 'seconds');
  });
  private readonly counting = computed(() => {
    const { rows, coders } = this.asked();
    return { rows, coders, measures: this.measures() };
  });
  protected readonly work = workedOut(this.counting, async (data, { rows, coders, measures }, at) => {
    const tables = await this.analysis.frequencies(data, { rows, coders }, measures, at);
    return tables && { tables, measures };
  });
  private readonly openKey = this.draft.opened<{ readonly row: string | null; readonly counting: Counting }>('frequencies');
  protected readonly evidence = workedOut(
    computed(() => {
      const open = this.openKey();
      const { rows, coders } = this.asked();
      return open ? { open, table: { rows, coders, columns: EVERYTHING, counting: open.counting } } : undefined;
    }),
    async (data, { open, table }, at) => {
      const found = await this.analysis.cell(data, table, { row: open.row, column: null }, at);
      return found && { open, found };
    },
  );
  protected readonly measureChoices = computed((): Choice<Counting>[] =>
    this.measures().map((counting) => ({ value: counting, name: this.nameOf(counting) })),
  );
  protected readonly severalCoders = computed(() => this.work.shown()?.tables.some((table) => table.severalCoders) ?? false);
  protected readonly lines = computed((): readonly Line[] => {
    const work = this.work.shown();
    if (!work) return [];
    const { counting, minimum } = this.asked();
    const [first] = work.tables as [CrossTable];
    const countsAt = (row: number): Line['counts'] =>
      Object.fromEntries(work.measures.map((measure, at) => [measure, scaled(measure, work.tables[at]!.counts[row * 2 + 1]!)]));
    const lines = first.rows.map((entry, at): Line => ({ entry, name: entry.path.join(' · '), counts: countsAt(at) }));
    return lines
      .filter((line) => (line.counts[counting] ?? 0) >= minimum)
      .sort((a, b) => (b.counts[counting] ?? 0) - (a.counts[counting] ?? 0));
  });
  /** All of them together: what is in several counts once. */
  protected readonly total = computed((): Line | null => {
    const work = this.work.shown();
    if (!work) return null;
    const last = work.tables[0]!.rows.length;
    return {
      entry: null,
      name: 'any of them',
      counts: Object.fromEntries(work.measures.map((measure, at) => [measure, scaled(measure, work.tables[at]!.counts[last * 2 + 1]!)])),
    };
  });
  /** As a list, or drawn. */
  private readonly form = computed((): Form => this.asked().shown ?? 'list');
  /** A pie says something of a few parts. */
  protected readonly forms = computed((): Choice<Form>[] => [
    { value: 'list', name: 'in a list with bars' },
    { value: 'areas', name: 'as areas' },
    ...(this.parts().length <= MOST_SLICES ? [{ value: 'pie' as const, name: 'as a pie' }] : []),
    { value: 'cloud', name: 'as a cloud' },
  ]);
  protected readonly drawn = computed((): Exclude<Form, 'list'> | null => {
    const form = this.form();
    if (form === 'cloud') return this.cloud().length > 0 ? form : null;
    return form === 'list' || this.parts().length === 0 || (form === 'pie' && this.parts().length > MOST_SLICES) ? null : form;
  });
  /** Parts of a whole. */
  protected readonly share = computed(() => {
    const drawn = this.drawn();
    return drawn === 'areas' || drawn === 'pie' ? drawn : null;
  });
  protected readonly formWords = computed(() => this.forms().find((one) => one.value === (this.drawn() ?? 'list'))!.name);
  /** What is found, larger the more it is; parts of others among them. */
  protected readonly cloud = computed((): CloudWord[] =>
    this.lines().flatMap(({ entry, name, counts }) => {
      const count = counts[this.asked().counting] ?? 0;
      if (count === 0) return [];
      const said = this.countWords(count);
      return [{ key: entry!.key, words: name, weight: count, said, colour: this.codes()[entry!.id ?? '']?.colour }];
    }),
  );
  protected readonly mostWords = IN_CLOUD;
  /** What is found, as parts of a whole within what it lies under: a code that is counted with those under it is no part beside them. */
  protected readonly parts = computed((): Area[] => {
    const [codes, { counting, rows }] = [this.codes(), this.asked()];
    const wholes = new Set(
      rows.of === 'codes' && rows.withUnder ? this.lines().flatMap(({ entry }) => codes[entry!.id ?? '']?.parentId ?? []) : [],
    );
    return this.lines().flatMap(({ entry, name, counts }, at) => {
      const count = wholes.has(entry!.id ?? '') ? 0 : (counts[counting] ?? 0);
      const code = codes[entry!.id ?? ''];
      const above = code?.parentId ? codes[code.parentId] : undefined;
      const said = this.countWords(count);
      return count > 0 ? [{ id: entry!.key, name, category: above?.name ?? name, colour: code?.colour ?? at * 5, count, said }] : [];
    });
  });
  private readonly largest = computed(() => Math.max(1, ...this.lines().map((line) => line.counts[this.asked().counting] ?? 0)));
  protected readonly said = computed(() => {
    const together = this.severalCoders() && this.asked().coders === 'together';
    const parts = this.drawn() === 'areas' || this.drawn() === 'pie';
    return [
      parts ? 'What carries several codes is in several parts; percent are of their sum.' : '',
      this.drawn() === 'cloud' ? 'The height of a name grows with the root of its number; the thread under it is that of the code.' : '',
      (parts ? 'The parts are of ' : this.drawn() ? 'Counted are ' : 'Bars and order are by ') + this.nameOf(this.asked().counting) + '.',
      together ? 'Of passages, what several coders marked over each other counts once.' : '',
      'Words are those in the union of the passages. What carries several codes counts once under “any of them”.',
    ]
      .filter(Boolean)
      .join(' ');
  });
  protected readonly behind = computed((): Behind | null => {
    const [found, data, work] = [this.evidence.shown(), this.data(), this.work.shown()];
    if (!this.openKey() || !found || !data || !work) return null;
    const { open } = found;
    const { hits, cases } = found.found;
    const entry = work.tables[0]!.rows.find((one) => one.key === open.row);
    return {
      title: open.row === null ? 'Any of them' : (entry?.path.join(' · ') ?? 'gone'),
      where: evidenceWords(found.found, this.caseWord()),
      hits,
      cases,
      question: cellQuestion(data, this.asked().rows, EVERYTHING, { row: open.row, column: null }),
    };
  });
  protected readonly out = computed((): TableOut | null => {
    const total = this.total();
    if (!total) return null;
    const measures = this.measures();
    return {
      name: 'Frequencies',
      sheets: () => [
        {
          name: 'Frequencies',
          rows: [
            ['', ...measures.map((measure) => this.nameOf(measure))],
            ...[...this.lines(), total].map((line) => [line.name, ...measures.map((measure) => line.counts[measure] ?? 0)]),
          ],
        },
      ],
      said: this.said(),
    };
  });

  protected setForm(form: Form): void {
    this.draft.set(shownAs<Form, FrequenciesAsked>(this.asked(), form, 'list'));
  }

  protected openPart(key: string): void {
    this.openKey.set({ row: key, counting: this.asked().counting });
  }

  protected nameOf(counting: Counting): string {
    return counting === 'cases' ? `${this.caseWord()}s` : counting;
  }

  private countWords(count: number): string {
    const name = this.nameOf(this.asked().counting);
    return `${shownNumber(count)} ${count === 1 ? name.slice(0, -1) : name}`;
  }

  protected set(change: Partial<FrequenciesAsked>): void {
    this.draft.set({ ...this.asked(), ...change });
  }

  protected shown(line: Line, counting: Counting): string {
    const count = line.counts[counting] ?? 0;
    return count === 0 ? '–' : shownNumber(count);
  }

  /** Length of a bar, in percent of the largest. */
  protected bar(line: Line): number {
    return ((line.counts[this.asked().counting] ?? 0) / this.largest()) * 100;
  }

  protected isOpen(line: Line, counting: Counting): boolean {
    const open = this.openKey();
    return open?.row === (line.entry?.key ?? null) && open.counting === counting;
  }

  protected open(line: Line, counting: Counting): void {
    this.openKey.set({ row: line.entry?.key ?? null, counting });
  }

  protected close(): void {
    this.openKey.set(null);
  }

  protected readonly trackLine = (_: number, line: Line): string => line.entry?.key ?? '';
}

const scaled = (counting: Counting, count: number): number => (counting === 'seconds' ? count / 1_000 : count);
