import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { MOST_CLUSTERS, OCCURRING_IN, type SimilarityAsked } from '@core/model/pattern';
import { cellQuestion } from '@core/patterns/cell-question';
import type { CellKeys } from '@core/analysis/table-requests';
import type { CountedTable } from '@core/patterns/table-measure';
import type { Similarity } from '@core/patterns/similarity/similarity';
import { partsOf } from '@core/patterns/similarity/tree';
import { counted } from '@core/text/counted';
import { selectCodes, selectData, selectStudy } from '../../state/study.selectors';
import { ChosenOf } from '../../ui/sentence/chosen-of';
import type { Offer } from '../../ui/sentence/choose-several';
import { NumberPart } from '../../ui/sentence/number-part';
import { SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { Swatch } from '../../ui/swatch/swatch';
import { AnalysisService } from '../../workers/analysis-service';
import { CodersPart } from './coders-part';
import { evidenceWords, type Behind } from './evidence-side';
import { LikenessPlan } from './likeness-plan';
import { LikenessTree } from './likeness-tree';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import { RowsPart } from './rows-part';
import { shownAs } from './shown-as';
import { headOf, type TableHead } from './table-head';
import type { Sheet, TableOut } from './take-out';
import { workedOut } from './worked-out';

type Form = NonNullable<SimilarityAsked['shown']>;
const FORMS: readonly Choice<Form>[] = [
  { value: 'plan', name: 'on a plan' },
  { value: 'tree', name: 'as a tree' },
  { value: 'nearest', name: 'as a list of the nearest' },
];
/** How many of the nearest are listed. */
const NEAREST = 3;

/** What is like what: codes by where they occur, documents and cases by their codes and attributes. */
@Component({
  selector: 'fl-similarity',
  imports: [ChosenOf, CodersPart, LikenessPlan, LikenessTree, NumberPart, PatternPlace, RowsPart, SentencePart, Swatch],
  templateUrl: './similarity-view.html',
  styleUrls: ['./pattern.scss', './similarity-view.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SimilarityView {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(PatternDraft);
  private readonly data = this.store.selectSignal(selectData);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly attributes = computed(() => this.data()?.tables.attribute ?? {});
  protected readonly codes = this.store.selectSignal(selectCodes);
  protected readonly asked = this.draft.of('similarity');
  protected readonly mostParts = MOST_CLUSTERS;
  protected readonly caseWord = computed(() => this.study()?.caseWord ?? 'case');
  private readonly comparing = computed(() => {
    const { pattern: _, clusters: __, shown: ___, ...rest } = this.asked();
    return rest;
  });
  protected readonly work = workedOut(this.comparing, (data, asked, at) => this.analysis.similarity(data, asked, at));
  protected readonly form = computed((): Form => this.asked().shown ?? 'plan');
  protected readonly forms = FORMS;
  protected readonly formWords = computed(() => FORMS.find((one) => one.value === this.form())!.name);
  protected readonly compareds = computed((): Choice<SimilarityAsked['compared']>[] => [
    { value: 'codes', name: 'codes' },
    { value: 'documents', name: 'documents' },
    { value: 'cases', name: `${this.caseWord()}s` },
  ]);
  protected readonly comparedWords = computed(() => this.compareds().find((one) => one.value === this.asked().compared)!.name);
  protected readonly occurrings = computed((): Choice<SimilarityAsked['occurring']>[] =>
    OCCURRING_IN.map((value) => ({ value, name: value === 'cases' ? `${this.caseWord()}s` : value })),
  );
  protected readonly occurringWords = computed(() => this.occurrings().find((one) => one.value === this.asked().occurring)!.name);
  protected readonly bys: readonly Choice<SimilarityAsked['by']>[] = [
    { value: 'presence', name: 'whether they occur' },
    { value: 'counts', name: 'how often they occur' },
  ];
  protected readonly byWords = computed(() => this.bys.find((one) => one.value === this.asked().by)!.name);
  /** The attributes that what is compared has. */
  protected readonly offers = computed((): Offer[] => {
    const of = this.asked().compared === 'cases' ? 'case' : 'document';
    return Object.values(this.attributes())
      .filter((one) => one.of === of)
      .sort((a, b) => a.order - b.order)
      .map(({ id, name }) => ({ id, name }));
  });
  protected readonly chosenAttributes = computed(() => {
    const offered = new Set(this.offers().map(({ id }) => id));
    return this.asked().compared === 'codes' ? [] : this.asked().attributeIds.filter((id) => offered.has(id));
  });
  protected readonly said = computed(() => {
    const { compared, by, coders } = this.asked();
    const work = this.work.shown();
    const how =
      this.chosenAttributes().length > 0
        ? 'Gower’s coefficient: each code that either has, and each attribute known of both, counts as one.'
        : by === 'presence'
          ? 'Jaccard: what both have, of what either has.'
          : 'The cosine of their counts.';
    const stress =
      work && work.things.length > 0 && this.form() === 'plan'
        ? `Stress ${share(work.plan.stress)}: ${stressWords(work.plan.stress)}.`
        : '';
    const left = work && work.left > 0 ? `${counted(work.left, compared.slice(0, -1))} with the least are left out.` : '';
    const tree = this.form() === 'tree' ? 'Joined by average linkage; the scale is likeness.' : '';
    const turned = this.form() === 'plan' ? 'Only nearness says something, neither direction nor place.' : '';
    const joined = coders === 'together' && by === 'counts' ? 'Overlapping passages of several coders count once.' : '';
    return [how, joined, stress, tree, turned, left, 'What has nothing to be compared by is not shown.'].filter(Boolean).join(' ');
  });
  protected readonly things = computed((): TableHead[] => (this.work.shown()?.things ?? []).map((entry) => headOf(entry, this.codes())));
  protected readonly parts = computed(() => {
    const work = this.work.shown();
    return work ? partsOf(work.merges, work.things.length, this.asked().clusters) : new Uint16Array();
  });
  /** Of each thing those that are most like it; nothing that is not like it at all. */
  protected readonly nearest = computed(() => {
    const [work, things] = [this.work.shown(), this.things()];
    if (!work) return [];
    const size = things.length;
    return things.map((thing, at) => ({
      thing,
      near: [...things.keys()]
        .filter((other) => other !== at && work.likeness[at * size + other]! > 0)
        .sort((a, b) => work.likeness[at * size + b]! - work.likeness[at * size + a]! || a - b)
        .slice(0, NEAREST)
        .map((other) => ({ thing: things[other]!, words: share(work.likeness[at * size + other]!) })),
    }));
  });
  protected readonly openKey = this.draft.opened<string>('similarity');
  /** Passages of what is open, as a cell of a table. */
  private readonly cell = computed((): { asked: CountedTable; keys: CellKeys } | undefined => {
    const key = this.openKey();
    const { compared, rows, coders } = this.asked();
    if (key === null) return undefined;
    const by = compared === 'codes' ? 'everything' : compared === 'documents' ? 'document' : 'case';
    return {
      asked: { rows, columns: { by }, counting: 'passages', coders },
      keys: compared === 'codes' ? { row: key, column: null } : { row: null, column: key },
    };
  });
  protected readonly evidence = workedOut(this.cell, async (data, { asked, keys }, at) => {
    const found = await this.analysis.cell(data, asked, keys, at);
    return found && { asked, keys, found };
  });
  protected readonly behind = computed((): Behind | null => {
    const [evidence, data, key] = [this.evidence.shown(), this.data(), this.openKey()];
    if (!evidence || !data || key === null) return null;
    const { asked, keys, found } = evidence;
    return {
      title: this.things().find((one) => one.key === (keys.row ?? keys.column))?.name ?? 'gone',
      where: evidenceWords(found, this.caseWord()),
      hits: found.hits,
      cases: found.cases,
      question: cellQuestion(data, asked.rows, asked.columns, keys),
    };
  });
  protected readonly out = computed((): TableOut | null => {
    const work = this.work.shown();
    if (!work) return null;
    return { name: `Similarity of ${this.comparedWords()}`, sheets: () => this.sheetsOf(work), said: this.said() };
  });

  private sheetsOf({ plan, likeness }: Similarity): Sheet[] {
    const [things, parts] = [this.things(), this.parts()];
    const size = things.length;
    return [
      {
        name: 'Plan',
        rows: [
          ['', 'part', 'across', 'up', ...Array.from({ length: NEAREST }, (_, at) => `nearest ${at + 1}`)],
          ...this.nearest().map(({ thing, near }, at) => [
            thing.name,
            parts[at]! + 1,
            plan.x[at]!,
            plan.y[at]!,
            ...near.map((one) => `${one.thing.name} (${one.words})`),
          ]),
        ],
      },
      {
        name: 'Likeness',
        rows: [
          ['', ...things.map(({ name }) => name)],
          ...things.map(({ name }, a) => [name, ...likeness.slice(a * size, (a + 1) * size)]),
        ],
      },
    ];
  }

  protected setForm(form: Form): void {
    this.draft.set(shownAs<Form, SimilarityAsked>(this.asked(), form, 'plan'));
  }

  protected set(change: Partial<SimilarityAsked>): void {
    if (change.compared) this.openKey.set(null);
    this.draft.set({ ...this.asked(), ...change });
  }
}

/** A share of one with two digits. */
function share(value: number): string {
  return value.toLocaleString(undefined, { minimumFractionDigits: 2, maximumFractionDigits: 2 });
}

/** How well a plan can be trusted, by the rule of thumb of Kruskal (1964). */
function stressWords(stress: number): string {
  if (stress <= 0.05) return 'the plan keeps the distances well';
  if (stress <= 0.1) return 'the plan keeps the distances fairly';
  return stress <= 0.2
    ? 'the plan keeps the distances poorly, look at the nearest as well'
    : 'the plan misses much, trust the tree and the nearest more';
}
