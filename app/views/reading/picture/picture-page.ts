import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal, untracked, viewChild } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { beginTranscript } from '@core/commands/recordings';
import { showPicture } from '@core/commands/pictures';
import { boxOf, type Area } from '@core/model/area';
import { randomId, type Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import { coveredOf, shareCovered } from '@core/passages/covered';
import { isShown } from '@core/pictures/frame';
import { placeOf } from '@core/text/citation';
import { counted } from '@core/text/counted';
import { StudySession } from '../../../state/study-session';
import { selectScopedPassages, selectStudy } from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { SentencePart, type Choice } from '../../../ui/sentence/sentence-part';
import { Swatch } from '../../../ui/swatch/swatch';
import { MissingFile } from '../../../ui/missing-file/missing-file';
import { PassageWork } from '../passage-work';
import { ReadingHere } from '../reading-here';
import type { SurfaceCommand } from '../surface/reading-surface';
import { PictureHere } from './picture-here';
import { PictureSurface, type Shape } from './picture-surface';
import { PictureResizing } from './picture-resizing';

/** A picture with its areas, their slips at the side, and how it is shown in a sentence below. */
@Component({
  selector: 'fl-picture-page',
  imports: [Icon, MissingFile, PictureSurface, RouterLink, SentencePart, Swatch],
  providers: [PictureResizing],
  templateUrl: './picture-page.html',
  styleUrl: './picture-page.scss',
  host: { '[class.compact]': 'compact()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PicturePage {
  /** Beside a text: without slips of its own. */
  readonly compact = input(false);
  readonly asked = output<SurfaceCommand>();
  readonly shown = output<Id>();

  protected readonly here = inject(ReadingHere);
  protected readonly pictured = inject(PictureHere);
  protected readonly resizing = inject(PictureResizing);
  private readonly work = inject(PassageWork);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly ways = inject(Ways);
  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly columns = this.store.selectSignal(selectScopedPassages);
  private readonly surface = viewChild(PictureSurface);

  protected readonly shape = signal<Shape>('rectangle');
  protected readonly shapes: readonly Choice<Shape>[] = [
    { value: 'rectangle', name: 'a rectangle' },
    { value: 'ellipse', name: 'an ellipse' },
    { value: 'outline', name: 'an outline by hand' },
  ];
  protected readonly shapeWords = computed(() => this.shapes.find((one) => one.value === this.shape())!.name);
  protected readonly scale = computed(() => {
    const scale = this.surface()?.view.scale() ?? 1;
    return `× ${scale < 0.1 ? scale.toFixed(2) : scale < 2 ? scale.toFixed(1) : Math.round(scale)}`;
  });
  protected readonly rows = computed(() => {
    const picture = this.pictured.picture();
    const codes = this.here.codes();
    if (!picture) return [];
    return this.pictured.passages().map((passage) => ({
      passage,
      codes: [...new Set(passage.codings.map((coding) => coding.codeId))].flatMap((id) => codes[id] ?? []),
      where: placeOf(picture, null, passage).position,
      outside: !isShown(picture.ground, passage.area!),
    }));
  });
  protected readonly hiddenWords = computed(() => {
    const hidden = this.pictured.hidden();
    return hidden > 0 ? `${counted(hidden, 'area lies', 'areas lie')} outside of what is shown` : '';
  });
  protected readonly coded = computed(() => {
    const picture = this.pictured.picture();
    const share = picture ? shareCovered(coveredOf(picture, this.columns()[picture.id])) : 0;
    return share > 0 && share < 0.005 ? '< 1 % coded' : `${Math.round(100 * share)} % coded`;
  });

  constructor() {
    this.here.coordsOfMarked = () => {
      const area = this.activeArea();
      return (area && this.surface()?.coordsOf(area)) ?? null;
    };
    // what is chosen elsewhere, in the list or by its address, comes into sight
    effect(() => {
      const id = this.here.chosenId();
      const surface = this.surface();
      untracked(() => {
        const area = this.pictured.passages().find((passage) => passage.id === id)?.area;
        if (area && surface) surface.bringIn(area);
      });
    });
  }

  private activeArea(): Area | null {
    return this.here.marked()?.area ?? this.here.chosen()?.area ?? null;
  }

  protected choose(id: Id | null): void {
    this.here.chosenId.set(id);
    if (id) this.shown.emit(id);
  }

  protected move({
    passageId,
    place,
  }: {
    readonly passageId: Id;
    readonly place: { start: number; end: number; area?: Area | undefined };
  }): void {
    this.work.move(passageId, place);
  }

  /** Turns over, and brings the words of the page into view. */
  protected turnPage(by: 1 | -1): void {
    const page = this.pictured.pageNumber() + by;
    this.pictured.pageNumber.set(page);
    this.here.marked.set(null);
    const at = this.here.text()?.marks.find((mark) => mark.kind === 'page' && mark.value === page)?.at;
    if (at !== undefined) this.here.surface()?.scrollTo(at);
  }

  protected zoom(by: number): void {
    this.surface()?.view.zoom(by);
  }

  protected showWhole(): void {
    this.surface()?.view.showWhole();
  }

  protected show(change: 'turn' | 'turn back' | 'mirror' | 'whole'): void {
    const picture = this.pictured.picture();
    if (picture) this.session.run(showPicture(picture.id, change));
  }

  /** Only the part around what is marked, or chosen, is shown from then on. */
  protected cut(): void {
    const picture = this.pictured.picture();
    const area = this.activeArea();
    if (!picture || !area) return;
    if (this.session.run(showPicture(picture.id, { crop: boxOf(area) }))) this.here.marked.set(null);
  }

  protected async describe(): Promise<void> {
    const picture = this.pictured.picture();
    if (!picture) return;
    const id = randomId();
    const title = await this.ask.keep(
      'A description of this picture',
      'Title',
      `${picture.title}, described`,
      'Begin it',
      (title) => this.session.attempt(beginTranscript(picture.id, title, id)).refused,
    );
    if (title !== null) this.ways.go(['reading', id], { queryParams: { as: 'correcting' } });
  }

  protected label(passage: Passage, names: string, where: string): string {
    return `${names || 'no code yet'}, ${where}${passage.comment ? `: ${passage.comment}` : ''}`;
  }

  protected namesOf(codes: readonly { readonly name: string }[]): string {
    return codes.map((code) => code.name).join(', ');
  }
}
