import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { leavesOf, type Merge } from '@core/patterns/similarity/tree';
import { DrawnName, NAMES_APART, NAMES_WIDE } from './drawn-name';
import type { TableHead } from './table-head';

const WIDTH = 960;
const TOP = 24;

/** How things come together, from the most alike at the left to all in one at the right; a line where it is cut into parts. */
@Component({
  selector: 'fl-likeness-tree',
  imports: [DrawnName],
  template: `
    <svg
      [attr.viewBox]="box()"
      [style.min-width.px]="620"
      role="group"
      aria-label="Tree: what comes together at which likeness"
      data-picture
    >
      @for (tick of ticks; track tick) {
        <text class="tick" [attr.x]="xOf(1 - tick)" y="12">{{ tick }}</text>
        <line class="rule" [attr.x1]="xOf(1 - tick)" [attr.x2]="xOf(1 - tick)" y1="18" [attr.y2]="bottom()" />
      }
      @for (line of lines(); track $index) {
        <path class="branch" [attr.d]="line" />
      }
      @if (cut(); as cut) {
        <line class="cut" [attr.x1]="cut" [attr.x2]="cut" y1="18" [attr.y2]="bottom()" />
      }
      @for (leaf of leaves(); track leaf.thing.key) {
        @if (leaf.first) {
          <line class="between" x1="0" [attr.x2]="width" [attr.y1]="leaf.y - 11" [attr.y2]="leaf.y - 11" />
        }
        <g
          role="button"
          tabindex="0"
          class="leaf"
          [class.open]="open() === leaf.thing.key"
          [attr.aria-label]="leaf.thing.name + ', part ' + (leaf.part + 1)"
          [attr.aria-pressed]="open() === leaf.thing.key"
          (click)="opened.emit(leaf.thing.key)"
          (keydown.enter)="opened.emit(leaf.thing.key)"
          (keydown.space)="opened.emit(leaf.thing.key); $event.preventDefault()"
        >
          <title>{{ leaf.thing.name }}</title>
          <rect class="ground" x="0" [attr.y]="leaf.y - 10" [attr.width]="names" height="20" rx="3" />
          <g flDrawnName [head]="leaf.thing" [y]="leaf.y" />
        </g>
      }
    </svg>
  `,
  styleUrl: './drawn.scss',
  styles: `
    svg {
      max-width: 1100px;
    }
    .tick {
      fill: var(--ink-second);
      font: 11.5px var(--face-ui);
      text-anchor: middle;
    }
    .rule {
      stroke: var(--rule);
    }
    .branch {
      fill: none;
      stroke: var(--ink-second);
      stroke-width: 1.2;
    }
    .cut {
      stroke: var(--here);
      stroke-dasharray: 3 3;
    }
    .between {
      stroke: var(--rule);
    }
    .ground {
      fill: transparent;
    }
    .leaf {
      cursor: pointer;
      outline: none;
    }
    .leaf:focus-visible .ground,
    .leaf.open .ground {
      stroke: var(--here);
      stroke-width: 2;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LikenessTree {
  readonly things = input.required<readonly TableHead[]>();
  readonly merges = input.required<readonly Merge[]>();
  readonly parts = input.required<Uint16Array>();
  readonly open = input<string | null>(null);
  readonly opened = output<string>();
  protected readonly width = WIDTH;
  protected readonly names = NAMES_WIDE;
  protected readonly ticks = [1, 0.8, 0.6, 0.4, 0.2, 0];
  protected readonly bottom = computed(() => TOP + this.things().length * NAMES_APART + 4);
  protected readonly box = computed(() => `0 0 ${WIDTH} ${this.bottom()}`);
  protected readonly leaves = computed(() => {
    const [things, parts] = [this.things(), this.parts()];
    const order = leavesOf(this.merges(), things.length);
    return order.map((at, row) => {
      return {
        thing: things[at]!,
        at,
        part: parts[at]!,
        y: TOP + row * NAMES_APART + NAMES_APART / 2,
        /** It begins a part, and is not the first. */
        first: row > 0 && parts[at] !== parts[order[row - 1]!],
      };
    });
  });
  protected readonly lines = computed(() => {
    const size = this.things().length;
    const places = new Array<{ readonly x: number; readonly y: number }>(size);
    for (const { at, y } of this.leaves()) places[at] = { x: this.xOf(0), y };
    return this.merges().map(({ first, second, height }) => {
      const [one, other, x] = [places[first]!, places[second]!, this.xOf(height)];
      places.push({ x, y: (one.y + other.y) / 2 });
      return `M${one.x} ${one.y}H${x}V${other.y}H${other.x}`;
    });
  });
  /** Where the tree is cut; null where all is one part or each is its own. */
  protected readonly cut = computed(() => {
    const [merges, size] = [this.merges(), this.things().length];
    const parts = new Set(this.parts()).size;
    if (parts < 2) return null;
    const [below, above] = [merges[size - parts - 1]?.height ?? 0, merges[size - parts]!.height];
    return this.xOf((below + above) / 2);
  });

  /** @param height a dissimilarity, 0 to 1 */
  protected xOf(height: number): number {
    return NAMES_WIDE + 14 + height * (WIDTH - NAMES_WIDE - 34);
  }
}
