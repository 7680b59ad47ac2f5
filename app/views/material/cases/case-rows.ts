import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { compareValues, showValue } from '@core/attributes/values';
import { attributesOf } from '@core/commands/attributes';
import { fold } from '@core/text/fold';
import type { Case } from '@core/model/case';
import type { Id } from '@core/model/ids';
import { naturalOrder } from '@core/text/natural-order';
import { selectData } from '../../../state/study.selectors';

/** A date counts as due from this many days before it. */
const DUE_DAYS = 14;

/** Which cases the register shows, and in which order. */
@Injectable()
export class CaseRows {
  private readonly data = inject(Store).selectSignal(selectData);
  readonly typed = signal('');
  /** A date attribute whose coming and overdue dates are shown, or null for all cases. */
  readonly dueBy = signal<Id | null>(null);
  readonly sort = signal<{ readonly by: Id | 'name'; readonly down: boolean }>({ by: 'name', down: false });
  /** The order of the rows while values are filled in: rows move again when the researcher sorts or filters anew. */
  private readonly held = signal<readonly Id[] | null>(null);

  readonly attributes = computed(() => attributesOf(this.data()!, 'case'));
  readonly total = computed(() => Object.keys(this.data()!.tables.case).length);
  private readonly sorted = computed((): Case[] => {
    const typed = fold(this.typed().trim());
    const dueBy = this.dueBy();
    const limit = new Date(Date.now() + DUE_DAYS * 86_400_000).toISOString().slice(0, 10);
    const rows = Object.values(this.data()!.tables.case).filter(
      (one) =>
        (!typed || fold(one.name).includes(typed) || Object.values(one.values).some((value) => fold(showValue(value)).includes(typed))) &&
        (!dueBy || (typeof one.values[dueBy] === 'string' && one.values[dueBy] <= limit)),
    );
    const { by, down } = dueBy ? { by: dueBy, down: false } : this.sort();
    const attribute = this.attributes().find((one) => one.id === by);
    const sorted = naturalOrder(rows, (one) => one.name);
    if (attribute) sorted.sort((a, b) => compareValues(attribute, a.values[by], b.values[by]));
    return down ? sorted.reverse() : sorted;
  });
  readonly rows = computed((): Case[] => {
    const held = this.held();
    if (!held) return this.sorted();
    const cases = this.data()!.tables.case;
    const known = new Set(held);
    // whoever came in since, by undo or in another tab, stands at the end
    return [...held.flatMap((id) => cases[id] ?? []), ...this.sorted().filter((one) => !known.has(one.id))];
  });
  readonly rowOf = computed(() => new Map(this.rows().map((one, row) => [one.id, row])));

  /** Keeps the rows where they are from now on. */
  hold(ids: readonly Id[] = this.rows().map((one) => one.id)): void {
    this.held.update((held) => held ?? ids);
  }

  /** Lets the rows move to where they belong. */
  release(): void {
    this.held.set(null);
  }
}
