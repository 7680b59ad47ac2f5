import { quoted } from '@core/text/quoted';
import { mayGo } from '../../ui/dialogs/may-go';
import { counted } from '@core/text/counted';
import { Counted } from '../../ui/counted/counted';
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
import { deleteQuery, saveQuery } from '@core/commands/study';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Question } from '@core/model/query';
import type { Hit } from '@core/queries/evaluate';
import type { WayOut } from '@core/queries/explain';
import { StudySession } from '../../state/study-session';
import { ScopeActions } from '../../state/study.actions';
import { selectCodes, selectData, selectQueries, selectQueryScope, selectSortedDocuments, selectStudy } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { AnalysisService } from '../../workers/analysis-service';
import { Ask } from '../../ui/dialogs/ask';
import { Evidence } from '../../ui/evidence/evidence';
import { Icon } from '../../ui/icon/icon';
import { memosAreAbout } from '../../ui/memo/writing-desk';
import { Swatch } from '../../ui/swatch/swatch';
import { ChooseCodes } from './choose-codes';
import { ChooseDocuments } from './choose-documents';
import { EMPTY_QUESTION, QueryDraft } from './query-draft';

type Part = 'all' | 'any' | 'none';

/** A code as the sentence names it; of one that is gone there is only its name. */
type AskedCode = Pick<Code, 'id' | 'name' | 'mark' | 'colour'> & { readonly gone?: true };

