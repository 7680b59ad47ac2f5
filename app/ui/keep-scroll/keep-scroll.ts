import { afterNextRender, Directive, effect, ElementRef, inject, Injector } from '@angular/core';
import { Visits } from '../../state/visits';

/** Milliseconds after which what is not shown at once in a place that came back is. */
const SHOWN_LATER = 40;

/** Brings a list back to where it was scrolled to when its place, kept off the screen, comes back: the browser forgets it. */
@Directive({ selector: '[flKeepScroll]' })
export class KeepScroll {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private top = 0;

  constructor() {
    // not a listener of the template's: scrolling need not be followed by a look at every binding
    this.host.addEventListener('scroll', () => (this.top = this.host.scrollTop), { passive: true });
    const visits = inject(Visits);
    const injector = inject(Injector);
    effect(() => {
      if (visits.count() === 0 || this.top === 0) return;
      afterNextRender({ write: () => this.bringBack() }, { injector });
    });
  }

  private bringBack(): void {
    const { top } = this;
    this.host.scrollTop = top;
    if (this.host.clientHeight === 0) setTimeout(() => (this.host.scrollTop = top), SHOWN_LATER);
  }
}
