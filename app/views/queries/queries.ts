import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Id } from '@core/model/ids';
import { Passages } from './passages';
import { Propositions } from './propositions/propositions';
import { Swept } from './words/swept';
import { Words } from './words/words';

/** Asking the material: passages by what they do, words in texts, and going through what a sweep has coded. */
@Component({
  selector: 'fl-queries',
  imports: [Passages, Propositions, Swept, Words],
  template: `
    @switch (view()) {
      @case ('words') {
        @defer (on immediate) {
          <fl-words />
        }
      }
      @case ('swept') {
        @defer (on immediate) {
          <fl-swept />
        }
      }
      @case ('propositions') {
        @defer (on immediate) {
          <fl-propositions />
        }
      }
      @default {
        <fl-passages [query]="query()" />
      }
    }
  `,
  styles: `
    :host,
    fl-passages,
    fl-words,
    fl-swept,
    fl-propositions {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Queries {
  /** From the address: which part is shown. */
  readonly view = input<string>();
  /** From the address: a kept query that is asked. */
  readonly query = input<Id>();
}
