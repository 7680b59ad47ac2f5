import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Document, Text } from '@core/model/document';
import type { Ground, Media } from '@core/model/ground';
import { randomId, type Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import type { Box } from '@core/model/area';
import type { Stretch } from '@core/model/stretch';
import { layThreads } from '@core/passages/threads';
import { isShown } from '@core/pictures/frame';
import { linesOf, wordsOnPage, type PageWords } from '@core/pictures/words-on-page';
import { naturalOrder } from '@core/text/natural-order';
import { keptSignal } from '../../../state/kept-signal';
import { MediaFiles } from '../../../state/media-files';
import { selectDocuments } from '../../../state/study.selectors';
import { PictureLevels } from '../../../ui/pictures/picture-levels';
import type { Unplayed } from '../../../ui/sound/player';
import { PagesService } from '../../../workers/pages-service';
import { ReadingHere } from '../reading-here';

/** A document that is a picture. */
export type Picture = Document & { readonly ground: Extract<Ground, { of: 'picture' }> };

/** A code on words of a text, as it is drawn under them on their page. */
export interface Underline {
  readonly passageId: Id;
  readonly colour: number;
  readonly lane: number;
  readonly lines: readonly Box[];
}

/** The picture at hand: the document itself, or what the text that is read describes. */
@Injectable()
export class PictureHere {
  private readonly here = inject(ReadingHere);
  private readonly files = inject(MediaFiles);
  private readonly drawing = inject(PagesService);
  private readonly documents = inject(Store).selectSignal(selectDocuments);

  readonly picture = computed((): Picture | undefined => {
    const original = this.here.original();
    return original?.ground.of === 'picture' ? (original as Picture) : undefined;
  });
  /** Texts that belong to it. */
  readonly descriptions = computed((): readonly Document[] => {
    const id = this.picture()?.id;
    const all = Object.values(this.documents()).filter((one) => one.belongsTo === id && one.ground.of === 'text');
    return id === undefined ? [] : naturalOrder(all, (one) => one.title);
  });
  private readonly decoded = signal<PictureLevels | null>(null);
  /** The picture itself, once it is decoded. */
  readonly levels = this.decoded.asReadonly();
  private readonly trouble = signal<Unplayed | null>(null);
  readonly unshown = this.trouble.asReadonly();
  /** What is coded of it, in reading order. */
  readonly passages = computed((): readonly Passage[] =>
    this.here.document()?.id === this.picture()?.id ? this.here.passages() : this.here.originalPassages(),
  );
  /** How many of its areas lie outside of what is shown. */
  readonly hidden = computed(() => {
    const ground = this.picture()?.ground;
    return ground?.shown?.crop ? this.passages().filter(({ area }) => area && !isShown(ground, area)).length : 0;
  });

  /** Pages of the PDF that the text was read from; 0 where it was read from none, or its pages are put away. */
  readonly pages = computed(() => {
    const document = this.here.document();
    return document?.seen && (this.seesPages() || document.characters === 0) ? document.seen.pages : 0;
  });
  /** Whether pages are seen beside the text; those of a scan always are. */
  readonly seesPages = keptSignal('filum-sees-pages', false, (stored): stored is boolean => typeof stored === 'boolean');
  /** Which page is seen, from 1. */
  readonly pageNumber = signal(1);
  private readonly printed = signal<readonly PageWords[]>([]);
  /** What is coded of the words of the page, as lines under them. */
  readonly underlines = computed((): readonly Underline[] => {
    const text = this.here.text();
    const printed = this.printed();
    if (!text || printed.length === 0) return [];
    const codes = this.here.codes();
    const stretch = stretchOfPage(text, this.pageNumber());
    const words = wordsOnPage(text.text, stretch, printed);
    const near = this.here.passages().filter((passage) => passage.start < stretch.end && passage.end > stretch.start);
    return layThreads(near, (id) => Object.hasOwn(codes, id)).map(({ passageId, codeId, lane, start, end }) => ({
      passageId,
      colour: codes[codeId]!.colour,
      lane,
      lines: linesOf(words.flatMap((word) => (word.start < end && word.end > start ? word.boxes : []))),
    }));
  });

  constructor() {
    const content = computed(() => {
      const { page, media } = this.wanted() ?? {};
      return media ? `${media.sha256} ${page ?? ''}` : '';
    });
    effect((onCleanup) => {
      this.files.changes();
      let wanted = content() !== '';
      onCleanup(() => (wanted = false));
      untracked(() => void this.load(() => wanted));
    });
    effect(() => {
      this.here.documentId();
      untracked(() => this.pageNumber.set(1));
    });
    // the page turns with the text that is read
    effect(() => {
      const text = this.here.text();
      const at = this.here.at();
      if (!text || this.pages() === 0) return;
      const page = text.marks.findLast((mark) => mark.kind === 'page' && mark.at <= at)?.value;
      if (page !== undefined) untracked(() => this.pageNumber.set(page));
    });
    // once something of a page is coded, the document that it has become is the one that is seen
    effect(() => {
      const page = this.here.page();
      const known = page && this.here.belonging().find((one) => one.ground.of === 'picture' && one.ground.page === pageOf(page));
      if (known && known !== page) untracked(() => this.here.page.set(known));
    });
    inject(DestroyRef).onDestroy(() => this.decoded()?.close());
  }

  /** The file and, of a PDF, the page that is to be seen. */
  private readonly wanted = computed((): { readonly media: Media; readonly page: number | undefined } | null => {
    const document = this.here.document();
    if (document?.seen) return this.pages() > 0 ? { media: document.seen.media, page: this.pageNumber() } : null;
    const ground = this.picture()?.ground;
    return ground ? { media: ground.media, page: ground.page } : null;
  });

  private async load(isWanted: () => boolean): Promise<void> {
    this.decoded()?.close();
    this.decoded.set(null);
    this.trouble.set(null);
    this.printed.set([]);
    const wanted = this.wanted();
    if (!wanted || !isWanted()) return this.here.page.set(undefined);
    const found = await this.files.find(wanted.media);
    if (!isWanted()) return;
    if ('missing' in found) return this.trouble.set(found.missing);
    if (wanted.page !== undefined) return this.loadPage(wanted.media, found.file, wanted.page, isWanted);
    try {
      const levels = await PictureLevels.of(found.file, this.picture()!.ground);
      if (isWanted()) this.decoded.set(levels);
      else levels.close();
    } catch {
      if (isWanted()) this.trouble.set('broken');
    }
  }

  private async loadPage(media: Media, file: Blob, page: number, isWanted: () => boolean): Promise<void> {
    const seen = await this.drawing.page(media.sha256, file, page);
    if (!isWanted()) return seen?.bitmap.close();
    if (!seen) return this.trouble.set('broken');
    const { width, height } = seen;
    const document = this.here.document();
    if (document?.seen) {
      const known = this.here.belonging().find((one) => one.ground.of === 'picture' && one.ground.page === page);
      this.here.page.set(known ?? pageDocument(document, { of: 'picture', width, height, media, page }));
    }
    const levels = await PictureLevels.from(seen.bitmap, width);
    if (!isWanted()) return levels.close();
    this.printed.set(document?.seen ? seen.words : []);
    this.decoded.set(levels);
  }
}

const pageOf = ({ ground }: Document): number | undefined => (ground.of === 'picture' ? ground.page : undefined);

/** A page as the document that it becomes with the first area that is coded of it. */
const pageDocument = (text: Document, ground: Picture['ground']): Document => ({
  id: randomId(),
  title: `${text.title}, page ${ground.page}`.slice(0, 500),
  ground,
  belongsTo: text.id,
  kind: 'picture',
  date: text.date,
  folderId: text.folderId,
  description: '',
  speakers: [],
  characters: 0,
  words: 0,
  source: null,
  values: {},
  answers: [],
  createdAt: 0,
});

/** The part of a text that stands on a page. */
function stretchOfPage({ text, marks }: Text, page: number): Stretch {
  const pages = marks.filter((mark) => mark.kind === 'page');
  const at = pages.findIndex((mark) => mark.value === page);
  if (at < 0) return { start: 0, end: pages.length === 0 ? text.length : 0 };
  return { start: pages[at]!.at, end: pages[at + 1]?.at ?? text.length };
}
