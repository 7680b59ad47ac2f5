import { effect, signal, type WritableSignal } from '@angular/core';

/** A signal kept in this browser under a key. What is stored and does not fit is forgotten. To be made where effects may be. */
export function keptSignal<T>(key: string, first: T, fits: (stored: unknown) => stored is T): WritableSignal<T> {
  let value = first;
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(key) ?? 'null');
    if (fits(stored)) value = stored;
  } catch {
    // written by something else: begin anew
  }
  const kept = signal(value);
  effect(() => {
    const now = JSON.stringify(kept());
    if (localStorage.getItem(key) !== now) localStorage.setItem(key, now);
  });
  return kept;
}

/** Whether what was stored is a list of words or ids. */
export const isWords = (stored: unknown): stored is readonly string[] =>
  Array.isArray(stored) && stored.every((one) => typeof one === 'string');
