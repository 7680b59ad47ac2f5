import { DestroyRef, effect, inject, Injectable, signal } from '@angular/core';
import type { MemoSubject } from '@core/model/memo';
import type { MemoTask } from '../../state/memo-drafts';
import { Visits } from '../../state/visits';

/** Where memos are written: beside what is being looked at, never over it. One at a time. */
@Injectable({ providedIn: 'root' })
export class WritingDesk {
  /** What is being written, or null. */
  readonly task = signal<MemoTask | null>(null);
  /** What a memo begun by the key M is about here: the place sets it. */
  readonly about = signal<MemoSubject | null>(null);
  private waiting: (() => void)[] = [];

  /** Opens the desk, and is done when it closes. */
  open(task: MemoTask): Promise<void> {
    this.task.set(task);
    return new Promise((resolve) => this.waiting.push(resolve));
  }

  close(): void {
    this.task.set(null);
    for (const done of this.waiting.splice(0)) done();
  }
}

/** Says, as long as the component that calls it is on the screen, what a memo begun by the key M is about. To be called where it is made. */
export function memosAreAbout(about: () => MemoSubject | null): void {
  const desk = inject(WritingDesk);
  const visits = inject(Visits);
  effect(() => {
    visits.count();
    desk.about.set(about());
  });
  inject(DestroyRef).onDestroy(() => desk.about.set(null));
}
