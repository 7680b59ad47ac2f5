import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { IconName } from './icon-names';

/** An outlined icon from the shipped sprite. It is decoration: what it stands for is said in words beside it or in a label. */
@Component({
  selector: 'fl-icon',
  template: `<svg aria-hidden="true" focusable="false"><use [attr.href]="'icons.svg#' + name()" /></svg>`,
  styles: `
    :host {
      display: inline-flex;
      flex: none;
    }
    svg {
      width: var(--icon-size, 19px);
      height: var(--icon-size, 19px);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Icon {
  readonly name = input.required<IconName>();
}
