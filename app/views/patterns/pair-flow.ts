import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output } from '@angular/core';
import { DrawnName, NAMES_APART, NAMES_WIDE } from './drawn-name';
import { MOST_LINKS, type Link } from './pair-links';
import type { TableHead } from './table-head';
import { Walk } from './walk';

const WIDTH = 960;
/** Where lines begin and end: beside the names of either side. */
const [FROM, TO] = [NAMES_WIDE + 20, WIDTH - NAMES_WIDE - 20];
const BROADEST = 14;

/** Two groups facing each other, with a line between what goes together, broader the stronger it is. */
@Component({
  selector: 'fl-pair-flow',
  imports: [DrawnName],
  template: `
    <svg [attr.viewBox]="box()" role="group" aria-label="From one group to the other" data-picture>
      <!-- below what is seen, so that a thin line is as easy to hit as a broad one -->
      @for (line of lines(); track line.key; let at = $index) {
        <path class="reach" [attr.d]="line.d" (click)="walk.pick(at)" data-apart>
          <title>{{ line.said }}</title>
        </path>
      }
      @for (line of lines(); track line.key; let at = $index) {
        <g
          class="link"
          role="button"
          [class.open]="open() === line.key"
          [attr.tabindex]="at === walk.here() ? 0 : -1"
          [attr.aria-label]="line.said"
          [attr.aria-pressed]="open() === line.key"
          (click)="walk.pick(at)"
          (keydown)="walk.onKey($event, at)"
        >
          <title>{{ line.said }}</title>
          <path class="line" [attr.d]="line.d" [attr.stroke-width]="line.width" />
        </g>
      }
      @for (side of sides(); track side.x) {
        @for (node of side.nodes; track node.head.key) {
          <g [class]="'node c' + (node.head.code?.colour ?? '')">
            <title>{{ node.head.name }}</title>
            <g flDrawnName [head]="node.head" [y]="node.y" [attr.transform]="'translate(' + side.x + ' 0)'" />
            <circle class="end" [attr.cx]="side.end" [attr.cy]="node.y" r="2.5" />
          </g>
        }
      }
    </svg>
  `,
  styleUrls: ['./drawn.scss', './drawn-link.scss'],
  styles: `
    svg {
      max-width: 1100px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PairFlow {
  readonly from = input.required<readonly TableHead[]>();
  readonly to = input.required<readonly TableHead[]>();
  /** From the strongest down, `one` among those it comes from; no more than {@link MOST_LINKS} are drawn. */
  readonly links = input.required<readonly Link[]>();
  /** Keys of the pair that is open, joined by a blank. */
  readonly open = input<string | null>(null);
  readonly opened = output<Link>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly drawn = computed(() => this.links().slice(0, MOST_LINKS));
  /** Those that have a line, on either side, in their order. */
  protected readonly sides = computed(() => {
    const drawn = this.drawn();
    const nodesOf = (heads: readonly TableHead[], keys: ReadonlySet<string>) =>
      heads.filter(({ key }) => keys.has(key)).map((head, at) => ({ head, y: 14 + at * NAMES_APART }));
    return [
      { x: 0, end: FROM, nodes: nodesOf(this.from(), new Set(drawn.map(({ one }) => one.key))) },
      { x: TO + 16, end: TO, nodes: nodesOf(this.to(), new Set(drawn.map(({ other }) => other.key))) },
    ] as const;
  });
  protected readonly box = computed(() => {
    const [left, right] = this.sides();
    return `0 0 ${WIDTH} ${Math.max(left.nodes.length, right.nodes.length) * NAMES_APART + 14}`;
  });
  protected readonly lines = computed(() => {
    const [left, right] = this.sides().map(({ nodes }) => new Map(nodes.map(({ head, y }) => [head.key, y])));
    const strongest = Math.max(...this.drawn().map(({ value }) => value), 0) || 1;
    return this.drawn().map(({ one, other, value, words }) => {
      const [y, then] = [left!.get(one.key)!, right!.get(other.key)!];
      const middle = (FROM + TO) / 2;
      return {
        key: `${one.key} ${other.key}`,
        d: `M${FROM} ${y}C${middle} ${y} ${middle} ${then} ${TO} ${then}`,
        width: Math.max(1, (value / strongest) * BROADEST).toFixed(1),
        said: `${one.name} with ${other.name}: ${words}`,
      };
    });
  });
  protected readonly walk = new Walk(this.drawn, this.host, '.link', (link) => this.opened.emit(link));
}
