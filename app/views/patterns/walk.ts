import { linkedSignal, type Signal, type WritableSignal } from '@angular/core';

const STEPS: Readonly<Record<string, number>> = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 };

/** Things drawn in a row: Tab comes to one of them, arrow keys walk to the next, Enter or a click picks it. */
export class Walk<T> {
  /** The one that Tab comes to. */
  readonly here: WritableSignal<number>;

  /** @param host holds what is drawn @param selector finds the things in it, in their order */
  constructor(
    private readonly all: Signal<readonly T[]>,
    private readonly host: Element,
    private readonly selector: string,
    private readonly picked: (one: T, at: number) => void,
  ) {
    this.here = linkedSignal({ source: all, computation: () => 0 });
  }

  pick(at: number): void {
    this.here.set(at);
    this.picked(this.all()[at]!, at);
  }

  onKey(event: KeyboardEvent, at: number): void {
    const step = STEPS[event.key];
    if (event.key === 'Enter' || event.key === ' ') this.pick(at);
    else if (step !== undefined) {
      const to = Math.max(0, Math.min(this.all().length - 1, at + step));
      this.here.set(to);
      // once it is the one that can have the focus
      setTimeout(() => this.host.querySelectorAll<SVGElement>(this.selector)[to]?.focus());
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }
}
