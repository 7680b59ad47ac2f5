import { effect, inject, signal, type Signal } from '@angular/core';
import { Visits } from '../../state/visits';
import { afterPaint } from './after-paint';

/** True for the first frame of a kept place that came back: what the reader waits for is laid out and painted alone. To be called where the place is made. */
export function arriving(): Signal<boolean> {
  const visits = inject(Visits);
  const here = signal(false);
  effect((onCleanup) => {
    if (visits.count() === 0) return;
    here.set(true);
    onCleanup(afterPaint(() => here.set(false)));
  });
  return here.asReadonly();
}
