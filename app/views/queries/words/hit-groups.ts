import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { HitCount } from '@core/words/group-hits';

/** How many hits each document, case, speaker or folder has, to look at those of one. There may be thousands, so only those in sight are drawn. */
@Component({
  selector: 'fl-hit-groups',
  imports: [CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport],
  template: `
    <cdk-virtual-scroll-viewport itemSize="26" role="list" tabindex="-1" aria-label="Counted hits">
      <div *cdkVirtualFor="let one of shown(); trackBy: keyOf" role="listitem">
        <button [attr.aria-pressed]="chosen() === one.key" [title]="one.name" (click)="picked.emit(chosen() === one.key ? null : one.key)">
          <span>{{ one.name }}</span><span class="number">{{ one.number }}</span>
        </button>
      </div>
    </cdk-virtual-scroll-viewport>
  `,
  styles: `
    :host {
      display: grid;
      min-height: 0;
    }
    button {
      display: flex;
      gap: 8px;
      align-items: center;
      width: 100%;
      height: 26px;
      padding: 2px 6px;
      text-align: left;
      border-radius: 4px;
    }
    button > span:first-child {
      flex: 1;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    [aria-pressed='true'] {
      background: var(--accent-ground);
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HitGroups {
  readonly counts = input.required<readonly HitCount[]>();
  /** Key of the one that is looked at; null for all. */
  readonly chosen = input.required<string | null>();
  readonly picked = output<string | null>();
  protected readonly shown = computed(() => this.counts().map((one) => ({ ...one, number: one.count.toLocaleString() })));

  protected keyOf(_: number, { key }: HitCount): string {
    return key;
  }
}
