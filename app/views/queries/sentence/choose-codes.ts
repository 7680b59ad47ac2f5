import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  HostListener,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { floatBelow } from '../../../ui/float-below';
import { Store } from '@ngrx/store';
import { findCodes } from '@core/codebook/find-codes';
import type { Id } from '@core/model/ids';
import { selectCodes } from '../../../state/study.selectors';
import { Swatch } from '../../../ui/swatch/swatch';
import { CodeCounts, howOften } from '../../../state/code-counts';

/** Ticks codes for a part of a question. Closes with Escape or a click elsewhere. */
@Component({
  selector: 'fl-choose-codes',
  imports: [Swatch],
  template: `
    <input
      #find
      type="search"
      placeholder="Find a code"
      aria-label="Find a code"
      (input)="typed.set(find.value)"
      (keydown.enter)="toggleFirst()"
    />
    <ul aria-label="Codes">
      @for (found of found(); track found.code.id) {
        <li>
          <label
            ><input type="checkbox" [checked]="has(found.code.id)" (change)="toggle(found.code.id)" /><fl-swatch
              [mark]="found.code.mark"
              [colour]="found.code.colour"
            />{{ found.code.name }}<span class="second">{{ found.categories[0] }}</span
            ><span class="count second">{{ passagesOf(found.code.id) }}</span></label
          >
        </li>
      } @empty {
        <li class="second">No code fits.</li>
      }
    </ul>
  `,
  styleUrl: '../../../ui/sentence/chooser.scss',
  host: { role: 'dialog', 'aria-label': 'Choose codes' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChooseCodes {
  readonly chosen = input.required<readonly Id[]>();
  readonly changed = output<readonly Id[]>();
  readonly closed = output<void>();
  private readonly store = inject(Store);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('find');
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly counts = inject(CodeCounts).scoped;
  protected readonly passagesOf = (id: Id): number | null => howOften(this.counts(), 'withUnder', id);
  protected readonly typed = signal('');
  /** What was chosen when it opened stands first; ticking moves nothing under the hand. */
  private readonly atFirst = linkedSignal<readonly Id[], readonly Id[]>({
    source: this.chosen,
    computation: (chosen, previous) => previous?.value ?? chosen,
  });
  protected readonly found = computed(() => findCodes(this.codes(), this.typed(), this.atFirst(), 200));

  constructor() {
    afterNextRender(() => {
      floatBelow(this.host);
      this.box().nativeElement.focus();
    });
  }

  protected has(id: Id): boolean {
    return this.chosen().includes(id);
  }

  protected toggle(id: Id): void {
    this.changed.emit(this.has(id) ? this.chosen().filter((one) => one !== id) : [...this.chosen(), id]);
  }

  protected toggleFirst(): void {
    const first = this.found()[0];
    if (first && this.typed().trim()) this.toggle(first.code.id);
  }

  @HostListener('keydown.escape', ['$event'])
  protected close(event: Event): void {
    event.stopPropagation();
    this.host.parentElement?.querySelector('button')?.focus();
    this.closed.emit();
  }

  @HostListener('document:mousedown', ['$event'])
  protected onPress(event: MouseEvent): void {
    if (!this.host.contains(event.target as Node)) this.closed.emit();
  }
}
