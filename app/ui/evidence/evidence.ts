import { ChangeDetectionStrategy, Component, computed, inject, input, model, output, resource, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import type { Code } from '@core/model/code';
import type { Area } from '@core/model/area';
import { hasText, type Document, type Text } from '@core/model/document';
import type { Stretch } from '@core/model/stretch';
import { passageOf } from '@core/passages/columns';
import type { Hit } from '@core/queries/evaluate';
import { paragraphAt } from '@core/text/paragraphs';
import { counted } from '@core/text/counted';
import { quoted } from '@core/text/quoted';
import { citation, placeOf } from '@core/text/citation';
import { isTimed, spanOf } from '@core/text/timeline';
import { Notices } from '../../state/notices';
import { TextCache } from '../../state/text-cache';
import { selectCodes, selectDocuments, selectPassages } from '../../state/study.selectors';
import { Icon } from '../icon/icon';
import { CutOut } from '../pictures/cut-out';
import { Player } from '../sound/player';
import { Swatch } from '../swatch/swatch';

/** Passages on one page: enough to read on, few enough to lay out at once. */
const PAGE = 60;
/** How much is shown around a passage. */
export const SURROUNDINGS = ['some words around', 'the whole paragraph', 'the paragraphs beside'] as const;
export type Surroundings = (typeof SURROUNDINGS)[number];
/** Characters of context on each side where only some words are shown, at most to the paragraph's ends. */
const CONTEXT = 140;

interface Piece {
  readonly hit: Hit;
  /** What it stands under: its document, where nothing else is asked for. */
  readonly head: string;
  readonly where: string;
  readonly before: string;
  readonly words: string;
  readonly after: string;
  readonly codes: readonly Code[];
  readonly citation: string;
  /** The recording and when in it the passage is heard; null for what is not heard. */
  readonly heard: { readonly recording: Document; readonly span: Stretch } | null;
  /** The picture it is an area of, with the colours of its codes; null for what is none. */
  readonly cut: {
    readonly document: Document;
    readonly areas: readonly { readonly area: Area; readonly colours: readonly number[] }[];
  } | null;
}

/** The passages behind an answer or a number, in their context: the same everywhere. */
@Component({
  selector: 'fl-evidence',
  imports: [CutOut, Icon, Swatch],
  providers: [Player],
  templateUrl: './evidence.html',
  styleUrls: ['./in-context.scss', './evidence.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Evidence {
  readonly hits = input.required<readonly Hit[]>();
  readonly around = input<Surroundings>('some words around');
  /** What passages stand under, where that is not their document. */
  readonly headOf = input<(hit: Hit) => string | null>(() => null);
  /** Passages chosen by the researcher; null where none can be chosen. */
  readonly chosen = model<ReadonlySet<Id> | null>(null);
  /** The researcher wants to see the passage where it stands. */
  readonly read = output<Hit>();

  private readonly store = inject(Store);
  private readonly texts = inject(TextCache);
  private readonly notices = inject(Notices);
  protected readonly player = inject(Player);
  /** The passage whose clip is played. */
  protected readonly playing = signal<Id | null>(null);
  private readonly documents = this.store.selectSignal(selectDocuments);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly passages = this.store.selectSignal(selectPassages);
  /** Which page of passages is shown. */
  readonly page = model(0);
  protected readonly pages = computed(() => Math.max(1, Math.ceil(this.hits().length / PAGE)));
  protected readonly shownPage = computed(() => Math.min(this.page(), this.pages() - 1));
  protected readonly first = computed(() => this.shownPage() * PAGE);
  private readonly shown = computed(() => this.hits().slice(this.first(), this.first() + PAGE));
  private readonly found = resource({
    params: () => ({
      changes: this.texts.changes(),
      hits: this.shown(),
      documents: this.documents(),
      codes: this.codes(),
      passages: this.passages(),
      around: this.around(),
      headOf: this.headOf(),
    }),
    loader: async ({ params }) => {
      const found = await Promise.all(params.hits.map((hit) => this.pieceOf(hit)));
      return { pieces: found.filter((piece) => piece !== null), unread: params.hits.filter((_, at) => found[at] === null) };
    },
  });
  protected readonly pieces = computed(() => this.found.value()?.pieces ?? []);
  protected readonly last = computed(() => this.first() + this.shown().length);
  /** What is said where the words of passages are not to be had: how many, and of which documents. */
  protected readonly unread = computed(() => {
    const unread = this.found.value()?.unread ?? [];
    const titles = [...new Set(unread.flatMap(({ documentId }) => this.documents()[documentId]?.title ?? []))];
    if (titles.length === 0) return null;
    const some = titles.slice(0, 3).map(quoted).join(', ');
    return `${counted(unread.length, 'passage')} cannot be shown: the words of ${some}${titles.length > 3 ? ` and ${titles.length - 3} more` : ''} could not be read from this browser’s storage.`;
  });

  protected again(): void {
    this.found.reload();
  }

  private async pieceOf(hit: Hit): Promise<Piece | null> {
    const document = this.documents()[hit.documentId];
    // a disk that fails at one text leaves the others to be shown
    const text = await this.texts.get(hit.documentId).catch(() => null);
    if (!document || (!text && hasText(document))) return null;
    const passage = passageOf(this.passages()[hit.documentId], hit.passageId) ?? hit;
    const place = placeOf(document, text, passage);
    const codes = this.codesOn(hit.documentId, hit.passageId);
    const area = 'area' in passage ? passage.area : undefined;
    const head = this.headOf()(hit);
    const cited = {
      hit,
      head: head ?? document.title,
      where: [head === null ? '' : document.title, place.speaker, place.position].filter(Boolean).join(' · '),
      codes,
      heard: this.heardAt(document, text, passage),
      cut: area ? { document, areas: [{ area, colours: codes.map((code) => code.colour) }] } : null,
      citation: citation(document, text, passage),
    };
    if (!text) return { ...cited, before: '', words: '', after: '' };
    const beside = this.around() === 'the paragraphs beside' ? 1 : 0;
    const context = this.around() === 'some words around' ? CONTEXT : Infinity;
    const at = Math.max(0, paragraphAt(text.paragraphs, hit.start) - beside);
    const paragraph = text.paragraphs[at];
    const from = wordStart(text.text, Math.max(paragraph?.body ?? 0, hit.start - context), paragraph?.body ?? 0, hit.start);
    const last = text.paragraphs[Math.min(text.paragraphs.length - 1, paragraphAt(text.paragraphs, hit.end - 1) + beside)];
    const to = wordEnd(text.text, Math.min(last?.end ?? hit.end, hit.end + context), last?.end ?? hit.end, hit.end);
    return {
      ...cited,
      before: (from > (paragraph?.body ?? 0) ? '…' : '') + text.text.slice(from, hit.start),
      words: text.text.slice(hit.start, hit.end),
      after: text.text.slice(hit.end, to) + (to < (last?.end ?? to) ? '…' : ''),
    };
  }

  /** When a passage is heard: its own span, or that of its words where a transcript tells. */
  private heardAt(document: Document, text: Text | null, { start, end }: Stretch): Piece['heard'] {
    if (document.ground.of === 'time') return { recording: document, span: { start, end } };
    const recording = this.documents()[document.belongsTo ?? ''];
    return text && recording?.ground.of === 'time' && isTimed(text) ? { recording, span: spanOf(text, { start, end }) } : null;
  }

  /** Plays the clip of a passage in place, or stops it. */
  protected async play({ heard, hit }: Piece): Promise<void> {
    if (!heard) return;
    const { player } = this;
    if (this.playing() === hit.passageId && player.playing()) return player.stop();
    this.playing.set(hit.passageId);
    player.use(heard.recording);
    if (await player.ready()) player.playSpan(heard.span);
    else this.notices.refuse(`The file of “${heard.recording.title}” is not here, or may not be read. Find it in Reading.`);
  }

  private codesOn(documentId: Id, passageId: Id): Code[] {
    const passage = passageOf(this.passages()[documentId], passageId);
    return [...new Set(passage?.codings.map((coding) => coding.codeId))].map((id) => this.codes()[id]).filter((code) => code !== undefined);
  }

  protected toggle(id: Id): void {
    const next = new Set(this.chosen());
    if (!next.delete(id)) next.add(id);
    this.chosen.set(next);
  }

  protected async copy(piece: Piece): Promise<void> {
    await navigator.clipboard.writeText(piece.citation);
    this.notices.say('Copied with its citation.');
  }
}

/** Where context begins without cutting a word: after the next space, if that is still in front of the passage. */
function wordStart(text: string, from: number, first: number, before: number): number {
  if (from <= first) return first;
  const space = text.indexOf(' ', from);
  return space >= 0 && space < before ? space + 1 : from;
}

/** Where context ends without cutting a word: at the last space, if that is still behind the passage. */
function wordEnd(text: string, to: number, last: number, after: number): number {
  if (to >= last) return last;
  const space = text.lastIndexOf(' ', to);
  return space > after ? space : to;
}
