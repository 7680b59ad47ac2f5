import { DestroyRef, Directive, effect, ElementRef, inject, input, untracked } from '@angular/core';
import { Drafts } from '../../state/drafts';

/** Keeps what was typed. @returns why it was refused, or null */
export type Keeping = (text: string, of: string, what: string) => string | null;

/**
 * A field whose words are more than a moment's work. They belong to the thing they were typed for: they are kept when
 * the field is left, also where it shows another thing by then; what is refused stays, with the reason beside it; and
 * until they are kept they are a draft, which a reload or going elsewhere does not lose.
 * Without `keeping` the field is part of a form, which keeps its words itself and then drops the draft.
 */
@Directive({
  selector: '[flWriting]',
  exportAs: 'flWriting',
  host: { '(input)': 'onInput()', '(change)': 'keep()', '(keydown.control.enter)': 'keep()', '(keydown.meta.enter)': 'keep()' },
})
export class Writing {
  /** What is written: "definition", "comment". */
  readonly flWriting = input.required<string>();
  /** Which thing it is written for. */
  readonly of = input.required<string>();
  readonly stored = input<string>('');
  readonly keeping = input<Keeping | null>(null);

  private readonly drafts = inject(Drafts);
  private readonly box = inject<ElementRef<HTMLInputElement | HTMLTextAreaElement>>(ElementRef).nativeElement;
  private at: { readonly what: string; readonly of: string } | null = null;
  private base = '';
  private unkept = false;
  /** What is stored is another than what was begun from, and the writer knows. */
  private warned = false;
  private note: HTMLElement | null = null;

  constructor() {
    effect(() => {
      const next = { what: this.flWriting(), of: this.of() };
      const stored = this.stored();
      untracked(() => (this.at?.what === next.what && this.at.of === next.of ? this.storedChanged(stored) : this.turnTo(next, stored)));
    });
    const unwatch = this.drafts.watch(() => this.unkept);
    inject(DestroyRef).onDestroy(() => {
      unwatch();
      this.note?.remove();
      // not while the view is being taken apart
      if (this.unkept) queueMicrotask(() => this.keep());
    });
  }

  /** Whether something is typed that is not kept. */
  holds(): boolean {
    return this.unkept;
  }

  /** The form has kept the words: nothing is left to be kept. */
  done(): void {
    this.unkept = false;
    if (this.at) this.drafts.drop(this.at);
    this.say(null);
  }

  private turnTo(next: { readonly what: string; readonly of: string }, stored: string): void {
    if (this.unkept) this.keep();
    this.at = next;
    this.warned = false;
    const draft = this.drafts.get(next);
    this.unkept = draft !== null && draft.text !== stored;
    this.base = this.unkept ? draft!.base : stored;
    this.box.value = this.unkept ? draft!.text : stored;
    this.say(this.unkept ? 'Written earlier and not kept yet.' : null);
  }

  /** What is stored has changed: by keeping this very field, by undo, or in another tab. */
  private storedChanged(stored: string): void {
    if (this.box.value === stored) this.done();
    if (this.unkept) return;
    this.base = stored;
    if (this.box.value !== stored) this.box.value = stored;
  }

  protected onInput(): void {
    this.unkept = this.box.value !== this.stored();
    if (!this.at) return;
    if (!this.unkept) this.done();
    else if (!this.drafts.keep(this.at, { text: this.box.value, base: this.base }))
      this.say('The browser has no room for a draft: keep this before you close the window.');
  }

  protected keep(): void {
    const keeping = this.keeping();
    if (!this.unkept || !this.at || !keeping) return;
    const { what, of } = this.at;
    const here = what === this.flWriting() && of === this.of();
    if (here && this.stored() !== this.base && !this.warned) {
      this.warned = true;
      this.say(
        `It was changed meanwhile to “${this.stored().slice(0, 120)}”. To put what you typed in its place, leave the field once more.`,
      );
      return;
    }
    const refused = keeping(this.box.value, of, what);
    if (refused !== null) return this.say(refused);
    this.done();
    // what is stored may be tidied: without blanks at its ends, for instance
    queueMicrotask(() => {
      if (!this.unkept && this.at?.of === of && this.at.what === what && here) this.storedChanged(this.stored());
    });
  }

  /** Says something beside the field, with a way to give up what was typed. */
  private say(words: string | null): void {
    this.note?.remove();
    this.note = null;
    this.box.toggleAttribute('aria-invalid', words !== null && this.unkept);
    if (words === null) return;
    const note = document.createElement('p');
    note.className = 'writing-note';
    note.setAttribute('role', 'status');
    const drop = document.createElement('button');
    drop.type = 'button';
    drop.className = 'act small';
    drop.textContent = 'Drop what was typed';
    drop.addEventListener('click', () => {
      this.done();
      this.box.value = this.stored();
      this.base = this.stored();
      this.box.focus();
    });
    note.append(words, ' ', drop);
    (this.box.closest('label') ?? this.box).after(note);
    this.note = note;
  }
}
