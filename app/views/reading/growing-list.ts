import { afterRenderEffect, ApplicationRef, computed, ElementRef, inject, signal, untracked, type Signal } from '@angular/core';

/**
 * Rows of uneven height, drawn some at a time: more follow whenever the element `.tail` behind them comes near the
 * window of `.scroll`. To be made where a component is made.
 */
export class GrowingList<T> {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly application = inject(ApplicationRef);
  private readonly limit = signal(0);
  readonly drawn: Signal<readonly T[]>;

  /** @param atOnce rows drawn at first, and how many more at a time */
  constructor(
    private readonly rows: Signal<readonly T[]>,
    private readonly atOnce: number,
  ) {
    this.limit.set(atOnce);
    this.drawn = computed(() => rows().slice(0, this.limit()));
    afterRenderEffect((onCleanup) => {
      this.drawn();
      const tail = this.host.querySelector('.tail');
      if (!tail) return;
      const watch = new IntersectionObserver(([entry]) => entry?.isIntersecting && this.grow(), {
        root: this.host.querySelector('.scroll'),
        rootMargin: '600px',
      });
      watch.observe(tail);
      onCleanup(() => watch.disconnect());
    });
  }

  /** Begins with the first rows again. */
  reset(): void {
    this.limit.set(this.atOnce);
  }

  /** Has a row drawn, if there is one at this place. */
  reach(at: number): void {
    if (at < this.limit() || !this.grow()) return;
    this.application.tick();
  }

  private grow(): boolean {
    if (untracked(this.limit) >= untracked(this.rows).length) return false;
    this.limit.update((limit) => limit + this.atOnce);
    return true;
  }
}
