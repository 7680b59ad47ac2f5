import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output, signal } from '@angular/core';
import type { PassageCondition } from '@core/model/passage-condition';
import type { Claim } from '@core/model/proposition';
import { Icon } from '../../../ui/icon/icon';
import { ConditionPart } from '../../../ui/sentence/condition-list';
import { NEW_CARRIES } from '../../../ui/sentence/new-part';
import { SentencePart, type Choice } from '../../../ui/sentence/sentence-part';

/** Claims about a case under each other: that it has passages which do something, or has none. */
@Component({
  selector: 'fl-claim-list',
  imports: [ConditionPart, Icon, SentencePart],
  template: `
    <ul [attr.aria-label]="label()">
      @for (claim of claims(); track $index; let at = $index; let first = $first) {
        <li>
          <span class="joint">{{ first ? '' : 'and' }}</span>
          <fl-part
            [words]="claim.has ? 'have passages that' : 'have no passage that'"
            [choices]="kinds"
            (chosen)="set(at, { has: $event })"
          />
          <fl-condition-part [asked]="claim.that" [fresh]="freshAt() === at" (changed)="turn(at, $event)" />
          <button class="icon" (click)="remove(at)" [attr.aria-label]="'Take away claim ' + (at + 1) + ' of: ' + label()">
            <fl-icon name="x" />
          </button>
        </li>
      }
    </ul>
    <button class="act add" (click)="add()"><fl-icon name="plus" />{{ claims().length === 0 ? 'choose what they have' : 'and' }}</button>
  `,
  styles: `
    :host {
      display: block;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 0 7px;
      align-items: baseline;
      line-height: 28px;
    }
    .joint {
      min-width: 26px;
    }
    .icon {
      align-self: center;
      --icon-size: 13px;
    }
    .add {
      margin-left: 26px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ClaimList {
  readonly claims = input.required<readonly Claim[]>();
  readonly label = input.required<string>();
  readonly changed = output<Claim[]>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly freshAt = signal(-1);
  protected readonly kinds: readonly Choice<boolean>[] = [
    { value: true, name: 'have passages that' },
    { value: false, name: 'have no passage that' },
  ];

  protected add(): void {
    this.freshAt.set(this.claims().length);
    this.changed.emit([...this.claims(), { has: true, that: NEW_CARRIES }]);
  }

  protected set(at: number, fields: Partial<Claim>): void {
    this.freshAt.set(-1);
    this.changed.emit(this.claims().map((claim, one) => (one === at ? { ...claim, ...fields } : claim)));
  }

  protected turn(at: number, that: PassageCondition | null): void {
    if (that) this.set(at, { that });
    else this.remove(at);
  }

  protected remove(at: number): void {
    this.freshAt.set(-1);
    this.changed.emit(this.claims().filter((_, one) => one !== at));
    // what had the focus is gone
    this.host.querySelector<HTMLElement>('.add')?.focus();
  }
}
