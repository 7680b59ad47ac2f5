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
import { fold } from '@core/text/fold';
import { floatBelow } from '../float-below';
import { Swatch } from '../swatch/swatch';

/** Something that can be ticked. */
export interface Offer {
  readonly id: string;
  readonly name: string;
  /** What tells it from others of its name. */
  readonly note?: string;
  readonly count?: number | null;
  /** Of a code, how it is shown. */
  readonly swatch?: { readonly mark: string; readonly colour: number };
}

/** More are not looked through by a person; typing narrows. */
const SHOWN = 200;

/** Ticks several of many for a part of a sentence. Closes with Escape or a click elsewhere. */
@Component({
  selector: 'fl-choose-several',
  imports: [Swatch],
  template: `
    <input
      #find
      type="search"
      [placeholder]="label()"
      [attr.aria-label]="label()"
      (input)="typed.set(find.value)"
      (keydown.enter)="toggleFirst()"
    />
    <ul>
      @for (offer of found(); track offer.id) {
        <li>
          <label
            ><input type="checkbox" [checked]="chosen().includes(offer.id)" (change)="toggle(offer.id)" />
            @if (offer.swatch; as swatch) {
              <fl-swatch [mark]="swatch.mark" [colour]="swatch.colour" />
            }
            {{ offer.name }}<span class="second">{{ offer.note }}</span>
            @if (offer.count !== undefined) {
              <span class="count second">{{ offer.count }}</span>
            }
          </label>
        </li>
      } @empty {
        <li class="second">{{ none() }}</li>
      }
    </ul>
  `,
  styleUrl: './chooser.scss',
  host: { role: 'dialog', '[attr.aria-label]': 'named() || label()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChooseSeveral {
  /** What it is for: “Find a document”. */
  readonly label = input.required<string>();
  /** What the whole is called, where not as its field. */
  readonly named = input('');
  readonly none = input('None fits.');
  readonly offers = input<readonly Offer[]>([]);
  /** Finds what to offer, where it is not found by its name; what was chosen at first comes first. */
  readonly finds = input<(typed: string, first: readonly string[]) => readonly Offer[]>();
  readonly chosen = input.required<readonly string[]>();
  readonly changed = output<string[]>();
  readonly closed = output<void>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('find');
  protected readonly typed = signal('');
  /** What was chosen when it opened stands first; ticking moves nothing under the hand. */
  private readonly atFirst = linkedSignal<readonly string[], readonly string[]>({
    source: this.chosen,
    computation: (chosen, previous) => previous?.value ?? chosen,
  });
  protected readonly found = computed((): readonly Offer[] => {
    const finds = this.finds();
    if (finds) return finds(this.typed(), this.atFirst());
    const wanted = fold(this.typed().trim());
    const first = new Set(this.atFirst());
    const fitting = this.offers().filter((offer) => fold(offer.name).includes(wanted));
    return [...fitting.filter((offer) => first.has(offer.id)), ...fitting.filter((offer) => !first.has(offer.id))].slice(0, SHOWN);
  });

  constructor() {
    afterNextRender(() => {
      floatBelow(this.host);
      this.box().nativeElement.focus();
    });
  }

  protected toggle(id: string): void {
    const chosen = this.chosen();
    this.changed.emit(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  }

  protected toggleFirst(): void {
    const [first] = this.found();
    if (first && this.typed().trim()) this.toggle(first.id);
  }

  @HostListener('keydown.escape', ['$event'])
  protected close(event: Event): void {
    event.stopPropagation();
    this.host.closest('.anchor')?.querySelector('button')?.focus();
    this.closed.emit();
  }

  @HostListener('document:mousedown', ['$event'])
  protected onPress(event: MouseEvent): void {
    // the word it opened at closes it by its own press
    if (!(this.host.closest('.anchor') ?? this.host).contains(event.target as Node)) this.closed.emit();
  }
}
