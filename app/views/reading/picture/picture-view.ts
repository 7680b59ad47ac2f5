import { signal } from '@angular/core';
import { after, inverse, mapped, shownMap, shownSize, type Affine, type Point } from '@core/pictures/frame';
import type { Picture } from './picture-here';

/** The most that a pixel of the picture is drawn as, pixels of the screen. */
const LARGEST = 16;
/** Room around a picture that is shown whole. */
const MARGIN = 12;

/** Which part of a picture is seen, and how large: from its pixels to the screen and back. */
export class PictureView {
  private picture: Pick<Picture['ground'], 'width' | 'height' | 'shown'> | null = null;
  private readonly place = signal({ scale: 1, x: 0, y: 0 });
  private width = 0;
  private height = 0;
  /** Whether the whole picture is shown, and stays so when there is more room. */
  private fits = true;

  /** Pixels of the screen for one of the picture. */
  scale(): number {
    return this.place().scale;
  }

  /** From the picture's own pixels to the screen. */
  map(): Affine {
    const { scale, x, y } = this.place();
    return after(
      { a: scale, b: 0, c: 0, d: scale, e: x, f: y },
      this.picture ? shownMap(this.picture) : { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 },
    );
  }

  /** A point of the screen in the picture's own pixels. */
  toPicture(point: Point): Point {
    return mapped(inverse(this.map()), point);
  }

  /** Shows a picture, or the same one otherwise. */
  show(picture: Pick<Picture['ground'], 'width' | 'height' | 'shown'>): void {
    const before = this.picture && shownSize(this.picture);
    this.picture = picture;
    const size = shownSize(picture);
    if (this.fits || before?.width !== size.width || before.height !== size.height) this.showWhole();
  }

  /** The room there is, in pixels. */
  resize(width: number, height: number): void {
    this.width = width;
    this.height = height;
    if (this.fits) this.showWhole();
    else this.move(0, 0);
  }

  /** Shows all of it. */
  showWhole(): void {
    this.fits = true;
    if (!this.picture || this.width === 0) return;
    const { width, height } = shownSize(this.picture);
    const scale = Math.min(4, (this.width - 2 * MARGIN) / width, (this.height - 2 * MARGIN) / height);
    this.place.set({ scale, x: (this.width - width * scale) / 2, y: (this.height - height * scale) / 2 });
  }

  /** Makes it larger or smaller around a point of the screen. */
  zoom(by: number, around: Point = { x: this.width / 2, y: this.height / 2 }): void {
    this.fits = false;
    const { scale, x, y } = this.place();
    const next = Math.max(this.least(), Math.min(LARGEST, scale * by));
    const share = next / scale;
    this.place.set({ scale: next, x: around.x - (around.x - x) * share, y: around.y - (around.y - y) * share });
    this.move(0, 0);
  }

  /** Moves it, as far as some of it stays in sight. */
  move(dx: number, dy: number): void {
    if (!this.picture) return;
    if (dx !== 0 || dy !== 0) this.fits = false;
    const { scale, x, y } = this.place();
    const { width, height } = shownSize(this.picture);
    const within = (at: number, size: number, room: number): number =>
      size * scale <= room
        ? Math.max(0, Math.min(room - size * scale, at))
        : Math.max(room - size * scale - MARGIN * 4, Math.min(MARGIN * 4, at));
    this.place.set({ scale, x: within(x + dx, width, this.width), y: within(y + dy, height, this.height) });
  }

  /** Brings a box of the screen into sight. */
  bringIn(box: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number }): void {
    const over = (from: number, to: number, room: number): number =>
      from < 8 ? 8 - from : to > room - 8 ? Math.max(room - 8 - to, 8 - from) : 0;
    this.move(over(box.left, box.right, this.width), over(box.top, box.bottom, this.height));
  }

  /** What is seen, in the picture's own pixels. */
  seen(): { readonly from: Point; readonly to: Point } {
    return { from: this.toPicture({ x: 0, y: 0 }), to: this.toPicture({ x: this.width, y: this.height }) };
  }

  private least(): number {
    if (!this.picture) return 0.01;
    const { width, height } = shownSize(this.picture);
    return Math.min(1, (this.width - 2 * MARGIN) / width, (this.height - 2 * MARGIN) / height) / 2;
  }
}
