import { ChangeDetectionStrategy, Component, effect, type ElementRef, inject, input, untracked, viewChild } from '@angular/core';
import { boxOf, type Area } from '@core/model/area';
import type { Document } from '@core/model/document';
import { after, mapped, shownMap } from '@core/pictures/frame';
import { MediaFiles } from '../../state/media-files';
import { PagesService } from '../../workers/pages-service';
import { outlineOf, strokeOutline } from './outline';
import { PictureLevels } from './picture-levels';

/** Room for a cut-out, pixels; and how much of the surroundings is shown, as a share of the area. */
const ROOM = { width: 320, height: 200 };
const AROUND = 0.6;

/** Some areas of a picture, or the whole of it, small: each outlined, one of them in its surroundings. */
@Component({
  selector: 'fl-cut-out',
  template: `<canvas #canvas role="img" [attr.aria-label]="label()"></canvas>`,
  styles: `
    :host {
      display: block;
    }
    canvas {
      display: block;
      max-width: 100%;
      border: 1px solid var(--rule);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CutOut {
  readonly document = input.required<Document>();
  /** Outlined, each in the colours of its codes (entries of the palette). */
  readonly areas = input.required<readonly { readonly area: Area; readonly colours: readonly number[] }[]>();
  /** Shows all of the picture, and not only what lies around the first area. */
  readonly whole = input(false);
  readonly label = input('');

  private readonly files = inject(MediaFiles);
  private readonly pages = inject(PagesService);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  constructor() {
    effect((onCleanup) => {
      const document = this.document();
      const areas = this.areas();
      const whole = this.whole();
      this.files.changes();
      let wanted = true;
      onCleanup(() => (wanted = false));
      untracked(() => void this.draw(document, areas, whole, () => wanted));
    });
  }

  private async draw({ ground }: Document, areas: ReturnType<typeof this.areas>, whole: boolean, isWanted: () => boolean): Promise<void> {
    if (ground.of !== 'picture') return;
    const found = await this.files.find(ground.media);
    if ('missing' in found || !isWanted()) return;
    const levels = await this.levelsOf(ground, found.file);
    if (!levels) return;
    if (isWanted()) this.paint(ground, levels, areas, whole);
    levels.close();
  }

  private async levelsOf(ground: Extract<Document['ground'], { of: 'picture' }>, file: Blob): Promise<PictureLevels | null> {
    try {
      if (ground.page === undefined) return await PictureLevels.of(file, ground);
      const seen = await this.pages.page(ground.media.sha256, file, ground.page);
      return seen && (await PictureLevels.from(seen.bitmap, ground.width));
    } catch {
      return null;
    }
  }

  private paint(
    ground: Extract<Document['ground'], { of: 'picture' }>,
    levels: PictureLevels,
    areas: ReturnType<typeof this.areas>,
    whole: boolean,
  ): void {
    const canvas = this.canvas().nativeElement;
    const turned = shownMap(ground);
    const own = ground.shown?.crop ?? { left: 0, top: 0, right: ground.width, bottom: ground.height };
    const box = whole || !areas[0] ? own : around(boxOf(areas[0].area), own);
    const [one, other] = [mapped(turned, { x: box.left, y: box.top }), mapped(turned, { x: box.right, y: box.bottom })];
    const [left, top] = [Math.min(one.x, other.x), Math.min(one.y, other.y)];
    const [width, height] = [Math.abs(one.x - other.x), Math.abs(one.y - other.y)];
    const scale = Math.min(ROOM.width / width, ROOM.height / height, 2);
    const density = devicePixelRatio;
    canvas.width = Math.max(1, Math.round(width * scale * density));
    canvas.height = Math.max(1, Math.round(height * scale * density));
    canvas.style.width = `${Math.round(width * scale)}px`;
    const context = canvas.getContext('2d');
    if (!context) return;
    const map = after({ a: scale, b: 0, c: 0, d: scale, e: -left * scale, f: -top * scale }, turned);
    context.setTransform(density, 0, 0, density, 0, 0);
    context.save();
    context.transform(map.a, map.b, map.c, map.d, map.e, map.f);
    context.drawImage(levels.at(scale * density), 0, 0, ground.width, ground.height);
    context.restore();
    const style = getComputedStyle(canvas);
    for (const { area, colours } of areas) {
      const strokes =
        colours.length > 0 ? colours.map((colour) => style.getPropertyValue(`--code-${colour}`)) : [style.getPropertyValue('--ink-second')];
      strokeOutline(context, outlineOf(area, map), strokes, style.getPropertyValue('--surface'), false);
    }
  }
}

/** A box with some of what lies around it, as far as there is any. */
function around(box: ReturnType<typeof boxOf>, within: ReturnType<typeof boxOf>): ReturnType<typeof boxOf> {
  const by = AROUND * Math.max(box.right - box.left, box.bottom - box.top) + 20;
  const left = Math.max(within.left, box.left - by);
  const top = Math.max(within.top, box.top - by);
  return {
    left: Math.min(left, within.right - 1),
    top: Math.min(top, within.bottom - 1),
    right: Math.max(left + 1, Math.min(within.right, box.right + by)),
    bottom: Math.max(top + 1, Math.min(within.bottom, box.bottom + by)),
  };
}
