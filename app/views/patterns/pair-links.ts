import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { breadthOf, DrawnLinks, type DrawnLine } from './drawn-links';
import { DrawnName, NAMES_APART, NAMES_WIDE } from './drawn-name';
import type { TableHead } from './table-head';

/** Two that go together, and how strongly. */
export interface Link {
  readonly one: TableHead;
  readonly other: TableHead;
  readonly value: number;
  readonly words: string;
}

/** As many links can be told from each other. */
export const MOST_LINKS = 60;

/** Where links begin: beside the names. */
const BEGIN = NAMES_WIDE + 20;
const WIDTH = 960;
const BROADEST = 9;

/** What goes together as arcs between names on a line, broader the stronger they are. Arrow keys go from the strongest down. */
@Component({
  selector: 'fl-pair-links',
  imports: [DrawnLinks, DrawnName],
  template: `
    <svg [attr.viewBox]="box()" role="group" aria-label="Links between what goes together" data-picture>
      <g flDrawnLinks [lines]="arcs()" [open]="open()" (picked)="opened.emit(drawn()[$event]!)" />
      @for (node of nodes(); track node.head.key) {
        <g [class]="'node c' + (node.head.code?.colour ?? '')">
          <title>{{ node.head.name }}</title>
          <g flDrawnName [head]="node.head" [y]="node.y" />
          <circle class="end" [attr.cx]="names" [attr.cy]="node.y" r="2.5" />
        </g>
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
export class PairLinks {
  /** Names in the order of their line. */
  readonly heads = input.required<readonly TableHead[]>();
  /** From the strongest down; no more than {@link MOST_LINKS} are drawn. */
  readonly links = input.required<readonly Link[]>();
  /** Keys of the pair that is open, joined by a blank. */
  readonly open = input<string | null>(null);
  readonly opened = output<Link>();
  protected readonly names = BEGIN;
  protected readonly drawn = computed(() => this.links().slice(0, MOST_LINKS));
  /** Those that have a link. */
  protected readonly nodes = computed(() => {
    const linked = new Set(this.drawn().flatMap(({ one, other }) => [one.key, other.key]));
    return this.heads()
      .filter(({ key }) => linked.has(key))
      .map((head, at) => ({ head, y: 14 + at * NAMES_APART }));
  });
  protected readonly box = computed(() => `0 0 ${WIDTH} ${this.nodes().length * NAMES_APART + 14}`);
  protected readonly arcs = computed((): DrawnLine[] => {
    const yOf = new Map(this.nodes().map(({ head, y }) => [head.key, y]));
    const links = this.drawn();
    const strongest = Math.max(...links.map(({ value }) => value), 0) || 1;
    return links.map(({ one, other, value, words }) => {
      const [from, to] = [yOf.get(one.key)!, yOf.get(other.key)!].sort((a, b) => a - b) as [number, number];
      const reach = Math.min((to - from) / 2, WIDTH - BEGIN - 30);
      return {
        key: `${one.key} ${other.key}`,
        d: `M${BEGIN} ${from}A${reach.toFixed(1)} ${((to - from) / 2).toFixed(1)} 0 0 1 ${BEGIN} ${to}`,
        width: breadthOf(value, strongest, BROADEST),
        said: `${one.name} with ${other.name}: ${words}`,
      };
    });
  });
}
