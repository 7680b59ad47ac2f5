import { Injectable, signal } from '@angular/core';

/**
 * Counts how often a place that was kept alive came back onto the screen. What a place does on arriving, and not only
 * when something changes, reads the count: effects of a place that is off the screen rest.
 */
@Injectable({ providedIn: 'root' })
export class Visits {
  private readonly arrived = signal(0);
  readonly count = this.arrived.asReadonly();

  arrive(): void {
    this.arrived.update((count) => count + 1);
  }
}
