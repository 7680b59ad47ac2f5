import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { PatternView } from './pattern-view';
import { PatternsBeside } from './patterns-beside';

/** Patterns: what goes with what, and every number opens. */
@Component({
  selector: 'fl-patterns',
  imports: [PatternView, PatternsBeside],
  template: `
    @if (view() === 'beside') {
      <fl-patterns-beside [left]="left()" [right]="right()" />
    } @else {
      <fl-pattern-view [view]="view()" />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Patterns {
  /** From the address: which pattern is shown, or two kept ones beside each other. */
  readonly view = input<string>();
  readonly left = input<string>();
  readonly right = input<string>();
}
