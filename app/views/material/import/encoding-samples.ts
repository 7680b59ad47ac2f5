import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { EncodingSample } from '@core/formats/plain-text/guess-encoding';

/** What a text may be written in, each with words in which it shows; one click reads it so. */
@Component({
  selector: 'fl-encoding-samples',
  template: `
    @if (samples().length > 0) {
      <p class="second" role="group" aria-label="What the text may be written in">
        <span>{{ taken() ? 'The encoding is a guess, by these words:' : 'It may be written in:' }}</span>
        @for (one of samples(); track one.encoding) {
          @if (one.encoding === taken()) {
            <span class="taken"
              ><strong>{{ one.encoding }}</strong> <span class="words">{{ words(one) }}</span></span
            >
          } @else {
            <button class="act" (click)="chosen.emit(one.encoding)">
              {{ one.encoding }} <span class="words">{{ words(one) }}</span>
            </button>
          }
        }
      </p>
    }
  `,
  styles: `
    p {
      display: flex;
      flex-wrap: wrap;
      align-items: baseline;
      gap: 4px 16px;
    }
    .words {
      font: 400 14px / 1.4 var(--face-read);
      color: var(--ink);
      margin-left: 6px;
    }
    .taken {
      color: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EncodingSamples {
  readonly samples = input.required<readonly EncodingSample[]>();
  /** The encoding it is read in, or null where it cannot be read yet. */
  readonly taken = input<string | null>(null);
  readonly chosen = output<string>();

  protected readonly words = (sample: EncodingSample): string => sample.words.join(', ');
}
