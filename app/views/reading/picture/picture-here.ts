import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Document } from '@core/model/document';
import type { Ground } from '@core/model/ground';
import type { Passage } from '@core/model/passage';
import { isShown } from '@core/pictures/frame';
import { naturalOrder } from '@core/text/natural-order';
import { MediaFiles } from '../../../state/media-files';
import { selectDocuments } from '../../../state/study.selectors';
import { PictureLevels } from '../../../ui/pictures/picture-levels';
import type { Unplayed } from '../../../ui/sound/player';
import { ReadingHere } from '../reading-here';

/** A document that is a picture. */
export type Picture = Document & { readonly ground: Extract<Ground, { of: 'picture' }> };

/** The picture at hand: the document itself, or what the text that is read describes. */
@Injectable()
export class PictureHere {
  private readonly here = inject(ReadingHere);
  private readonly files = inject(MediaFiles);
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

  constructor() {
    const content = computed(() => {
      const ground = this.picture()?.ground;
      return ground ? `${ground.media.sha256} ${ground.page ?? ''}` : '';
    });
    effect((onCleanup) => {
      this.files.changes();
      let wanted = content() !== '';
      onCleanup(() => (wanted = false));
      untracked(() => void this.load(() => wanted));
    });
    inject(DestroyRef).onDestroy(() => this.decoded()?.close());
  }

  private async load(isWanted: () => boolean): Promise<void> {
    this.decoded()?.close();
    this.decoded.set(null);
    this.trouble.set(null);
    const ground = this.picture()?.ground;
    if (!ground || !isWanted()) return;
    const found = await this.files.find(ground.media);
    if (!isWanted()) return;
    if ('missing' in found) return this.trouble.set(found.missing);
    try {
      const levels = await PictureLevels.of(found.file, ground);
      if (isWanted()) this.decoded.set(levels);
      else levels.close();
    } catch {
      if (isWanted()) this.trouble.set('broken');
    }
  }
}
