import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { breadthOf, DrawnLinks, type DrawnLine } from './drawn-links';
import { DrawnName, NAMES_APART, NAMES_WIDE } from './drawn-name';
import { MOST_LINKS, type Link } from './pair-links';
import type { TableHead } from './table-head';

const WIDTH = 960;
/** Where lines begin and end: beside the names of either side. */
const [FROM, TO] = [NAMES_WIDE + 20, WIDTH - NAMES_WIDE - 20];
const BROADEST = 14;

/** Two groups facing each other, with a line between what goes together, broader the stronger it is. */
@Component({
  selector: 'fl-pair-flow',
  imports: [DrawnLinks, DrawnName],
  template: `
    <svg [attr.viewBox]="box()" role="group" aria-label="From one group to the other" data-picture>
      <g flDrawnLinks [lines]="lines()" [open]="open()" (picked)="opened.emit(drawn()[$event]!)" />
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
  styleUrl: './drawn.scss',
  styles: `
    svg {
      max-width: 1100px;
    }
    .end {
      fill: var(--c, var(--accent));
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
  protected readonly drawn = computed(() => this.links().slice(0, MOST_LINKS));
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
  protected readonly lines = computed((): DrawnLine[] => {
    const [left, right] = this.sides().map(({ nodes }) => new Map(nodes.map(({ head, y }) => [head.key, y])));
    const strongest = Math.max(...this.drawn().map(({ value }) => value), 0) || 1;
    return this.drawn().map(({ one, other, value, words }) => {
      const [y, then] = [left!.get(one.key)!, right!.get(other.key)!];
      const middle = (FROM + TO) / 2;
      return {
        key: `${one.key} ${other.key}`,
        d: `M${FROM} ${y}C${middle} ${y} ${middle} ${then} ${TO} ${then}`,
        width: breadthOf(value, strongest, BROADEST),
        said: `${one.name} with ${other.name}: ${words}`,
      };
    });
  });
}
