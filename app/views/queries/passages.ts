import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  resource,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import type { Question } from '@core/model/query';
import type { Hit } from '@core/queries/evaluate';
import type { WayOut } from '@core/queries/explain';
import type { Group, Grouping } from '@core/queries/groups';
import { ANSWER_ORDERS, groupOf, inOrder, type AnswerOrder } from '@core/queries/answer-rows';
import { changeWords } from '@core/queries/words';
import { counted } from '@core/text/counted';
import { ScopeChoice } from '../../state/scope-choice';
import { selectData, selectQueries } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { Counted } from '../../ui/counted/counted';
import { Evidence, type Surroundings } from '../../ui/evidence/evidence';
import { AnalysisService } from '../../workers/analysis-service';
import type { Code } from '@core/model/code';
import { choicesOf, SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { memosAreAbout } from '../../ui/memo/writing-desk';
import { AnswerWork } from './answer-work';
import { Asking } from './asking';
import { KeptQueries } from './kept-queries';
import { AnswerActs } from './answer-acts';
import { AnswerTable } from './answer-table';
import { EMPTY_QUESTION, QueryDraft } from '../../state/query-draft';
import { AskedHere } from '../../ui/sentence/asked-here';
import { ConditionList } from '../../ui/sentence/condition-list';
import { QueryTabs } from './query-tabs';
import { sinceWords } from './since-words';
import { KeptMenu } from '../../ui/kept-menu';
import { scrollBack } from '../../ui/scroll-back';
import { passageIdsByDocument } from '@core/commands/move-codings';
import { NEW_CARRIES } from '../../ui/sentence/new-part';

/** How the passages of an answer are shown. */
const ANSWER_FORMS = ['with some words around', 'with the whole paragraph', 'with the paragraphs beside', 'as a table of codes'] as const;
type AnswerForm = (typeof ANSWER_FORMS)[number];

/** Asking for passages: a sentence with parts to change, what each of them leaves, and the passages that answer it. */
@Component({
  selector: 'fl-passages',
  imports: [AnswerTable, QueryTabs, ConditionList, Counted, Evidence, KeptMenu, MatMenuModule, SentencePart],
  providers: [AnswerActs, AnswerWork, AskedHere, Asking, KeptQueries],
  templateUrl: './passages.html',
  styleUrl: './passages.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Passages {
  /** A kept query that the address names: it is asked. */
  readonly query = input<Id>();
  private readonly store = inject(Store);
  private readonly ways = inject(Ways);
  private readonly draft = inject(QueryDraft);
  private readonly here = inject(AskedHere);
  private readonly scopeChoice = inject(ScopeChoice);
  private readonly analysis = inject(AnalysisService);
  protected readonly countedAs = ['Passages of which this alone holds', 'Passages left after this and what stands above it'];
  private readonly results = viewChild<ElementRef<HTMLElement>>('results');
  private readonly data = this.store.selectSignal(selectData);
  private readonly queryTable = this.store.selectSignal(selectQueries);
  protected readonly asking = inject(Asking);
  protected readonly keptQueries = inject(KeptQueries);
  protected readonly caseWord = inject(AskedHere).caseWord;
  protected readonly work = inject(AnswerWork);
  protected readonly answerActs = inject(AnswerActs);
  protected readonly chosen = signal<ReadonlySet<Id>>(new Set());
  /** Only what is new since the answer was last seen. */
  protected readonly onlyNew = signal(false);
  /** The first part was just added by the place itself. */
  protected readonly fresh = signal(false);
  protected readonly hits = computed((): readonly Hit[] => {
    const hits = this.asking.shown()?.hits ?? [];
    const fresh = this.onlyNew() ? this.asking.since()?.fresh : undefined;
    const kept = fresh ? hits.filter((hit) => fresh.has(hit.passageId)) : hits;
    const data = this.data();
    return data ? inOrder(data, kept, this.order(), (id) => this.speakers.value()?.get(id) ?? null) : kept;
  });
  protected readonly order = signal<AnswerOrder>('as in the documents');
  protected readonly orders = computed((): Choice<AnswerOrder>[] => [
    ...ANSWER_ORDERS.map((order) => ({ value: order, name: order.replace('case', this.here.caseWord()) })),
    ...this.here.attributes().map(({ id, name }) => ({ value: { attributeId: id }, name: `by ${name}` })),
  ]);
  protected readonly orderWords = computed(() => {
    const now = JSON.stringify(this.order());
    return this.orders().find((one) => JSON.stringify(one.value) === now)?.name ?? 'by an attribute that is gone';
  });
  /** With how much around them, or as a table. */
  protected readonly form = signal<AnswerForm>('with some words around');
  protected readonly forms = choicesOf(ANSWER_FORMS);
  protected readonly around = computed((): Surroundings => {
    const form = this.form();
    return form === 'as a table of codes' ? 'some words around' : (form.slice('with '.length) as Surroundings);
  });
  protected readonly groupings = computed((): Choice<Grouping | null>[] => [
    { value: null, name: 'in one list' },
    ...this.here
      .attributes()
      .filter((one) => one.type !== 'number' && one.type !== 'date')
      .map((one) => ({ value: { attributeId: one.id }, name: `side by side by ${one.name}` })),
    { value: { by: 'kind' } as const, name: 'side by side by kind of document' },
    ...(this.here.sets().length > 1 ? [{ value: { by: 'set' } as const, name: 'side by side by set' }] : []),
    ...(this.here.coders().length > 1 ? [{ value: { by: 'coder' } as const, name: 'side by side by coder' }] : []),
  ]);
  protected readonly groupingWords = computed(() => {
    const now = JSON.stringify(this.asking.grouping());
    return this.groupings().find((one) => JSON.stringify(one.value) === now)?.name ?? 'in one list';
  });
  /** Where the order makes groups, what each passage stands under. */
  protected readonly headOf = computed(() => {
    const [data, order, texts] = [this.data(), this.order(), this.speakers.value()];
    return (hit: Hit): string | null => (data ? groupOf(data, hit, order, (id) => texts?.get(id) ?? null) : null);
  });
  /** Texts say who speaks: read only where that is the order. */
  private readonly speakers = resource({
    params: () =>
      this.order() === 'by speaker' || this.order() === 'by case' || typeof this.order() === 'object'
        ? this.asking.shown()?.hits
        : undefined,
    loader: ({ params }) => this.work.textsOf(params),
  });
  /** What is chosen, else all that is shown: what is taken out. */
  protected readonly taken = computed(() => (this.places().length > 0 ? this.places() : this.hits()));
  /** Those that are chosen and shown; with none chosen, none. */
  protected readonly places = computed(() => this.hits().filter((hit) => this.chosen().has(hit.passageId)));
  protected readonly summary = computed(() => {
    const hits = this.hits();
    const documents = new Set(hits.map((hit) => hit.documentId)).size;
    return `${counted(hits.length, 'passage')} in ${counted(documents, 'document')}`;
  });
  /** What else there is of it: counted when the answer is there. */
  protected readonly measures = computed(() => {
    const counts = this.counts.hasValue() ? this.counts.value() : null;
    if (counts?.passages !== this.hits().length) return '';
    return `· ${counted(counts.codings, 'coding')} · ${counted(counts.cases, this.here.caseWord())} · ${counted(counts.words, 'word')}`;
  });
  private readonly counts = resource({
    params: () => {
      const [data, hits] = [this.data(), this.hits()];
      return data && hits.length > 0 ? { data, hits } : undefined;
    },
    loader: ({ params: { data, hits }, abortSignal }) => this.analysis.answerCounts(data, passageIdsByDocument(hits), abortSignal),
  });
  protected readonly sinceWords = computed(() => {
    const since = this.asking.since();
    return since && sinceWords(since.at, since.fresh.size, since.gone);
  });

  constructor() {
    this.here.gone.set(() => this.draft.question().gone);
    memosAreAbout(() => {
      const kept = this.asking.kept();
      return kept ? { type: 'query', id: kept.id } : null;
    });
    effect(() => {
      const named = this.query();
      const kept = untracked(() => this.queryTable()[named ?? '']);
      if (kept) this.askAs(kept.question);
    });
    effect(() => {
      this.asking.question();
      this.chosen.set(new Set());
      this.onlyNew.set(false);
    });
    afterRenderEffect(() => {
      const element = this.results()?.nativeElement;
      if (this.asking.shown() && element) scrollBack(element, this.draft.scrolled);
    });
  }

  protected askAs(question: Question): void {
    this.draft.scrolled = 0;
    this.fresh.set(false);
    this.draft.question.set(question);
  }

  protected begin(): void {
    this.fresh.set(true);
    this.asking.set([NEW_CARRIES]);
  }

  protected clear(): void {
    this.askAs(EMPTY_QUESTION);
  }

  protected stepWords({ change }: WayOut): string {
    return changeWords(change, this.here.names());
  }

  protected take(way: WayOut): void {
    if (!way.change) this.scopeChoice.clear();
    this.askAs(way.question);
  }

  /** How many that is for the size of the group. */
  protected rate({ group, hits }: { readonly group: Group; readonly hits: readonly Hit[] }): string {
    if (!group.size || group.size.count === 0) return '';
    const of = group.size.of === 'case' ? this.here.caseWord() : group.size.of;
    const size =
      group.size.of === 'case' ? counted(group.size.count, of) : `${Math.round(group.size.count * 1_000).toLocaleString()} words`;
    return `${(hits.length / group.size.count).toLocaleString(undefined, { maximumFractionDigits: 1 })} per ${of}, of ${size}`;
  }

  protected chooseAll(all: boolean): void {
    this.chosen.set(new Set(all ? this.hits().map((hit) => hit.passageId) : []));
  }

  protected async code(): Promise<void> {
    if (await this.work.code(this.places())) this.chosen.set(new Set());
  }

  protected async exchange(code: Code): Promise<void> {
    await this.answerActs.exchange(this.places(), code);
  }

  protected async paste(): Promise<void> {
    const question = await this.keptQueries.paste();
    if (question) this.askAs(question);
  }

  protected onScroll(element: HTMLElement): void {
    this.draft.scrolled = element.scrollTop;
  }

  protected readInPlace(hit: Hit): void {
    // the last scroll may not have been told of yet
    this.onScroll(this.results()!.nativeElement);
    this.ways.go(['reading', hit.documentId], { queryParams: { passage: hit.passageId, from: 'the query' } });
  }
}
