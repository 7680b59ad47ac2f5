import { Injectable, signal } from '@angular/core';

/** A short line at the foot of the window: what was done, or why something was not. */
export interface Notice {
  readonly text: string;
  readonly kind: 'done' | 'refused';
}

/** Says short things to the researcher, one at a time. */
@Injectable({ providedIn: 'root' })
export class Notices {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly shown = signal<Notice | null>(null);
  readonly current = this.shown.asReadonly();

  say(text: string): void {
    this.show({ text, kind: 'done' }, 4_000);
  }

  /** A refusal stays longer, since it asks for something. */
  refuse(text: string): void {
    this.show({ text, kind: 'refused' }, 12_000);
  }

  dismiss(): void {
    clearTimeout(this.timer);
    this.shown.set(null);
  }

  private show(notice: Notice, milliseconds: number): void {
    clearTimeout(this.timer);
    this.shown.set(notice);
    this.timer = setTimeout(() => this.shown.set(null), milliseconds);
  }
}
