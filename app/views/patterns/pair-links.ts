import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output } from '@angular/core';
import { DrawnName, NAMES_APART, NAMES_WIDE } from './drawn-name';
import type { TableHead } from './table-head';
import { Walk } from './walk';

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
  imports: [DrawnName],
  template: `
    <svg [attr.viewBox]="box()" role="group" aria-label="Links between what goes together" data-picture>
      <!-- below what is seen, so that a thin line is as easy to hit as a broad one -->
      @for (link of arcs(); track link.key; let at = $index) {
        <path class="reach" [attr.d]="link.d" (click)="walk.pick(at)" data-apart>
          <title>{{ link.said }}</title>
        </path>
      }
      @for (link of arcs(); track link.key; let at = $index) {
        <g
          class="link"
          role="button"
          [class.open]="open() === link.key"
          [attr.tabindex]="at === walk.here() ? 0 : -1"
          [attr.aria-label]="link.said"
          [attr.aria-pressed]="open() === link.key"
          (click)="walk.pick(at)"
          (keydown)="walk.onKey($event, at)"
        >
          <title>{{ link.said }}</title>
          <path class="line" [attr.d]="link.d" [attr.stroke-width]="link.width" />
        </g>
      }
      @for (node of nodes(); track node.head.key) {
        <g [class]="'node c' + (node.head.code?.colour ?? '')">
          <title>{{ node.head.name }}</title>
          <g flDrawnName [head]="node.head" [y]="node.y" />
          <circle class="end" [attr.cx]="names" [attr.cy]="node.y" r="2.5" />
        </g>
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
export class PairLinks {
  /** Names in the order of their line. */
  readonly heads = input.required<readonly TableHead[]>();
  /** From the strongest down; no more than {@link MOST_LINKS} are drawn. */
  readonly links = input.required<readonly Link[]>();
  /** Keys of the pair that is open, joined by a blank. */
  readonly open = input<string | null>(null);
  readonly opened = output<Link>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly names = BEGIN;
  private readonly drawn = computed(() => this.links().slice(0, MOST_LINKS));
  /** Those that have a link. */
  protected readonly nodes = computed(() => {
    const linked = new Set(this.drawn().flatMap(({ one, other }) => [one.key, other.key]));
    return this.heads()
      .filter(({ key }) => linked.has(key))
      .map((head, at) => ({ head, y: 14 + at * NAMES_APART }));
  });
  protected readonly box = computed(() => `0 0 ${WIDTH} ${this.nodes().length * NAMES_APART + 14}`);
  protected readonly arcs = computed(() => {
    const yOf = new Map(this.nodes().map(({ head, y }) => [head.key, y]));
    const links = this.drawn();
    const strongest = Math.max(...links.map(({ value }) => value), 0) || 1;
    return links.map(({ one, other, value, words }) => {
      const [from, to] = [yOf.get(one.key)!, yOf.get(other.key)!].sort((a, b) => a - b) as [number, number];
      const reach = Math.min((to - from) / 2, WIDTH - BEGIN - 30);
      return {
        key: `${one.key} ${other.key}`,
        d: `M${BEGIN} ${from}A${reach.toFixed(1)} ${((to - from) / 2).toFixed(1)} 0 0 1 ${BEGIN} ${to}`,
        width: Math.max(1, (value / strongest) * BROADEST).toFixed(1),
        said: `${one.name} with ${other.name}: ${words}`,
      };
    });
  });
  protected readonly walk = new Walk(this.drawn, this.host, '.link', (link) => this.opened.emit(link));
}
