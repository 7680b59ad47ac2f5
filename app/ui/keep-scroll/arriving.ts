import { effect, inject, signal, type Signal } from '@angular/core';
import { Visits } from '../../state/visits';

/** Milliseconds for which the less urgent parts of a place that came back stay hidden: one frame. */
const FIRST_FRAME = 20;

/** True for the first frame of a kept place that came back: what the reader waits for is laid out and painted alone. To be called where the place is made. */
export function arriving(): Signal<boolean> {
  const visits = inject(Visits);
  const here = signal(false);
  effect(() => {
    if (visits.count() === 0) return;
    here.set(true);
    setTimeout(() => here.set(false), FIRST_FRAME);
  });
  return here.asReadonly();
}
