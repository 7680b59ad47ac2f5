import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** A number in a sentence, kept within its bounds; whole, unless it may be broken. */
@Component({
  selector: 'fl-number-part',
  template: `
    <input
      #box
      type="number"
      [min]="least()"
      [max]="most()"
      [step]="broken() ? 'any' : 1"
      [value]="value()"
      [attr.aria-label]="label()"
      (change)="read(box)"
    />
  `,
  styles: `
    :host {
      display: contents;
    }
    input {
      width: 62px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NumberPart {
  readonly value = input.required<number>();
  readonly label = input.required<string>();
  readonly least = input(0);
  readonly most = input(1e9);
  readonly broken = input(false);
  readonly changed = output<number>();

  /** What is typed, as near as it may be; what is no number becomes the least. */
  protected read(box: HTMLInputElement): void {
    const typed = this.broken() ? Number(box.value) : Math.floor(Number(box.value));
    const value = Number.isFinite(typed) ? Math.max(this.least(), Math.min(this.most(), typed)) : this.least();
    // the same number as before changes nothing that would write over what was typed
    box.value = String(value);
    this.changed.emit(value);
  }
}
