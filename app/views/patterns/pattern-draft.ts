import { computed, inject, Injectable, signal, type Signal, type WritableSignal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { AskedPatternSchema, type AskedPattern } from '@core/model/pattern';
import { mappedAs } from '@core/model/references';
import { MovedHere } from '../../state/moved-here';
import { onNextVisit } from '../../state/visit';

type Kind = AskedPattern['pattern'];
type AskedOf<K extends Kind> = Extract<AskedPattern, { pattern: K }>;

const BEGUN: { readonly [K in Kind]: AskedOf<K> } = {
  frequencies: {
    pattern: 'frequencies',
    rows: { of: 'codes', codeIds: null, withUnder: true },
    ...{ coders: 'together', counting: 'passages', minimum: 0 },
  },
  'cross-table': {
    pattern: 'cross-table',
    rows: { of: 'codes', codeIds: null, withUnder: true },
    columns: { by: 'document' },
    ...{ counting: 'passages', coders: 'together', as: 'as they are', turned: false, empty: 'all' },
  },
  together: {
    pattern: 'together',
    rows: { of: 'codes', codeIds: null, withUnder: false },
    within: { count: 1, unit: 'paragraph' },
    ...{ by: 'overlap', coders: 'together', as: 'counts' },
  },
  weave: { pattern: 'weave', documentIds: [], rows: { of: 'codes', codeIds: null, withUnder: false }, by: 'position' },
  saturation: {
    pattern: 'saturation',
    ...{ order: 'by when they were coded', groups: { by: 'everything' }, base: 4, run: 2, threshold: 0.05 },
  },
  similarity: {
    pattern: 'similarity',
    rows: { of: 'codes', codeIds: null, withUnder: false },
    ...{ compared: 'codes', occurring: 'documents', by: 'presence', coders: 'together', attributeIds: [], clusters: 4 },
  },
  'taking-up': {
    pattern: 'taking-up',
    rows: { of: 'codes', codeIds: null, withUnder: false },
    ...{ groups: { by: 'speaker' }, apart: 0, shown: 'who brings it up' },
  },
  attributes: { pattern: 'attributes', of: null, against: null, as: 'as they are' },
  words: { pattern: 'words', run: 1, forms: false, withoutStopWords: true, kept: [], left: [], minimum: 2 },
};

/**
 * What is asked of each pattern, while the researcher goes to and fro. It follows what happens to what it asks for, as a
 * kept one does.
 */
@Injectable({ providedIn: 'root' })
export class PatternDraft {
  private readonly asked = signal<Readonly<Partial<Record<Kind, AskedPattern>>>>({});
  private readonly numbers = new Map<Kind, WritableSignal<unknown>>();

  constructor() {
    // what was asked of one study says nothing of another
    onNextVisit(() => {
      this.asked.set({});
      for (const open of this.numbers.values()) open.set(null);
    });
    inject(MovedHere)
      .moves.pipe(takeUntilDestroyed())
      .subscribe((moves) =>
        this.asked.update((asked) =>
          Object.fromEntries(
            Object.entries(asked).flatMap(([kind, one]) => {
              const now = one && mappedAs(AskedPatternSchema, one, moves);
              return now ? [[kind, now]] : [];
            }),
          ),
        ),
      );
  }

  /** What is asked of one kind of pattern. */
  of<K extends Kind>(kind: K): Signal<AskedOf<K>> {
    return computed(() => (this.asked()[kind] ?? BEGUN[kind]) as AskedOf<K>);
  }

  /** The number of a pattern that is open: it stays so while the researcher reads what stands behind it, and comes back. */
  opened<T>(kind: Kind): WritableSignal<T | null> {
    let open = this.numbers.get(kind);
    if (!open) this.numbers.set(kind, (open = signal<unknown>(null)));
    return open as WritableSignal<T | null>;
  }

  /** Shows another question of its kind: what was open is no number of it. */
  show(asked: AskedPattern): void {
    this.numbers.get(asked.pattern)?.set(null);
    this.set(asked);
  }

  set(asked: AskedPattern): void {
    this.asked.update((before) => ({ ...before, [asked.pattern]: asked }));
  }
}
