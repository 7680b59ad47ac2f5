import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { TreeRow } from '@core/codebook/tree';
import type { Id } from '@core/model/ids';
import { CodesShown } from './codes-shown';

/** More names than this on one page are not looked at. */
const MOST = 400;

/** Names of codes in the order of the alphabet, the larger the more passages carry them. */
@Component({
  selector: 'fl-code-names',
  template: `
    <div class="scroll" tabindex="0" role="region" aria-label="Cloud of names">
      <p class="cloud">
        @for (one of names(); track one.code.id) {
          <button
            [class]="'c' + one.code.colour"
            [class.here]="one.code.id === chosenId()"
            [style.font-size.px]="one.size"
            (click)="picked.emit(one.code.id)"
            [attr.aria-label]="one.code.name + ', ' + one.count + ' passages'"
            [title]="one.count + ' passages'"
          >
            {{ one.code.name }}
          </button>
        }
      </p>
      <p class="second note">
        The size of a name grows with the square root of its passages.
        @if (rows().length > most) {
          The {{ most }} most used of {{ rows().length.toLocaleString() }} codes are shown.
        }
      </p>
    </div>
  `,
  styles: `
    :host {
      min-height: 0;
    }
    .scroll {
      height: 100%;
      padding: 20px 26px;
    }
    .cloud {
      display: flex;
      flex-wrap: wrap;
      align-items: baseline;
      gap: 8px 18px;
      font-family: var(--face-read);
      max-width: 900px;
    }
    button {
      border-bottom: 2px solid var(--c);
      line-height: 1.25;
      min-height: 24px;
    }
    button:hover,
    .here {
      background: var(--accent-ground);
    }
    .note {
      margin-top: 20px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeNames {
  readonly rows = input.required<readonly TreeRow[]>();
  readonly chosenId = input.required<Id | null>();
  readonly picked = output<Id>();
  private readonly shown = inject(CodesShown);
  protected readonly most = MOST;
  protected readonly names = computed(() => {
    const counted = this.rows()
      .map(({ code }) => ({ code, count: this.shown.passagesOf(code.id) ?? 0 }))
      .sort((a, b) => b.count - a.count)
      .slice(0, MOST);
    const top = Math.max(1, counted[0]?.count ?? 1);
    return counted
      .map((one) => ({ ...one, size: 12 + 24 * Math.sqrt(one.count / top) }))
      .sort((a, b) => a.code.name.localeCompare(b.code.name));
  });
}
