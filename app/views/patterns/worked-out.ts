import { computed, effect, inject, resource, signal, type Signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { StudyState } from '@core/model/study-state';
import { signOf } from '@core/text/sign-of';
import { selectData, selectScope, selectSortedDocuments } from '../../state/study.selectors';
import type { AskedAt } from '../../workers/analysis-service';

/** A pattern that is worked out, as it stands. */
export interface WorkedOut<T> {
  /** The last one there was, while the next is on its way; null before the first. */
  readonly shown: Signal<T | null>;
  /** Share done, where it takes long. */
  readonly progress: Signal<number | null>;
  readonly trouble: Signal<string | null>;
  /** What is shown is of what was asked before. */
  readonly pending: Signal<boolean>;
  /** Works the same out once more, where it failed. */
  again(): void;
}

/**
 * Works something out anew whenever what is asked, the scope or the study changes.
 * @param asked what is asked; undefined where nothing is: then nothing is shown
 */
export function workedOut<A, T>(
  asked: () => A | undefined,
  work: (data: StudyState, asked: A, at: AskedAt) => Promise<T | null>,
): WorkedOut<T> {
  const store = inject(Store);
  const data = store.selectSignal(selectData);
  const scope = store.selectSignal(selectScope);
  const documents = store.selectSignal(selectSortedDocuments);
  const order = computed(() => documents().map((document) => document.id), { equal: sameOrder });
  // asked again in other words, or by other fields that say the same, it is not worked out again
  const what = computed(asked, { equal: (a, b) => signOf(a) === signOf(b) });
  const progress = signal<number | null>(null);
  const found = resource({
    params: () => {
      const [state, wanted] = [data(), what()];
      return state && wanted !== undefined ? { state, wanted, scope: scope(), order: order() } : undefined;
    },
    loader: async ({ params, abortSignal }) => {
      const tell = (share: number): void => progress.set(share < 1 && !abortSignal.aborted ? share : null);
      const result = await work(params.state, params.wanted, {
        scope: params.scope,
        order: params.order,
        progress: tell,
        signal: abortSignal,
      });
      progress.set(null);
      return result;
    },
  });
  const shown = signal<T | null>(null);
  effect(() => {
    if (what() === undefined) shown.set(null);
    // one that was ended brings nothing: another is on its way
    else if (found.status() === 'resolved') shown.update((before) => found.value() ?? before);
  });
  return {
    ...{ shown, progress },
    trouble: computed(() => found.error()?.message ?? null),
    pending: computed(() => found.isLoading()),
    again: () => void found.reload(),
  };
}

const sameOrder = (a: readonly string[], b: readonly string[]): boolean => a.length === b.length && a.every((id, at) => id === b[at]);
