import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Icon } from '../../ui/icon/icon';

/** The head of what stands behind a number: what it is of, how much it is, what can be done with it, and the way out. */
@Component({
  selector: 'fl-side-head',
  imports: [Icon],
  template: `
    <h2 dir="auto">{{ title() }}</h2>
    <button class="icon" (click)="closed.emit()" aria-label="Close the evidence"><fl-icon name="x" /></button>
    <p class="second" data-behind>{{ where() }}</p>
    <p class="acts"><ng-content /></p>
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      padding: 14px 44px 8px 18px;
      border-bottom: 1px solid var(--rule);
    }
    .icon {
      position: absolute;
      top: 12px;
      right: 10px;
    }
    h2 {
      font: 600 15px / 1.4 var(--face-read);
    }
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 0 12px;
      margin-top: 2px;
    }
    .acts:empty {
      display: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SideHead {
  readonly title = input.required<string>();
  readonly where = input.required<string>();
  readonly closed = output<void>();
}
