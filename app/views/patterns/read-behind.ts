import { Injectable } from '@angular/core';
import { scrollBack } from '../../ui/scroll-back';

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
    if (left?.of === of) scrollBack(view, left.top);
  }
}
