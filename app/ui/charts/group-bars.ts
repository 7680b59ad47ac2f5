import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, linkedSignal, output, viewChild } from '@angular/core';
import type { Chart } from 'chart.js';
import { ThemeChoice } from '../../state/theme-choice';
import type { GroupedBars } from './bars-chart';
import { keepDrawn } from './keep-drawn';

/** A bar of a thing and a group. */
export interface BarAt {
  readonly thing: number;
  readonly group: number;
}

/** Height of a bar, and between things, in px. */
const [BAR, BETWEEN, AROUND] = [11, 12, 84];

/** Bars of things by group. Arrow keys walk them, up and down by thing, left and right by group; Enter or a click opens one. */
@Component({
  selector: 'fl-group-bars',
  template: `
    <div
      class="frame"
      role="group"
      tabindex="0"
      [attr.aria-label]="label() + '. Arrow keys go from bar to bar, Enter opens one.'"
      [style.height.px]="height()"
      (keydown)="onKey($event)"
      (focus)="show()"
    >
      <canvas #canvas aria-hidden="true" data-picture></canvas>
    </div>
    <p class="visually-hidden" aria-live="polite">{{ now() }}</p>
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
      overflow: auto;
      padding: 4px 20px 16px;
    }
    .frame {
      position: relative;
      max-width: 1000px;
    }
    .frame:focus-visible {
      outline: 2px solid var(--here);
      outline-offset: 2px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GroupBars {
  readonly bars = input.required<GroupedBars>();
  readonly label = input.required<string>();
  readonly picked = output<BarAt>();
  private readonly theme = inject(ThemeChoice);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private chart: Chart | null = null;
  protected readonly height = computed(() => AROUND + this.bars().things.length * (this.bars().groups.length * BAR + BETWEEN));
  /** The bar that the keys are at; null before they are used. */
  private readonly at = linkedSignal<GroupedBars, BarAt | null>({ source: this.bars, computation: () => null });
  protected readonly now = computed(() => {
    const at = this.at();
    return at ? this.bars().said(at.thing, at.group) : '';
  });

  constructor() {
    keepDrawn(() => {
      const bars = this.bars();
      // the colours are read when it is drawn
      this.theme.dark();
      return import('./bars-chart').then(
        ({ drawBars }) =>
          () =>
            (this.chart = drawBars(this.canvas().nativeElement, getComputedStyle(this.host), bars, (thing, group) =>
              this.picked.emit({ thing, group }),
            )),
      );
    });
  }

  protected onKey(event: KeyboardEvent): void {
    const { things, groups } = this.bars();
    const { thing, group } = this.at() ?? { thing: 0, group: 0 };
    const next = {
      ArrowDown: { thing: thing + 1, group },
      ArrowUp: { thing: thing - 1, group },
      ArrowRight: { thing, group: group + 1 },
      ArrowLeft: { thing, group: group - 1 },
    }[event.key];
    if (event.key === 'Enter' || event.key === ' ') this.picked.emit({ thing, group });
    else if (next) {
      const within = (place: number, count: number): number => Math.max(0, Math.min(count - 1, place));
      this.at.set({ thing: within(next.thing, things.length), group: within(next.group, groups.length) });
      this.show();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Shows what the bar that the keys are at says, and brings it into view. */
  protected show(): void {
    const at = this.at() ?? { thing: 0, group: 0 };
    const chart = this.chart;
    if (!chart?.ctx || this.bars().things.length === 0) return;
    this.at.set(at);
    const active = [{ datasetIndex: at.group, index: at.thing }];
    const bar = chart.getDatasetMeta(at.group).data[at.thing];
    chart.setActiveElements(active);
    chart.tooltip?.setActiveElements(active, { x: bar?.x ?? 0, y: bar?.y ?? 0 });
    chart.update('none');
    const [top, seen] = [bar?.y ?? 0, this.host];
    if (top < seen.scrollTop + 40 || top > seen.scrollTop + seen.clientHeight - 40) seen.scrollTop = top - seen.clientHeight / 2;
  }
}
