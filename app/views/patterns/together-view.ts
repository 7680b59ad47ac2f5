import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { NEARNESS_UNITS } from '@core/model/passage-condition';
import { TOGETHER_AS, TOGETHER_BY, type RowsAsked, type TogetherAsked } from '@core/model/pattern';
import type { Question } from '@core/model/query';
import { nameOf } from '@core/patterns/axis';
import type { CodePairs } from '@core/patterns/code-pairs';
import { cellQuestion } from '@core/patterns/cell-question';
import { keyInSecond } from '@core/patterns/found-axis';
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
import { tableDrawing } from './drawing/table-drawing';
import { NumberTable, type CellAt, type TableCell } from './number-table';
import { MOST_LINKS, PairLinks } from './pair-links';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import { RowsPart } from './rows-part';
import { PairFlow } from './pair-flow';
import { shadeOf } from './shades';
import { shownAs } from './shown-as';
import { headOf, type TableHead } from './table-head';
import type { Sheet, TableOut } from './take-out';
import { workedOut } from './worked-out';

type Form = NonNullable<TogetherAsked['shown']>;

const PAIRS_SHOWN = 200;

const SAID: Readonly<Record<TogetherAsked['by'], string>> = {
  overlap: 'Pairs of passages, one of each code, that have a place in common; a passage that carries both is a pair with itself.',
  near: 'Pairs of passages, one of each code, that overlap or stand so near; neighbouring units are at distance 1.',
  document: 'Documents that have both.',
  case: 'Those in whose passages both are found.',
};

/** Which codes go together: as a table, as links, as a flow from some to others, and as lists of the strongest pairs and of those that never meet. */
@Component({
  selector: 'fl-together',
  imports: [CodersPart, NumberTable, NumberPart, PairFlow, PairLinks, PatternPlace, RowsPart, SentencePart, Swatch],
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
  private readonly counting = computed((): TogetherAsked => {
    const { shown: _, to, ...asked } = this.asked();
    const flow = this.form() === 'flow' && { to: to ?? asked.rows };
    return { ...asked, ...flow, as: asked.as === 'jaccard' ? 'jaccard' : 'counts' };
  });
  protected readonly work = workedOut(this.counting, async (data, asked, at) => {
    const pairs = await this.analysis.together(data, asked, at);
    return pairs && { pairs, flow: asked.to !== undefined };
  });
  /** What was counted, if it is what is shown: a flow has other rows. */
  protected readonly tallied = computed(() => {
    const work = this.work.shown();
    return work && work.flow === (this.form() === 'flow') ? work.pairs : null;
  });
  private readonly openKeys = this.draft.opened<readonly [string, string]>('together');
  protected readonly evidence = workedOut(
    computed(() => {
      const keys = this.openKeys();
      return keys ? { keys, asked: this.counting() } : undefined;
    }),
    async (data, { keys, asked }, at) => {
      const found = await this.analysis.pair(data, asked, keys, at);
      return found && { keys, found };
    },
  );
  /** As a table, drawn, or one of the lists. */
  protected readonly form = computed((): Form => this.asked().shown ?? 'table');
  protected readonly forms: readonly Choice<Form>[] = [
    { value: 'table', name: 'as a table' },
    { value: 'links', name: 'as links' },
    { value: 'flow', name: 'as a flow from one group to another' },
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
    const [{ by }, work] = [this.asked(), this.tallied()];
    const of = work?.of;
    const whole = of === null || of === undefined ? '' : `Of ${counted(of, by === 'case' ? this.caseWord() : 'document')} with any coding.`;
    const as = {
      counts: '',
      jaccard: by === 'overlap' ? 'Jaccard: words in both, of words in either.' : 'Jaccard: those with both, of those with either.',
      'against expected': `Pearson residuals: how far each is from what chance would give; under ${FEW_EXPECTED} expected they say little.`,
    }[this.as()];
    if (this.form() === 'flow') return [SAID[by], whole, as, 'What stands on both sides is not led to itself.'].filter(Boolean).join(' ');
    return [SAID[by], whole, as, 'On the diagonal stands what each has itself.'].filter(Boolean).join(' ');
  });
  protected readonly heads = computed((): TableHead[] => (this.tallied()?.entries ?? []).map((entry) => headOf(entry, this.codes())));
  /** What is shown of two: null where nothing can be said. */
  private readonly valueOf = computed(() => {
    const [work, as] = [this.tallied(), this.as()];
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
    const { entries, from } = this.tallied() ?? { entries: [], from: 0 };
    const flow = form === 'flow';
    for (let one = 0; one < (flow ? from : heads.length); one++)
      for (let other = flow ? from : one + 1; other < heads.length; other++) {
        // of a flow, a code on both sides is no pair with itself
        if (flow && keyInSecond(entries[other]!.key) === entries[one]!.key) continue;
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
  protected readonly links = computed(() => (this.isDrawn() ? this.pairs().filter(({ value }) => value > 0) : []));
  protected readonly isDrawn = computed(() => this.form() === 'links' || this.form() === 'flow');
  /** Of a flow, what it comes from and what it goes to. */
  protected readonly sides = computed(() => {
    const from = this.tallied()?.from ?? 0;
    return { from: this.heads().slice(0, from), to: this.heads().slice(from) };
  });
  protected readonly to = computed(() => this.asked().to ?? this.asked().rows);
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
    const [found, work, data] = [this.evidence.shown(), this.tallied(), this.data()];
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
    const work = this.tallied();
    if (!work) return null;
    const drawing = this.form() === 'table' ? tableDrawing(this.heads(), this.heads(), this.cellOf()) : null;
    return { name: 'Codes together', sheets: () => this.sheetsOf(work), said: this.said(), drawing };
  });

  private sheetsOf({ counts, from }: CodePairs): Sheet[] {
    const [heads, valueOf] = [this.heads(), this.valueOf()];
    const flow = this.form() === 'flow';
    // of a flow, what it comes from against what it goes to
    const places = [...heads.keys()];
    const [down, across] = flow ? [places.slice(0, from), places.slice(from)] : [places, places];
    const table = (value: (one: number, other: number) => number | null) => [
      ['', ...across.map((at) => heads[at]!.name)],
      ...down.map((row) => [heads[row]!.name, ...across.map((column) => value(row, column) ?? '')]),
    ];
    const counted = { name: 'Counted', rows: table((one, other) => counts[one * heads.length + other]!) };
    return this.as() === 'counts' ? [counted] : [{ name: 'Shown', rows: table((one, other) => valueOf(one, other).value) }, counted];
  }

  protected setForm(form: Form): void {
    // what is open may be of the other side of a flow
    if ((form === 'flow') !== (this.form() === 'flow')) this.close();
    this.draft.set(shownAs<Form, TogetherAsked>(this.asked(), form, 'table'));
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
    const asks = (of: RowsAsked, row: string) => cellQuestion(data, of, { by: 'everything' }, { row, column: null })?.all[0];
    const flow = this.form() === 'flow';
    const first = asks(rows, one);
    const second = flow ? asks(this.to(), keyInSecond(other)) : asks(rows, other);
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
