import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { inlineParts } from '@core/text/inline-emphasis';

/** A memo's words, with strong and emphasised ones shown so. Never as markup: every part is text. */
@Component({
  selector: 'fl-prose',
  template: `@for (part of parts(); track $index) {
    @switch (part.look) {
      @case ('strong') {
        <strong>{{ part.text }}</strong>
      }
      @case ('emphasis') {
        <em>{{ part.text }}</em>
      }
      @default {
        {{ part.text }}
      }
    }
  }`,
  styles: `
    :host {
      display: block;
      white-space: pre-wrap;
      font: 400 15.5px / 1.62 var(--face-read);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Prose {
  readonly text = input.required<string>();
  protected readonly parts = computed(() => inlineParts(this.text()));
}
