import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, linkedSignal, output } from '@angular/core';
import type { Plan } from '@core/patterns/similarity/plan';
import { shortened } from '@core/text/shortened';
import { HEIGHT, layOut, outlineOf, tops, WIDTH } from './plan-layout';
import type { TableHead } from './table-head';

/** Longer names are cut on the picture; the whole is said on hovering and to those who hear the page. */
const LONGEST = 30;

/** What is alike lies near: things on a plan, with the parts they make outlined. Arrow keys go to the next in that direction. */
@Component({
  selector: 'fl-likeness-plan',
  template: `
    <svg [attr.viewBox]="box" role="group" aria-label="Plan: what is alike lies near" data-picture>
      @for (part of outlines(); track part.number) {
        <path class="edge" [attr.d]="part.d" />
        <path class="inside" [attr.d]="part.d" />
      }
      @for (part of outlines(); track part.number) {
        <text class="number" [attr.x]="part.x" [attr.y]="part.y">{{ part.number }}</text>
      }
      @for (one of points(); track one.thing.key; let at = $index) {
        @if (one.laid.from; as from) {
          <line class="aside" [attr.x1]="from.x" [attr.y1]="from.y" [attr.x2]="one.laid.x" [attr.y2]="one.laid.y - 2" />
        }
        <g
          role="button"
          [class]="'point c' + (one.thing.code?.colour ?? '')"
          [class.open]="open() === one.thing.key"
          [attr.tabindex]="at === here() ? 0 : -1"
          [attr.aria-label]="one.thing.name + ', part ' + (parts()[at]! + 1)"
          [attr.aria-pressed]="open() === one.thing.key"
          (click)="pick(at)"
          (keydown)="onKey($event, at)"
        >
          <title>{{ one.thing.name }}</title>
          <rect class="ground" [attr.x]="one.laid.x - 12" [attr.y]="one.laid.y - 13" width="24" height="19" rx="3" />
          @if (one.thing.code; as code) {
            <text class="mark" [attr.x]="one.laid.x" [attr.y]="one.laid.y - 1">{{ code.mark }}</text>
          }
          <line class="under" [attr.x1]="one.laid.x - 9" [attr.x2]="one.laid.x + 9" [attr.y1]="one.laid.y + 3" [attr.y2]="one.laid.y + 3" />
          @if (one.laid.label; as label) {
            <text class="name" [attr.x]="label.x" [attr.y]="label.y" [attr.text-anchor]="label.anchor">{{ one.short }}</text>
          }
        </g>
      }
    </svg>
  `,
  styleUrls: ['./drawn.scss', './drawn-names.scss'],
  styles: `
    svg {
      max-height: 100%;
    }
    .point .name {
      font-size: 12px;
    }
    .edge,
    .inside {
      fill: var(--ground);
      stroke: var(--ground);
      stroke-width: 44;
      stroke-linejoin: round;
    }
    .edge {
      stroke: var(--rule-strong);
      stroke-width: 46;
    }
    .number {
      fill: var(--ink-second);
      font: 600 13px var(--face-read);
      text-anchor: middle;
    }
    .aside {
      stroke: var(--rule-strong);
    }
    .ground {
      fill: transparent;
    }
    .point {
      cursor: pointer;
      outline: none;
    }
    .point:hover .name {
      fill: var(--accent);
    }
    .point:focus-visible .ground,
    .point.open .ground {
      stroke: var(--here);
      stroke-width: 2;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LikenessPlan {
  readonly things = input.required<readonly TableHead[]>();
  readonly plan = input.required<Plan>();
  /** The part each is in, from 0. */
  readonly parts = input.required<Uint16Array>();
  /** Key of what is open. */
  readonly open = input<string | null>(null);
  readonly opened = output<string>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly box = `0 0 ${WIDTH} ${HEIGHT}`;
  protected readonly points = computed(() => {
    const things = this.things();
    const shorts = things.map(({ name }) => shortened(name, LONGEST));
    return layOut(this.plan(), shorts, this.parts()).map((laid, at) => ({ laid, thing: things[at]!, short: shorts[at]! }));
  });
  /** The parts, the largest first, so that none hides one within it. */
  protected readonly outlines = computed(() => {
    const parts = this.parts();
    const points = this.points().map(({ laid }) => laid);
    const several: { x: number; y: number }[][] = [];
    points.forEach(({ x, y }, at) => (several[parts[at]!] ??= []).push({ x, y: y - 4 }));
    if (several.length < 2) return [];
    const numbers = tops(points, parts);
    return several
      .map((some, part) => ({ d: outlineOf(some), size: some.length, number: part + 1, ...numbers[part]! }))
      .sort((a, b) => b.size - a.size);
  });
  /** The one that Tab comes to. */
  protected readonly here = linkedSignal({ source: this.things, computation: () => 0 });

  protected pick(at: number): void {
    this.here.set(at);
    this.opened.emit(this.things()[at]!.key);
  }

  protected onKey(event: KeyboardEvent, at: number): void {
    const ways: Readonly<Record<string, readonly [number, number]>> = {
      ArrowRight: [1, 0],
      ArrowLeft: [-1, 0],
      ArrowDown: [0, 1],
      ArrowUp: [0, -1],
    };
    const way = ways[event.key];
    if (event.key === 'Enter' || event.key === ' ') this.pick(at);
    else if (way) this.go(at, way);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** To the nearest one in a direction, within a quarter of the circle. */
  private go(from: number, [right, down]: readonly [number, number]): void {
    const points = this.points();
    const { x, y } = points[from]!.laid;
    let [best, least] = [from, Infinity];
    points.forEach(({ laid }, at) => {
      const [dx, dy] = [laid.x - x, laid.y - y];
      const along = dx * right + dy * down;
      const across = Math.abs(dx * down) + Math.abs(dy * right);
      if (at === from || along <= 0 || across > along || Math.hypot(dx, dy) >= least) return;
      [best, least] = [at, Math.hypot(dx, dy)];
    });
    this.here.set(best);
    setTimeout(() => this.host.querySelectorAll<SVGGElement>('.point')[best]?.focus());
  }
}
