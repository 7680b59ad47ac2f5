import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { CODERS_COUNT, type CodersCount } from '@core/model/pattern';
import { SentencePart, type Choice } from '../../ui/sentence/sentence-part';

const NAMES: Readonly<Record<CodersCount, string>> = { together: 'coders together', 'each passage': 'each marked passage' };

/** How codings of several coders count, as a part of a pattern's sentence. */
@Component({
  selector: 'fl-coders-part',
  imports: [SentencePart],
  template: `<fl-part [words]="words()" [choices]="choices" (chosen)="changed.emit($event)" />`,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodersPart {
  readonly coders = input.required<CodersCount>();
  readonly changed = output<CodersCount>();
  protected readonly choices = CODERS_COUNT.map((value): Choice<CodersCount> => ({ value, name: NAMES[value] }));
  protected readonly words = computed(() => NAMES[this.coders()]);
}
