import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  linkedSignal,
  resource,
  signal,
  viewChild,
} from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { removeCoding } from '@core/commands/passages';
import { movePassage, recode } from '@core/commands/reshape-passages';
import { keepSwept, sweptByCode, sweptLeft } from '@core/commands/sweep';
import { inTreeOrder } from '@core/codebook/tree';
import type { Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import { placeOf } from '@core/text/citation';
import { paragraphAt } from '@core/text/paragraphs';
import { stepEdge } from '@core/text/units';
import { counted } from '@core/text/counted';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectData, selectSortedDocuments } from '../../../state/study.selectors';
import { TextCache } from '../../../state/text-cache';
import { Ways } from '../../../state/ways';
import { belongsToField, isCovered } from '../../../ui/keys/writing-keys';
import { ChooseCode, wantedCodes } from '../../../ui/picker/choose-code';
import { SentencePart, type Choice } from '../../../ui/sentence/sentence-part';
import { Swatch } from '../../../ui/swatch/swatch';
import { QueryTabs } from '../query-tabs';

/** Paragraphs that are shown on each side of a passage. */
const AROUND = 2;

/** Going through what a sweep has coded, one after another in its text: kept, shortened, lengthened, exchanged or dropped, by keys. */
@Component({
  selector: 'fl-swept',
  imports: [QueryTabs, SentencePart, Swatch],
  templateUrl: './swept.html',
  styleUrls: ['../../../ui/evidence/in-context.scss', './swept.scss'],
  host: { '(window:keydown)': 'onKey($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Swept {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly texts = inject(TextCache);
  private readonly dialog = inject(MatDialog);
  private readonly ways = inject(Ways);
  private readonly data = this.store.selectSignal(selectData);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly documents = this.store.selectSignal(selectSortedDocuments);
  private readonly card = viewChild<ElementRef<HTMLElement>>('card');
  private readonly order = computed(() => this.documents().map((document) => document.id));
  /** Codes with swept codings, and how many. */
  protected readonly waiting = computed(() => {
    const counts = sweptByCode(Object.values(this.data()?.passages ?? {}));
    return inTreeOrder(this.codes()).flatMap(({ code }) => (counts.has(code.id) ? [{ code, count: counts.get(code.id)! }] : []));
  });
  private readonly chosenCode = signal<Id | null>(null);
  protected readonly code = computed(
    () => (this.waiting().find((one) => one.code.id === this.chosenCode()) ?? this.waiting()[0])?.code ?? null,
  );
  protected readonly choices = computed((): Choice<Id>[] =>
    this.waiting().map(({ code, count }) => ({ value: code.id, name: `${code.name} (${count.toLocaleString()})` })),
  );
  private readonly left = computed((): readonly Passage[] => {
    const [data, code] = [this.data(), this.code()];
    return data && code ? sweptLeft(data, code.id, this.order()) : [];
  });
  protected readonly leftWords = computed(() => `${counted(this.left().length, 'passage')} left to be looked at`);
  /** Which of them is looked at; one that goes makes room for the next. */
  private readonly at = linkedSignal<Id | undefined, number>({ source: () => this.code()?.id, computation: () => 0 });
  protected readonly passage = computed(() => this.left()[Math.min(this.at(), this.left().length - 1)]);
  protected readonly number = computed(() => Math.min(this.at(), this.left().length - 1) + 1);
  protected readonly document = computed(() => this.data()?.tables.document[this.passage()?.documentId ?? '']);
  protected readonly text = resource({
    params: () => ({ id: this.passage()?.documentId, changes: this.texts.changes() }),
    loader: async ({ params }) => (params.id ? await this.texts.get(params.id) : null),
  });
  protected readonly shown = computed(() => {
    const [passage, text, document] = [this.passage(), this.text.value(), this.document()];
    if (!passage || !document || text?.id !== passage.documentId) return null;
    const first = paragraphAt(text.paragraphs, passage.start);
    const last = paragraphAt(text.paragraphs, Math.max(passage.start, passage.end - 1));
    const from = text.paragraphs[Math.max(0, first - AROUND)]!.start;
    const to = text.paragraphs[Math.min(text.paragraphs.length - 1, last + AROUND)]!.end;
    const { speaker, position } = placeOf(document, text, passage);
    return {
      where: [document.title, speaker, position].filter(Boolean).join(' · '),
      before: text.text.slice(from, passage.start),
      words: text.text.slice(passage.start, passage.end),
      after: text.text.slice(passage.end, to),
    };
  });

  constructor() {
    effect(() => {
      if (this.shown()) setTimeout(() => this.card()?.nativeElement.querySelector('mark')?.scrollIntoView({ block: 'center' }));
    });
  }

  protected choose(id: Id): void {
    this.chosenCode.set(id);
  }

  protected step(by: -1 | 1): void {
    this.at.set(Math.max(0, Math.min(this.left().length - 1, Math.min(this.at(), this.left().length - 1) + by)));
  }

  protected keep(): void {
    const [passage, code] = [this.passage(), this.code()];
    if (passage && code) this.session.run(keepSwept([{ documentId: passage.documentId, passageId: passage.id }], code.id));
  }

  protected drop(): void {
    const [passage, code] = [this.passage(), this.code()];
    const coding = passage?.codings.find((one) => one.codeId === code?.id && one.swept);
    if (passage && coding) this.session.run(removeCoding(passage.documentId, passage.id, coding.codeId, coding.coderId));
  }

  /** Moves the end by a sentence: only this passage, and it stays to be looked at. */
  protected reshape(side: 'start' | 'end', by: -1 | 1): void {
    const [passage, text] = [this.passage(), this.text.value()];
    if (!passage || text?.id !== passage.documentId) return;
    const language = this.data()!.study.language;
    const edge = stepEdge(text, passage[side], side, by, 'sentence', language);
    const place = { start: passage.start, end: passage.end, [side]: edge };
    if (place.start < place.end) this.session.run(movePassage(passage.documentId, passage.id, place));
  }

  protected async exchange(): Promise<void> {
    const [passage, code] = [this.passage(), this.code()];
    if (!passage || !code) return;
    const chosen = await ChooseCode.open(this.dialog, { title: `Instead of ${code.name}`, except: new Set([code.id]), mayMake: true });
    const to = wantedCodes(chosen, code.parentId);
    if (to) this.session.run(recode(passage.documentId, passage.id, code.id, to));
  }

  protected keepAll(): void {
    const code = this.code();
    if (code)
      this.session.run(
        keepSwept(
          this.left().map(({ documentId, id }) => ({ documentId, passageId: id })),
          code.id,
        ),
      );
  }

  protected read(): void {
    const passage = this.passage();
    if (passage) this.ways.go(['reading', passage.documentId], { queryParams: { passage: passage.id, from: 'what was swept' } });
  }

  protected onKey(event: KeyboardEvent): void {
    if (belongsToField(event) || event.ctrlKey || event.metaKey || event.altKey || isCovered() || !this.passage()) return;
    const acts: Readonly<Record<string, () => unknown>> = {
      k: () => this.keep(),
      d: () => this.drop(),
      x: () => this.exchange(),
      s: () => this.reshape('end', -1),
      l: () => this.reshape('end', 1),
      S: () => this.reshape('start', 1),
      L: () => this.reshape('start', -1),
      ArrowLeft: () => this.step(-1),
      ArrowRight: () => this.step(1),
    };
    const act = acts[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  }
}
