import { ChangeDetectionStrategy, Component, computed, effect, ElementRef, inject, resource, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { WEAVE_ORDERS, type WeaveAsked } from '@core/model/pattern';
import { nameOf } from '@core/patterns/axis';
import type { Thread, ThreadPiece, Weave } from '@core/patterns/weave';
import { selectCodes, selectData, selectDocuments, selectPassages, selectScopedDocuments } from '../../state/study.selectors';
import { TextCache } from '../../state/text-cache';
import { Ways } from '../../state/ways';
import { ChosenOf } from '../../ui/sentence/chosen-of';
import { choicesOf, SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import type { Offer } from '../../ui/sentence/choose-several';
import { Swatch } from '../../ui/swatch/swatch';
import { AnalysisService } from '../../workers/analysis-service';
import { weaveDrawing } from './drawing/weave-drawing';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import { RowsPart } from './rows-part';
import type { TableOut } from './take-out';
import { workedOut } from './worked-out';

const BYS: readonly Choice<WeaveAsked['by']>[] = [
  { value: 'position', name: 'position in the text' },
  { value: 'paragraph', name: 'paragraphs of one width' },
  { value: 'turn', name: 'turns of one width' },
  { value: 'second', name: 'when it was said' },
  { value: 'question', name: 'question' },
];
const ZOOMS = [1, 2, 4, 8, 16];
/** Characters of a passage that are shown on hovering. */
const MOST_SHOWN = 400;

type WeaveOrder = NonNullable<WeaveAsked['order']>;

/** A piece that the pointer or the keys are at. */
interface At {
  readonly documentId: Id;
  readonly key: string;
  readonly piece: ThreadPiece;
}

/** Documents as threads by code, from their first word to their last, with who speaks below. */
@Component({
  selector: 'fl-weave',
  imports: [ChosenOf, PatternPlace, RowsPart, SentencePart, Swatch],
  templateUrl: './weave-view.html',
  styleUrls: ['./pattern.scss', './weave-view.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WeaveView {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(PatternDraft);
  private readonly texts = inject(TextCache);
  private readonly ways = inject(Ways);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly data = this.store.selectSignal(selectData);
  private readonly passages = this.store.selectSignal(selectPassages);
  private readonly scoped = this.store.selectSignal(selectScopedDocuments);
  protected readonly documents = this.store.selectSignal(selectDocuments);
  protected readonly codes = this.store.selectSignal(selectCodes);
  protected readonly asked = this.draft.of('weave');
  protected readonly bys = BYS;
  protected readonly byWords = computed(() => BYS.find((one) => one.value === this.asked().by)!.name);
  protected readonly offers = computed((): Offer[] =>
    this.scoped()
      .filter((document) => document.ground.of !== 'picture')
      .map(({ id, title }) => ({ id, name: title })),
  );
  /** The documents that are shown: those chosen, else the first in scope that has anything coded. */
  protected readonly chosen = computed((): readonly Id[] => {
    const { documentIds } = this.asked();
    if (documentIds.length > 0) return documentIds;
    const [passages, offers] = [this.passages(), this.offers()];
    const first = offers.find(({ id }) => (passages[id]?.codingRow.length ?? 0) > 0) ?? offers[0];
    return first ? [first.id] : [];
  });
  protected readonly work = workedOut(
    () => {
      const { order: _, ...asked } = this.asked();
      return this.chosen().length > 0 ? { ...asked, documentIds: [...this.chosen()] } : undefined;
    },
    (data, asked, at) => this.analysis.weave(data, asked, at),
  );
  protected readonly orders = choicesOf(WEAVE_ORDERS);
  protected readonly orderWords = computed((): WeaveOrder => this.asked().order ?? 'as in the codebook');
  /** The threads of all documents that are shown, in one order, so that they lie under each other. */
  protected readonly weaves = computed(() => {
    const weaves = this.work.shown() ?? [];
    const rankOf = RANKS[this.orderWords()];
    const all = joinedThreads(weaves).sort((a, b) => rankOf(a) - rankOf(b) || a.place - b.place);
    return weaves.map((weave) => {
      const found = new Map(weave.threads.map((thread) => [thread.entry.key, thread]));
      const threads = all.map(({ entry, place }): Thread => found.get(entry.key) ?? { entry, place, passages: 0, pieces: [] });
      return { weave, threads, title: this.documents()[weave.documentId]?.title ?? '', marks: this.marksOf(weave) };
    });
  });
  protected readonly zooms = ZOOMS;
  protected readonly zoom = signal(1);
  protected readonly at = signal<At | null>(null);
  /** The words of what the pointer is at. */
  protected readonly words = resource({
    params: () => this.at() ?? undefined,
    loader: async ({ params: { documentId, piece } }) => {
      const text = await this.texts.get(documentId);
      const words = text?.text.slice(piece.start, piece.end) ?? '';
      return words.length > MOST_SHOWN ? `${words.slice(0, MOST_SHOWN)}…` : words;
    },
  });
  protected readonly title = computed(() => {
    const weaves = this.weaves();
    return weaves.length === 1 ? weaves[0]!.title : weaves.length === 0 ? 'Weave' : `${weaves.length} documents`;
  });
  protected readonly out = computed((): TableOut | null => {
    const weaves = this.weaves();
    if (weaves.length === 0) return null;
    return {
      name: `Weave of ${this.title()}`,
      sheets: () => [
        {
          name: 'Threads',
          rows: [
            ['document', 'code', 'from', 'to', 'from, share of the whole', 'to, share of the whole'],
            ...weaves.flatMap(({ title, threads }) =>
              threads.flatMap(({ entry, pieces }) =>
                pieces.map(({ start, end, from, to }) => [title, nameOf(entry), start, end, from, to]),
              ),
            ),
          ],
        },
      ],
      drawing: () => weaveDrawing(weaves, this.codes()),
      said: `Each thread is a code, from the first word to the last, by ${this.byWords()}. Positions are characters of the text, or milliseconds of a recording.`,
    };
  });
  protected readonly nameOf = nameOf;

  constructor() {
    // what the pointer was at may be gone
    effect(() => {
      this.work.shown();
      untracked(() => this.at.set(null));
    });
  }

  protected set(change: Partial<WeaveAsked>): void {
    this.draft.set({ ...this.asked(), ...change });
  }

  protected setOrder(order: WeaveOrder): void {
    const { order: _, ...rest } = this.asked();
    this.draft.set(order === 'as in the codebook' ? rest : { ...rest, order });
  }

  protected read(documentId: Id, piece: ThreadPiece): void {
    this.ways.go(['reading', documentId], { queryParams: { passage: piece.passageId, from: 'the pattern' } });
  }

  /** Arrow keys go from passage to passage on a thread, and from thread to thread; Enter reads there. */
  protected onKey(event: KeyboardEvent, weave: Weave, threads: readonly Thread[]): void {
    const now = this.at();
    const lines = threads.filter((thread) => thread.pieces.length > 0);
    if (lines.length === 0) return;
    const line = Math.max(
      0,
      lines.findIndex((thread) => now?.documentId === weave.documentId && thread.entry.key === now.key),
    );
    const nth = now?.documentId === weave.documentId ? lines[line]!.pieces.indexOf(now.piece) : -1;
    const go = (to: number, piece: number): void => {
      const thread = lines[Math.max(0, Math.min(lines.length - 1, to))]!;
      const found = thread.pieces[Math.max(0, Math.min(thread.pieces.length - 1, piece))]!;
      this.at.set({ documentId: weave.documentId, key: thread.entry.key, piece: found });
    };
    const nearest = (to: number): number => {
      const pieces = lines[Math.max(0, Math.min(lines.length - 1, to))]!.pieces;
      const from = now?.piece.from ?? 0;
      return pieces.reduce((best, one, at) => (Math.abs(one.from - from) < Math.abs(pieces[best]!.from - from) ? at : best), 0);
    };
    switch (event.key) {
      case 'ArrowRight':
        go(line, nth + 1);
        break;
      case 'ArrowLeft':
        go(line, nth - 1);
        break;
      case 'ArrowDown':
        go(line + 1, nearest(line + 1));
        break;
      case 'ArrowUp':
        go(line - 1, nearest(line - 1));
        break;
      case 'Enter':
        if (now && nth >= 0) this.read(weave.documentId, now.piece);
        break;
      default:
        return;
    }
    event.preventDefault();
    event.stopPropagation();
    setTimeout(() => this.host.querySelector('.piece.at')?.scrollIntoView({ block: 'nearest', inline: 'nearest' }));
  }

  private marksOf({ marks }: Weave): { readonly at: number; readonly name: string }[] {
    const questions = this.data()?.tables.question ?? {};
    return marks.map(({ at, questionId }) => ({ at, name: questions[questionId]?.text ?? '' }));
  }
}

/** A thread through all documents that are shown. */
interface JoinedThread extends Pick<Thread, 'entry' | 'place' | 'passages'> {
  /** Where it begins first in any of them. */
  readonly begins: number;
}

const RANKS: Readonly<Record<WeaveOrder, (thread: JoinedThread) => number>> = {
  'as in the codebook': ({ place }) => place,
  'by where they begin': ({ begins }) => begins,
  'the most first': ({ passages }) => -passages,
};

function joinedThreads(weaves: readonly Weave[]): JoinedThread[] {
  const joined = new Map<string, JoinedThread>();
  for (const { threads } of weaves)
    for (const { entry, place, passages, pieces } of threads) {
      const before = joined.get(entry.key);
      const begins = Math.min(before?.begins ?? Infinity, pieces[0]?.from ?? Infinity);
      joined.set(entry.key, { entry, place, begins, passages: (before?.passages ?? 0) + passages });
    }
  return [...joined.values()];
}