/** Asking for passages by their codes: a sentence with parts to change, and the passages that answer it. */
@Component({
  selector: 'fl-queries',
  imports: [Counted, MatMenuModule, ChooseCodes, ChooseDocuments, Evidence, Icon, Swatch],
  templateUrl: './queries.html',
  styleUrl: './queries.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Queries {
  /** A kept query that the address names: it is asked. */
  readonly query = input<Id>();
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly analysis = inject(AnalysisService);
  private readonly ways = inject(Ways);
  private readonly ask = inject(Ask);
  private readonly draft = inject(QueryDraft);
  private readonly results = viewChild<ElementRef<HTMLElement>>('results');
  private readonly data = this.store.selectSignal(selectData);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly scope = this.store.selectSignal(selectQueryScope);
  private readonly queryTable = this.store.selectSignal(selectQueries);
  protected readonly codes = this.store.selectSignal(selectCodes);
  protected readonly documents = this.store.selectSignal(selectSortedDocuments);
  protected readonly saved = computed(() => Object.values(this.queryTable()).sort((a, b) => a.name.localeCompare(b.name)));
  protected readonly question = this.draft.question;
  protected readonly choosing = signal<Part | 'documents' | null>(null);
  protected readonly parts: readonly { readonly key: Part; readonly lead: string; readonly none: string }[] = [
    { key: 'all', lead: 'that carry all of', none: 'no particular code' },
    { key: 'any', lead: 'and at least one of', none: 'whichever' },
    { key: 'none', lead: 'and none of', none: 'no exception' },
  ];
  protected readonly asked = computed(() => this.question().all.length + this.question().any.length + this.question().none.length > 0);

  protected readonly answer = resource({
    params: () =>
      this.asked() && this.data()
        ? { question: this.question(), scope: this.scope(), data: this.data()!, order: this.documents().map((document) => document.id) }
        : undefined,
    loader: ({ params, abortSignal }) => this.analysis.ask(params.data, params.question, params.scope, params.order, abortSignal),
  });
  /** The last answer stays while the next is on its way. */
  protected readonly shown = signal<{ readonly hits: readonly Hit[]; readonly waysOut: readonly WayOut[] } | null>(null);
  protected readonly summary = computed(() => {
    const hits = this.shown()?.hits ?? [];
    const documents = new Set(hits.map((hit) => hit.documentId)).size;
    return `${counted(hits.length, 'passage')} in ${counted(documents, 'document')}`;
  });

  constructor() {
    memosAreAbout(() => {
      const asked = JSON.stringify(this.question());
      const saved = this.saved().find((query) => JSON.stringify(query.question) === asked);
      return saved ? { type: 'query', id: saved.id } : null;
    });
    effect(() => {
      const studyId = this.study()?.id ?? null;
      if (this.draft.studyId() === studyId) return;
      this.draft.studyId.set(studyId);
      this.question.set(EMPTY_QUESTION);
    });
    effect(() => {
      const named = this.query();
      const kept = untracked(() => this.queryTable()[named ?? '']);
      if (kept) this.set(kept.question);
    });
    effect(() => {
      if (!this.asked()) this.shown.set(null);
      else if (this.answer.status() === 'resolved' || this.answer.status() === 'local') this.shown.set(this.answer.value() ?? null);
    });
    afterRenderEffect(() => {
      const element = this.results()?.nativeElement;
      if (this.shown() && element && this.draft.scrolled > 0) setTimeout(() => (element.scrollTop = this.draft.scrolled), 60);
    });
  }

  /** The codes of a part of the question; what is gone by the name it had. */
  protected codesOf(part: Part): AskedCode[] {
    return this.question()[part].map((id) => this.codes()[id] ?? { id, name: this.nameOf(id), mark: '', colour: 0, gone: true });
  }

  private nameOf(codeId: Id): string {
    return this.codes()[codeId]?.name ?? `${this.question().gone?.[codeId] ?? 'a code'} (deleted)`;
  }

  protected set(fields: Partial<Question>): void {
    this.draft.scrolled = 0;
    this.question.update((question) => ({ ...question, ...fields }));
  }

  protected setPart(part: Part, ids: readonly Id[]): void {
    this.set({ [part]: [...ids] });
  }

  protected drop(part: Part, id: Id): void {
    this.setPart(
      part,
      this.question()[part].filter((one) => one !== id),
    );
  }

  protected documentWords(): string {
    const { documentIds } = this.question();
    return documentIds === null
      ? 'all documents in scope'
      : documentIds.length === 1
        ? (this.documents().find((document) => document.id === documentIds[0])?.title ??
          `${this.question().gone?.[documentIds[0]!] ?? 'a document'} (deleted)`)
        : `${counted(documentIds.length, 'chosen document')}${this.goneWords(documentIds)}`;
  }

  private goneWords(documentIds: readonly Id[]): string {
    const there = new Set(this.documents().map((document) => document.id));
    const gone = documentIds.filter((id) => !there.has(id)).length;
    return gone > 0 ? `, ${gone.toLocaleString()} of them deleted` : '';
  }

  protected stepWords({ step }: WayOut): string {
    switch (step.do) {
      case 'drop':
        return step.from === 'all'
          ? `without asking for ${quoted(this.nameOf(step.codeId))}`
          : `without leaving out ${quoted(this.nameOf(step.codeId))}`;
      case 'drop any':
        return 'without “at least one of”';
      case 'reach overlap':
        return 'counting codes of overlapping passages too';
      case 'with codes under':
        return 'with what is under the codes';
      case 'all documents':
        return 'in all documents in scope';
      case 'whole study':
        return 'looking at the whole study';
    }
  }

  protected take(way: WayOut): void {
    if (way.step.do === 'whole study') this.store.dispatch(ScopeActions.cleared());
    this.set(way.question);
  }

  protected clear(): void {
    this.draft.scrolled = 0;
    this.question.set(EMPTY_QUESTION);
  }

  protected async save(): Promise<void> {
    const question = this.question();
    const known = new Set(this.saved().map((query) => query.name));
    const reply = await this.ask.reply({
      title: 'Save the query',
      lines: [],
      label: 'Name',
      text: unusedName(this.wholeSentence().slice(0, 200), known),
      yes: 'Save',
      tries: (name) => this.session.attempt(saveQuery(name, question)).refused,
      ...(known.size > 0 && { other: 'Replace the one of this name' }),
    });
    if (reply?.chose === 'other') this.session.run(saveQuery(reply.text, question, true));
  }

  /** All of the question in words: no two questions have the same. */
  private wholeSentence(): string {
    const names = (part: Part): string[] => this.codesOf(part).map((code) => code.name);
    const { withCodesUnder, reach, documentIds } = this.question();
    const [all, any, none] = [names('all'), names('any'), names('none')];
    return [
      all.join(' + '),
      any.length > 0 ? `${all.length > 0 ? 'and ' : ''}one of ${any.join(', ')}` : '',
      none.length > 0 ? `without ${none.join(', ')}` : '',
      withCodesUnder ? 'with what is under them' : '',
      reach === 'overlap' ? 'overlapping' : '',
      documentIds ? `in ${this.documentWords()}` : '',
    ]
      .filter(Boolean)
      .join(' ');
  }

  protected async remove(id: Id): Promise<void> {
    const title = `Delete the query ${quoted(this.queryTable()[id]!.name)}?`;
    if (await mayGo(this.ask, this.data()!, 'query', id, title)) this.session.run(deleteQuery(id));
  }

  protected onScroll(element: HTMLElement): void {
    this.draft.scrolled = element.scrollTop;
  }

  protected readInPlace(hit: Hit): void {
    this.ways.go(['reading', hit.documentId], {
      queryParams: { passage: hit.passageId, from: 'the query' },
    });
  }
}

/** A name that no other has: with a number behind it where it must be. */
function unusedName(name: string, known: ReadonlySet<string>): string {
  if (!known.has(name)) return name;
  let number = 2;
  while (known.has(`${name} (${number})`)) number++;
  return `${name} (${number})`;
}
