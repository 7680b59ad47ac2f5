import { computed, signal, type Signal } from '@angular/core';
import type { Id } from '@core/model/ids';

/**
 * Which things of a list are chosen to be worked on together. A command is about those that are chosen and shown:
 * what a filter has taken out of sight stays chosen for when it comes back, and nothing is done to it meanwhile.
 */
export class Choosing {
  private readonly all = signal<ReadonlySet<Id>>(new Set());
  /** Chosen and shown, in the order of the list. */
  readonly ids: Signal<readonly Id[]>;
  /** Chosen and out of sight. */
  readonly hidden: Signal<number>;

  /**
   * @param shown what the list shows, in its order
   * @param there whether a thing is still in the study
   */
  constructor(
    private readonly shown: () => readonly Id[],
    there: (id: Id) => boolean,
  ) {
    this.ids = computed(() => (this.all().size === 0 ? [] : this.shown().filter((id) => this.all().has(id))));
    this.hidden = computed(() => [...this.all()].filter(there).length - this.ids().length);
  }

  has(id: Id): boolean {
    return this.all().has(id);
  }

  toggle(id: Id): void {
    this.all.update((ids) => {
      const next = new Set(ids);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }

  /** Exactly these, and no others out of sight either. */
  set(ids: readonly Id[]): void {
    this.all.set(new Set(ids));
  }

  clear(): void {
    this.all.set(new Set());
  }

  /** All that are shown, or none. */
  toggleAll(): void {
    this.set(this.ids().length > 0 ? [] : this.shown());
  }

  /** "3 chosen", and how many of them a filter hides. */
  words(): string {
    const hidden = this.hidden();
    const count = this.ids().length.toLocaleString();
    return hidden > 0 ? `${count} chosen, ${hidden.toLocaleString()} more out of sight` : `${count} chosen`;
  }
}
