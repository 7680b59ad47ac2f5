import { Injectable, signal } from '@angular/core';
import type { CodeCondition } from '@core/model/code-set';
import type { Id } from '@core/model/ids';
import { isWords, keptSignal } from '../../../state/kept-signal';
import { onNextVisit } from '../../../state/visit';

export const ORDERS = ['by hand', 'by name', 'by passages', 'by when it was made', 'by last use'] as const;
export type Order = (typeof ORDERS)[number];

export const WAYS = ['a tree', 'bars', 'areas', 'a cloud of names'] as const;
export type Way = (typeof WAYS)[number];

export const COLUMNS = ['passages', 'documents', 'cases', 'words', 'seconds', 'area', 'memos', 'last used', 'made', 'definition'] as const;
export type Column = (typeof COLUMNS)[number];

const oneOf =
  <T extends string>(all: readonly T[]) =>
  (stored: unknown): stored is T =>
    all.includes(stored as T);

/** How the codebook is shown. The way, order and columns are kept in this browser; filters end with the visit of the study. */
@Injectable({ providedIn: 'root' })
export class TreeSettings {
  readonly way = keptSignal<Way>('filum-codebook-way', 'a tree', oneOf(WAYS));
  readonly order = keptSignal<Order>('filum-codebook-order', 'by hand', oneOf(ORDERS));
  readonly columns = keptSignal<readonly Column[]>(
    'filum-codebook-columns',
    ['passages', 'documents', 'definition'],
    (stored): stored is readonly Column[] => isWords(stored) && stored.every((one) => COLUMNS.includes(one as Column)),
  );
  /** Numbers count a code with what is under it. */
  readonly withUnder = signal(true);
  readonly typed = signal('');
  readonly setId = signal<Id | null>(null);
  readonly conditions = signal<readonly CodeCondition[]>([]);
  readonly folded = signal<ReadonlySet<Id>>(new Set());

  constructor() {
    onNextVisit(() => {
      this.leaveNoneOut();
      this.folded.set(new Set());
    });
  }

  /** Takes every filter away. */
  leaveNoneOut(): void {
    this.setId.set(null);
    this.conditions.set([]);
    this.typed.set('');
  }

  toggleColumn(column: Column): void {
    this.columns.update((columns) =>
      columns.includes(column) ? columns.filter((one) => one !== column) : COLUMNS.filter((one) => one === column || columns.includes(one)),
    );
  }

  toggleFold(id: Id, fold = !this.folded().has(id)): void {
    this.folded.update((folded) => {
      const next = new Set(folded);
      if (fold) next.add(id);
      else next.delete(id);
      return next;
    });
  }
}
