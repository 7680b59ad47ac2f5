import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { NEARNESS_UNITS } from '@core/model/passage-condition';
import { TOGETHER_AS, TOGETHER_BY, type TogetherAsked } from '@core/model/pattern';
import type { Question } from '@core/model/query';
import { nameOf } from '@core/patterns/axis';
import type { CodePairs } from '@core/patterns/code-pairs';
import { cellQuestion } from '@core/patterns/cell-question';
import { expectedWords, FEW_EXPECTED, residual, shownNumber } from '@core/patterns/normalise';
import { counted } from '@core/text/counted';
import type { Hit } from '@core/queries/evaluate';
import { selectCodes, selectData, selectStudy } from '../../state/study.selectors';
import { NumberPart } from '../../ui/sentence/number-part';
import { SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { Swatch } from '../../ui/swatch/swatch';
import { AnalysisService } from '../../workers/analysis-service';
import { CodersPart } from './coders-part';
import type { Behind } from './evidence-side';
import { NumberTable, type CellAt, type TableCell } from './number-table';
import { MOST_LINKS, PairLinks } from './pair-links';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import { RowsPart } from './rows-part';
import { shadeOf } from './shades';
import { headOf, type TableHead } from './table-head';
import type { Sheet, TableOut } from './take-out';
import { workedOut } from './worked-out';

type Form = 'table' | 'links' | 'strongest' | 'never';

const PAIRS_SHOWN = 200;

const SAID: Readonly<Record<TogetherAsked['by'], string>> = {
  overlap: 'Pairs of passages, one of each code, that have a place in common; a passage that carries both is a pair with itself.',
  near: 'Pairs of passages, one of each code, that overlap or stand so near; neighbouring units are at distance 1.',
  document: 'Documents that have both.',
  case: 'Those in whose passages both are found.',
};

/** Which codes go together: as a table, and as lists of the strongest pairs and of those that never meet. */
@Component({
  selector: 'fl-together',
  imports: [CodersPart, NumberTable, NumberPart, PairLinks, PatternPlace, RowsPart, SentencePart, Swatch],
  templateUrl: './together-view.html',
  styleUrls: ['./pattern.scss', './together-view.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TogetherView {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(PatternDraft);
  private readonly data = this.store.selectSignal(selectData);
  private readonly study = this.store.selectSignal(selectStudy);
  protected readonly codes = this.store.selectSignal(selectCodes);
  protected readonly asked = this.draft.of('together');
  protected readonly caseWord = computed(() => this.study()?.caseWord ?? 'case');
  /** What is counted; residuals are made of counts. */
  private readonly counting = computed(
    (): TogetherAsked => {
      const asked = this.asked();
      return { ...asked, as: asked.as === 'jaccard' ? 'jaccard' : 'counts' };
    },
    { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) },
  );
  protected readonly work = workedOut(this.counting, (data, asked, at) => this.analysis.together(data, asked, at));
  private readonly openKeys = signal<readonly [string, string] | null>(null);
  private readonly evidence = workedOut(
    computed(() => {
      const keys = this.openKeys();
      return keys ? { keys, asked: this.counting() } : undefined;
    }),
    async (data, { keys, asked }, at) => {
      const found = await this.analysis.pair(data, asked, keys, at);
      return found && { keys, found };
    },
  );
  /** As a table, or one of the lists. */
  protected readonly form = signal<Form>('table');
  protected readonly forms: readonly Choice<Form>[] = [
    { value: 'table', name: 'as a table' },
    { value: 'links', name: 'as links' },
    { value: 'strongest', name: 'the strongest pairs' },
    { value: 'never', name: 'the pairs that never meet' },
  ];
  protected readonly formWords = computed(() => this.forms.find((one) => one.value === this.form())!.name);
  protected readonly bys = computed((): Choice<TogetherAsked['by']>[] => TOGETHER_BY.map((by) => ({ value: by, name: this.byWords(by) })));
  protected readonly units: readonly Choice<TogetherAsked['within']['unit']>[] = NEARNESS_UNITS.map((value) => ({
    value,
    name: `${value}s`,
  }));
  protected readonly ways = computed((): Choice<TogetherAsked['as']>[] => {
    const { by } = this.asked();
    // nearness has no whole to divide by, and only documents and cases can be expected
    return TOGETHER_AS.filter((as) => as === 'counts' || (as === 'jaccard' ? by !== 'near' : by === 'document' || by === 'case')).map(
      (as) => ({
        value: as,
        name: this.asWords(as),
      }),
    );
  });
  /** How it is shown: what cannot be said of this is not. */
  private readonly as = computed(() => (this.ways().some((one) => one.value === this.asked().as) ? this.asked().as : 'counts'));
  protected readonly nowAs = computed(() => this.asWords(this.as()));
  protected readonly said = computed(() => {
    const [{ by }, work] = [this.asked(), this.work.shown()];
    const of = work?.of;
    const whole = of === null || of === undefined ? '' : `Of ${counted(of, by === 'case' ? this.caseWord() : 'document')} with any coding.`;
    const as = {
      counts: '',
      jaccard: by === 'overlap' ? 'Jaccard: words in both, of words in either.' : 'Jaccard: those with both, of those with either.',
      'against expected': `Pearson residuals: how far each is from what chance would give; under ${FEW_EXPECTED} expected they say little.`,
    }[this.as()];
    return [SAID[by], whole, as, 'On the diagonal stands what each has itself.'].filter(Boolean).join(' ');
  });
  protected readonly heads = computed((): TableHead[] => (this.work.shown()?.entries ?? []).map((entry) => headOf(entry, this.codes())));
  /** What is shown of two: null where nothing can be said. */
  private readonly valueOf = computed(() => {
    const [work, as] = [this.work.shown(), this.as()];
    return (one: number, other: number): { readonly count: number; readonly value: number | null; readonly expected?: number } => {
      if (!work) return { count: 0, value: null };
      const size = work.entries.length;
      const count = work.counts[one * size + other]!;
      if (as === 'counts' || one === other) return { count, value: count };
      if (as === 'jaccard') return { count, value: work.jaccard?.[one * size + other] ?? null };
      const expected = work.of ? (work.counts[one * size + one]! * work.counts[other * size + other]!) / work.of : 0;
      return { count, value: expected > 0 ? residual(count, expected) : null, expected };
    };
  });
  private readonly largest = computed(() => {
    const [size, valueOf] = [this.heads().length, this.valueOf()];
    let largest = 0;
    for (let one = 0; one < size; one++)
      for (let other = one + 1; other < size; other++) largest = Math.max(largest, Math.abs(valueOf(one, other).value ?? 0));
    return largest;
  });
  protected readonly cellOf = computed(() => {
    const [valueOf, largest, as] = [this.valueOf(), this.largest(), this.as()];
    return (row: number, column: number): TableCell => {
      const { count, value, expected } = valueOf(row, column);
      const notes = [
        as === 'counts' ? '' : `${count.toLocaleString()} found`,
        expected === undefined ? '' : expectedWords(expected),
      ].filter(Boolean);
      return {
        words: value === null ? '·' : as === 'jaccard' && row !== column ? fraction(value) : shownNumber(value),
        shade: row === column ? null : shadeOf(value, largest),
        empty: count === 0 && as !== 'against expected',
        ...(notes.length > 0 && row !== column && { note: notes.join(', ') }),
        ...(row === column && { apart: true }),
      };
    };
  });
  /** Pairs by how strongly they go together, or those that never do although each is found. */
  protected readonly pairs = computed(() => {
    const [heads, valueOf, form, cellOf] = [this.heads(), this.valueOf(), this.form(), this.cellOf()];
    const pairs: { one: TableHead; other: TableHead; words: string; value: number; note: string }[] = [];
    if (form === 'table') return pairs;
    for (let one = 0; one < heads.length; one++)
      for (let other = one + 1; other < heads.length; other++) {
        const { count, value } = valueOf(one, other);
        const [own, theirs] = [valueOf(one, one).count, valueOf(other, other).count];
        if (form === 'never' ? count > 0 || own === 0 || theirs === 0 : count === 0) continue;
        pairs.push({
          one: heads[one]!,
          other: heads[other]!,
          words: cellOf(one, other).words,
          value: form === 'never' ? Math.min(own, theirs) : (value ?? 0),
          note: form !== 'never' ? (cellOf(one, other).note ?? '') : `${own.toLocaleString()} and ${theirs.toLocaleString()} by themselves`,
        });
      }
    return pairs.sort((a, b) => b.value - a.value);
  });
  /** Pairs that can be drawn: what is under what was expected is no link. */
  protected readonly links = computed(() => (this.form() === 'links' ? this.pairs().filter(({ value }) => value > 0) : []));
  protected readonly mostLinks = MOST_LINKS;
  protected readonly openLink = computed(() => this.openKeys()?.join(' ') ?? null);
  protected readonly shownPairs = computed(() => this.pairs().slice(0, PAIRS_SHOWN));
  protected readonly openAt = computed((): CellAt | null => {
    const keys = this.openKeys();
    if (!keys) return null;
    const heads = this.heads();
    return { row: heads.findIndex((one) => one.key === keys[0]), column: heads.findIndex((one) => one.key === keys[1]) };
  });
  protected readonly behind = computed((): Behind | null => {
    const [found, work, data] = [this.evidence.shown(), this.work.shown(), this.data()];
    if (!this.openKeys() || !found || !work || !data) return null;
    const { keys } = found;
    const { pairs, hits: of } = found.found;
    const names = keys.map((key) => nameOf(work.entries.find((one) => one.key === key) ?? { key, path: ['gone'] }));
    const { by } = this.asked();
    const alone = keys[0] === keys[1];
    const hits = of.length > 0 || by === 'document' || by === 'case' ? of : distinct(pairs.flatMap(({ first, second }) => [first, second]));
    const count =
      work.counts[
        work.entries.findIndex((one) => one.key === keys[0]) * work.entries.length + work.entries.findIndex((one) => one.key === keys[1])
      ] ?? 0;
    const passages = counted(hits.length, 'passage');
    return {
      title: alone ? names[0]! : names.join(' and '),
      where: alone
        ? passages
        : by === 'document' || by === 'case'
          ? `together in ${counted(count, by === 'case' ? this.caseWord() : 'document')}: ${passages}`
          : `${counted(pairs.length, 'pair')}: ${passages}`,
      hits,
      cases: [],
      question: alone ? cellQuestion(data, this.asked().rows, { by: 'everything' }, { row: keys[0], column: null }) : this.questionOf(keys),
    };
  });
  protected readonly out = computed((): TableOut | null => {
    const work = this.work.shown();
    if (!work) return null;
    return { name: 'Codes together', sheets: () => this.sheetsOf(work), said: this.said() };
  });

  private sheetsOf({ counts }: CodePairs): Sheet[] {
    const [heads, valueOf] = [this.heads(), this.valueOf()];
    const table = (value: (one: number, other: number) => number | null) => [
      ['', ...heads.map((one) => one.name)],
      ...heads.map((one, row) => [one.name, ...heads.map((_, column) => value(row, column) ?? '')]),
    ];
    const counted = { name: 'Counted', rows: table((one, other) => counts[one * heads.length + other]!) };
    return this.as() === 'counts' ? [counted] : [{ name: 'Shown', rows: table((one, other) => valueOf(one, other).value) }, counted];
  }

  protected set(change: Partial<TogetherAsked>): void {
    this.draft.set({ ...this.asked(), ...change });
  }

  protected open(one: string, other: string): void {
    this.openKeys.set([one, other]);
  }

  protected openCell({ row, column }: CellAt): void {
    const heads = this.heads();
    if (heads[row] && heads[column]) this.open(heads[row].key, heads[column].key);
  }

  protected close(): void {
    this.openKeys.set(null);
  }

  protected byWords(by: TogetherAsked['by']): string {
    return { overlap: 'overlap', near: 'stand near', document: 'are in one document', case: `are of one ${this.caseWord()}` }[by];
  }

  private asWords(as: TogetherAsked['as']): string {
    return { counts: 'as they are', jaccard: 'as a share of either (Jaccard)', 'against expected': 'against expected' }[as];
  }

  /** Passages of the one that stand so to the other, as a question. */
  private questionOf([one, other]: readonly [string, string]): Question | null {
    const [data, { rows, by, within }] = [this.data(), this.asked()];
    if (!data || by === 'document' || by === 'case') return null;
    const [first, second] = [one, other].map((key) => cellQuestion(data, rows, { by: 'everything' }, { row: key, column: null })?.all[0]);
    if (!first || !second) return null;
    return { all: [first, { standing: by === 'near' ? 'near' : 'overlaps', to: second, ...(by === 'near' && { within }) }] };
  }
}

/** A share of either, with two digits. */
function fraction(value: number): string {
  if (value > 0 && value < 0.005) return '< .01';
  return value.toLocaleString(undefined, { minimumFractionDigits: 2, maximumFractionDigits: 2 }).replace(/^0/, '');
}

function distinct(hits: readonly Hit[]): Hit[] {
  const seen = new Set<string>();
  return hits.filter((hit) => !seen.has(hit.passageId) && seen.add(hit.passageId));
}
