import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { ChooseSeveral, type Offer } from './choose-several';

/** What is named in a part of a sentence: its names, and a press that opens what else can be ticked. */
@Component({
  selector: 'fl-chosen-of',
  imports: [ChooseSeveral],
  template: `
    <span class="anchor">
      <button class="part" (click)="open.set(!open())" [attr.aria-label]="label() + ': ' + words()" [attr.aria-expanded]="open()">
        {{ words() }}
      </button>
      @if (open()) {
        <fl-choose-several
          [label]="label()"
          [offers]="offers()"
          [chosen]="chosen()"
          (changed)="changed.emit($event)"
          (closed)="open.set(false)"
        />
      }
    </span>
  `,
  styleUrl: './sentence.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChosenOf {
  readonly label = input.required<string>();
  readonly offers = input.required<readonly Offer[]>();
  readonly chosen = input.required<readonly string[]>();
  /** What it says where nothing is chosen. */
  readonly none = input.required<string>();
  /** Names of what is chosen and not among the offers: it is gone. */
  readonly nameOf = input<(id: string) => string>((id) => id);
  readonly changed = output<string[]>();
  protected readonly open = signal(false);
  protected readonly words = computed(() => {
    const offers = new Map(this.offers().map((offer) => [offer.id, offer.name]));
    const names = this.chosen().map((id) => offers.get(id) ?? this.nameOf()(id));
    return names.length === 0
      ? this.none()
      : names.length < 4
        ? names.join(', ')
        : `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`;
  });
}
