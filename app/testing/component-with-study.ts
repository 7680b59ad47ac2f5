import type { Provider, Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { EMPTY_HISTORY } from '@core/change/journal';
import type { Bench } from '@core/testing/make';
import { TextCache } from '../state/text-cache';
import { Ask, type Question, type Reply } from '../ui/dialogs/ask';
import { SessionInStore, sessionInStore } from './session-in-store';
import { openInStore } from './study-store';

/** Answers the questions that a component asks in dialogs. */
export class Answers {
  /** What is typed next; null for cancel. */
  text: string | null = null;
  yes = true;
  /** Which way is taken where a question offers another beside yes. */
  chose: 'yes' | 'other' = 'yes';
  readonly asked: string[] = [];
  /** What was said beside a field that stayed open. */
  readonly refusals: string[] = [];

  asKeep(title: string, tries: (text: string) => string | null): Promise<string | null> {
    this.asked.push(title);
    const refusal = this.text === null ? null : tries(this.text);
    if (refusal !== null) this.refusals.push(refusal);
    return Promise.resolve(refusal === null ? this.text : null);
  }

  async asReply({ title, tries }: Question): Promise<Reply> {
    if (!this.yes) return null;
    const text = this.chose === 'yes' && tries ? await this.asKeep(title, tries) : (this.asked.push(title), this.text ?? '');
    return text === null ? null : { chose: this.chose, text };
  }

  asConfirm({ title }: { readonly title: string }): Promise<boolean> {
    this.asked.push(title);
    return Promise.resolve(this.yes);
  }
}

/** A component drawn over an open study, with what a researcher can do to it. */
export class Drawn<T> {
  readonly host: HTMLElement;
  readonly session: SessionInStore;

  constructor(
    readonly fixture: ComponentFixture<T>,
    readonly answers: Answers,
  ) {
    this.host = fixture.nativeElement as HTMLElement;
    this.session = TestBed.inject(SessionInStore);
  }

  /** Done when all is drawn, lists of many rows as well. */
  async settle(): Promise<void> {
    await this.fixture.whenStable();
    await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 20)));
    await this.fixture.whenStable();
  }

  find<E extends HTMLElement = HTMLElement>(selector: string): E {
    const found = this.host.querySelector<E>(selector);
    if (!found) throw new Error(`There is no ${selector} in ${this.host.textContent}`);
    return found;
  }

  all(selector: string): HTMLElement[] {
    return [...this.host.querySelectorAll<HTMLElement>(selector)];
  }

  texts(selector: string): string[] {
    return this.all(selector).map((one) => one.textContent.replace(/\s+/g, ' ').trim());
  }

  /** The button, link or menu entry with these words or this label. */
  button(words: string): HTMLElement {
    const found = [
      ...this.host.querySelectorAll<HTMLElement>('button, a'),
      ...document.querySelectorAll<HTMLElement>('.cdk-overlay-container button'),
    ].find((one) => one.textContent.replace(/\s+/g, ' ').trim() === words || one.getAttribute('aria-label') === words);
    if (!found) throw new Error(`There is no button “${words}”`);
    return found;
  }

  async click(target: string | HTMLElement, init: MouseEventInit = {}): Promise<void> {
    const element = typeof target === 'string' ? this.find(target) : target;
    element.dispatchEvent(new MouseEvent('mousedown', { bubbles: true, cancelable: true, ...init }));
    element.dispatchEvent(new MouseEvent('click', { bubbles: true, cancelable: true, ...init }));
    await this.settle();
  }

  async press(target: string | HTMLElement, key: string, init: KeyboardEventInit = {}): Promise<KeyboardEvent> {
    const element = typeof target === 'string' ? this.find(target) : target;
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...init });
    element.dispatchEvent(event);
    await this.settle();
    return event;
  }

  async type(target: string | HTMLElement, text: string, event: 'input' | 'change' = 'input'): Promise<void> {
    const box = (typeof target === 'string' ? this.find(target) : target) as HTMLInputElement;
    box.value = text;
    box.dispatchEvent(new Event(event, { bubbles: true }));
    await this.settle();
  }
}

/**
 * Draws a component over a study.
 * @param inputs of the component
 * @param size of the room it has, CSS pixels
 */
export async function drawn<T>(
  component: Type<T>,
  bench: Bench,
  inputs: Readonly<Record<string, unknown>> = {},
  providers: readonly Provider[] = [],
  size = { width: 1_000, height: 600 },
): Promise<Drawn<T>> {
  const answers = new Answers();
  const ask: Partial<Ask> = {
    confirm: (question) => answers.asConfirm(question),
    keep: (title, _label, _text, _yes, tries) => answers.asKeep(title, tries),
    reply: (question) => answers.asReply(question),
  };
  TestBed.configureTestingModule({ providers: [provideRouter([]), ...sessionInStore, { provide: Ask, useValue: ask }, ...providers] });
  openInStore({ state: bench.state, history: EMPTY_HISTORY, backup: null });
  for (const text of bench.texts.values()) TestBed.inject(TextCache).put(text, null);
  const fixture = TestBed.createComponent(component);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  const host = fixture.nativeElement as HTMLElement;
  host.style.cssText = `display:grid;width:${size.width}px;height:${size.height}px`;
  const one = new Drawn(fixture, answers);
  await one.settle();
  return one;
}
