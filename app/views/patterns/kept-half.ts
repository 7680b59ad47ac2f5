import { ChangeDetectionStrategy, Component, effect, inject, input } from '@angular/core';
import type { KeptPattern } from '@core/model/pattern';
import { IN_HALF } from './in-half';
import { PatternDraft } from './pattern-draft';
import { PatternView } from './pattern-view';

/** A kept pattern in one half of the place, with a question of its own: changing its sentence changes neither the other nor what is kept. */
@Component({
  selector: 'fl-kept-half',
  imports: [PatternView],
  providers: [PatternDraft, { provide: IN_HALF, useValue: true }],
  template: `<fl-pattern-view [view]="kept().asked.pattern" />`,
  styles: `
    :host {
      display: grid;
      min-width: 0;
      min-height: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeptHalf {
  readonly kept = input.required<KeptPattern>();

  constructor() {
    const draft = inject(PatternDraft);
    effect(() => draft.set(this.kept().asked));
  }
}
