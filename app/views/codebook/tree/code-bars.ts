import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { TreeRow } from '@core/codebook/tree';
import type { Id } from '@core/model/ids';
import { KeepScroll } from '../../../ui/keep-scroll/keep-scroll';
import { Swatch } from '../../../ui/swatch/swatch';
import { CodesShown } from './codes-shown';

/** Codes by their passages, the most first, each as a line whose length is its count. */
@Component({
  selector: 'fl-code-bars',
  imports: [CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, KeepScroll, Swatch],
  template: `
    <cdk-virtual-scroll-viewport flKeepScroll itemSize="26" role="list" aria-label="Codes by passages" tabindex="-1">
      <div *cdkVirtualFor="let bar of bars(); trackBy: byId" role="listitem">
        <button [class]="'bar c' + bar.code.colour" [class.here]="bar.code.id === chosenId()" (click)="picked.emit(bar.code.id)">
          <fl-swatch [mark]="bar.code.mark" [colour]="bar.code.colour" />
          <span class="name">{{ bar.code.name }}</span>
          <span class="line"><span [style.width.%]="bar.share * 100"></span></span>
          <span class="number">{{ bar.count || '–' }}</span>
        </button>
      </div>
    </cdk-virtual-scroll-viewport>
  `,
  styles: `
    :host {
      min-height: 0;
    }
    cdk-virtual-scroll-viewport {
      height: 100%;
    }
    .bar {
      display: grid;
      grid-template-columns: auto 210px 1fr 56px;
      align-items: center;
      gap: 9px;
      width: 100%;
      height: 26px;
      padding: 0 20px;
    }
    .bar:hover {
      background: var(--ground);
    }
    .bar.here {
      background: var(--accent-ground);
    }
    .bar:focus-visible {
      outline-offset: -2px;
    }
    .name {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .line {
      display: block;
      border-left: 1px solid var(--rule-strong);
      height: 100%;
      display: flex;
      align-items: center;
    }
    .line span {
      display: block;
      height: 4px;
      min-width: 1px;
      background: var(--c);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeBars {
  readonly rows = input.required<readonly TreeRow[]>();
  readonly chosenId = input.required<Id | null>();
  readonly picked = output<Id>();
  private readonly shown = inject(CodesShown);
  protected readonly bars = computed(() => {
    const counted = this.rows().map(({ code }) => ({ code, count: this.shown.passagesOf(code.id) ?? 0 }));
    const most = counted.reduce((most, one) => Math.max(most, one.count), 1);
    return counted
      .sort((a, b) => b.count - a.count || a.code.name.localeCompare(b.code.name))
      .map((one) => ({ ...one, share: one.count / most }));
  });
  protected readonly byId = (_: number, bar: { code: { id: Id } }): Id => bar.code.id;
}
