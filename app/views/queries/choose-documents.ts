import { keepInWindow } from '../../ui/keep-in-window';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  HostListener,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { fold } from '@core/text/fold';
import type { Document } from '@core/model/document';
import type { Id } from '@core/model/ids';

/** Ticks documents for a question; none ticked means all in scope. Closes with Escape or a click elsewhere. */
@Component({
  selector: 'fl-choose-documents',
  template: `
    <input #find type="search" placeholder="Find a document" aria-label="Find a document" (input)="typed.set(find.value)" />
    <ul aria-label="Documents">
      <li>
        <label><input type="checkbox" [checked]="chosen() === null" (change)="changed.emit(null)" />all documents in scope</label>
      </li>
      @for (document of found(); track document.id) {
        <li>
          <label
            ><input type="checkbox" [checked]="chosen()?.includes(document.id)" (change)="toggle(document.id)" />{{ document.title }}</label
          >
        </li>
      }
    </ul>
  `,
  styleUrl: './chooser.scss',
  host: { role: 'dialog', 'aria-label': 'Choose documents' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChooseDocuments {
  readonly documents = input.required<readonly Document[]>();
  readonly chosen = input.required<readonly Id[] | null>();
  readonly changed = output<Id[] | null>();
  readonly closed = output<void>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('find');
  protected readonly typed = signal('');
  /** At most as many as a person looks through; typing narrows. */
  protected readonly found = computed(() =>
    this.documents()
      .filter((document) => fold(document.title).includes(fold(this.typed().trim())))
      .slice(0, 200),
  );

  constructor() {
    afterNextRender(() => {
      keepInWindow(this.host);
      this.box().nativeElement.focus();
    });
  }

  protected toggle(id: Id): void {
    const chosen = this.chosen() ?? [];
    const next = chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id];
    this.changed.emit(next.length > 0 ? next : null);
  }

  @HostListener('keydown.escape')
  protected close(): void {
    this.closed.emit();
  }

  @HostListener('document:mousedown', ['$event'])
  protected onPress(event: MouseEvent): void {
    if (!this.host.contains(event.target as Node)) this.closed.emit();
  }
}
