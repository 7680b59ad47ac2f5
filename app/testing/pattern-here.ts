import { TestBed } from '@angular/core/testing';
import type { AskedPattern } from '@core/model/pattern';
import { PatternDraft } from '../views/patterns/pattern-draft';
import type { Drawn } from './component-with-study';
import { until } from './until';

/** A pattern on the screen, with what a researcher does to its sentence. */
export class PatternHere<K extends AskedPattern['pattern']> {
  constructor(
    private readonly view: Drawn<unknown>,
    private readonly kind: K,
  ) {}

  /** What is asked now. */
  asked(): Extract<AskedPattern, { pattern: K }> {
    return TestBed.inject(PatternDraft).of(this.kind)();
  }

  /** Asks something else, and waits until it is shown. */
  async ask(change: Partial<Extract<AskedPattern, { pattern: K }>>): Promise<void> {
    TestBed.inject(PatternDraft).set({ ...this.asked(), ...change });
    await this.settled();
  }

  /** Chooses another word of the sentence. */
  async choose(from: string, to: string): Promise<void> {
    await this.view.click(this.view.button(from));
    await this.view.settle();
    const entries = [...document.querySelectorAll<HTMLElement>('[role=menuitem]')];
    entries.find((one) => one.textContent.trim() === to)!.click();
    await this.settled();
  }

  /** Done when what is asked is shown. */
  async settled(): Promise<void> {
    await this.view.settle();
    await until(() => this.view.find('.body').getAttribute('aria-busy') === 'false');
    await this.view.settle();
  }
}
