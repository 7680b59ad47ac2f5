import { Injectable } from '@angular/core';

/** As long as evidence is looked for after coming back: texts may have to be read first, milliseconds. */
const PATIENCE = 3_000;

/** Where the reader was in the evidence of a number when a passage was read in its place: coming back leads there. */
@Injectable({ providedIn: 'root' })
export class ReadBehind {
  private left: { readonly of: string; readonly page: number; readonly top: number } | null = null;

  /** @param of what tells the number from others @param top how far the evidence is scrolled, px */
  leave(of: string, page: number, top: number): void {
    this.left = { of, page, top };
  }

  /** The page that was left, of this number; the first of any other. */
  pageOf(of: string): number {
    return this.left?.of === of ? this.left.page : 0;
  }

  /** Scrolls to where it was left, once all of it is drawn. */
  comeBack(of: string, view: HTMLElement): void {
    const { left } = this;
    this.left = null;
    if (left?.of !== of || left.top === 0) return;
    const until = performance.now() + PATIENCE;
    const scroll = (): void => {
      if (!view.isConnected || performance.now() > until) return;
      if (view.scrollHeight - view.clientHeight >= left.top) view.scrollTop = left.top;
      else requestAnimationFrame(scroll);
    };
    requestAnimationFrame(scroll);
  }
}
