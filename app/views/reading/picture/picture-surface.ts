import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { boxOf, rowsOf, type Area, type Box } from '@core/model/area';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import type { Place } from '@core/model/stretch';
import type { Table } from '@core/model/study-state';
import { mapped, type Point } from '@core/pictures/frame';
import { areaAlong, areaBetween, fittedArea, movedArea, withCorner } from '@core/pictures/shape-area';
import { addOutline, covers, outlineOf, strokeOutline } from '../../../ui/pictures/outline';
import type { PictureLevels } from '../../../ui/pictures/picture-levels';
import { commandOf, type SurfaceCommand } from '../surface/reading-surface';
import type { Picture, Underline } from './picture-here';
import { PictureView } from './picture-view';

/** What a drag draws. */
export type Shape = 'rectangle' | 'ellipse' | 'outline';

/** Pixels of the screen: how near something is taken hold of, how far the pointer goes before it draws, how large a handle is. */
const NEAR = 8;
const STILL = 4;
const HANDLE = 4;

/** What the pointer is doing. */
type Drag =
  | { readonly of: 'draw'; readonly from: Point; readonly points: Point[]; readonly start: Point; moved: boolean }
  | { readonly of: 'move'; readonly from: Point; readonly area: Area }
  | { readonly of: 'fit'; readonly fixed: Point; readonly across: boolean; readonly down: boolean; readonly area: Area }
  | { readonly of: 'corner'; readonly at: number; readonly area: Extract<Area, { shape: 'polygon' }> }
  | { readonly of: 'pan'; last: Point };

/** A picture with what is coded of it as outlines: it is moved and made larger, areas are drawn, chosen, moved and reshaped. */
@Component({
  selector: 'fl-picture-surface',
  template: `<canvas
    #canvas
    (pointerdown)="onDown($event)"
    (pointermove)="onMove($event)"
    (pointerup)="onUp($event)"
    (pointercancel)="stop()"
    (wheel)="onWheel($event)"
  ></canvas>`,
  styles: `
    :host {
      display: block;
      position: relative;
      overflow: hidden;
      background: var(--ground);
      touch-action: none;
    }
    canvas {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      cursor: crosshair;
    }
    :host(:focus-visible) {
      outline-offset: -2px;
    }
  `,
  host: {
    role: 'application',
    tabindex: '0',
    'data-original': '',
    '[attr.aria-label]': "label() + ', a picture'",
    '(keydown)': 'onKey($event)',
    '(keyup)': 'onKeyUp($event)',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureSurface {
  readonly ground = input.required<Picture['ground']>();
  readonly levels = input<PictureLevels | null>(null);
  readonly label = input('');
  readonly passages = input.required<readonly Passage[]>();
  readonly codes = input.required<Table<Code>>();
  readonly chosenId = input<Id | null>(null);
  /** An area that is marked and not coded yet. */
  readonly marked = input<Place | null>(null);
  readonly shape = input<Shape>('rectangle');
  /** Of a page: codes on its words. */
  readonly underlines = input<readonly Underline[]>([]);

  readonly marking = output<Place | null>();
  readonly chosen = output<Id | null>();
  readonly moved = output<{ readonly passageId: Id; readonly place: Place }>();
  readonly asked = output<SurfaceCommand>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  readonly view = new PictureView();
  private drag: Drag | null = null;
  private panning = false;
  private frame = 0;
  private readonly size = signal({ width: 0, height: 0 });
  /** An area while it is drawn or changed. */
  private readonly changing = signal<Area | null>(null);
  private readonly chosenPassage = computed(() => this.passages().find((passage) => passage.id === this.chosenId()));
  /** The area that handles and keys change: the one that is marked, else the chosen. */
  private readonly active = computed((): Area | null => this.changing() ?? this.marked()?.area ?? this.chosenPassage()?.area ?? null);

  constructor() {
    afterRenderEffect((onCleanup) => {
      const observer = new ResizeObserver(([entry]) => {
        const { width, height } = entry!.contentRect;
        this.view.resize(width, height);
        this.size.set({ width, height });
      });
      observer.observe(this.host);
      onCleanup(() => observer.disconnect());
    });
    effect(() => {
      const ground = this.ground();
      untracked(() => this.view.show(ground));
    });
    effect((onCleanup) => {
      this.view.map();
      this.levels();
      this.passages();
      this.codes();
      this.active();
      this.size();
      this.chosenId();
      this.underlines();
      cancelAnimationFrame(this.frame);
      this.frame = requestAnimationFrame(() => this.draw());
      onCleanup(() => cancelAnimationFrame(this.frame));
    });
  }

  focus(): void {
    this.host.focus();
  }

  /** Where an area is on the screen, for what opens beside it. */
  coordsOf(area: Area): { readonly left: number; readonly top: number; readonly bottom: number } {
    const box = this.boxOnScreen(area);
    const host = this.host.getBoundingClientRect();
    return { left: host.left + box.left, top: host.top + box.top, bottom: host.top + Math.min(box.bottom, host.height - 10) };
  }

  /** Brings an area into sight. */
  bringIn(area: Area): void {
    this.view.bringIn(this.boxOnScreen(area));
  }

  private boxOnScreen(area: Area): Box {
    const { left, top, right, bottom } = boxOf(area);
    const map = this.view.map();
    const [one, other] = [mapped(map, { x: left, y: top }), mapped(map, { x: right, y: bottom })];
    return {
      left: Math.min(one.x, other.x),
      top: Math.min(one.y, other.y),
      right: Math.max(one.x, other.x),
      bottom: Math.max(one.y, other.y),
    };
  }

  private draw(): void {
    const canvas = this.canvas().nativeElement;
    const context = canvas.getContext('2d');
    const { width, height } = this.size();
    if (!context || width === 0) return;
    const density = devicePixelRatio;
    const [across, down] = [Math.round(width * density), Math.round(height * density)];
    if (canvas.width !== across || canvas.height !== down) [canvas.width, canvas.height] = [across, down];
    context.setTransform(density, 0, 0, density, 0, 0);
    context.clearRect(0, 0, width, height);
    const ground = this.ground();
    const levels = this.levels();
    const map = this.view.map();
    const style = getComputedStyle(this.host);
    if (levels) {
      const level = levels.at(this.view.scale() * density);
      context.save();
      const { left, top, right, bottom } = ground.shown?.crop ?? { left: 0, top: 0, right: ground.width, bottom: ground.height };
      context.transform(map.a, map.b, map.c, map.d, map.e, map.f);
      const [sx, sy] = [level.width / ground.width, level.height / ground.height];
      context.imageSmoothingEnabled = this.view.scale() < 4;
      context.drawImage(level, left * sx, top * sy, (right - left) * sx, (bottom - top) * sy, left, top, right - left, bottom - top);
      context.restore();
    }
    this.drawUnderlines(context, style);
    const halo = style.getPropertyValue('--surface');
    const codes = this.codes();
    const chosen = this.chosenPassage();
    const changing = this.changing();
    const seen = this.view.seen();
    const [left, right] = [Math.min(seen.from.x, seen.to.x), Math.max(seen.from.x, seen.to.x)];
    const [top, bottom] = [Math.min(seen.from.y, seen.to.y), Math.max(seen.from.y, seen.to.y)];
    /** Outlines by the colours they are drawn in, those of the chosen passage apart. */
    const paths = new Map<string, { readonly path: Path2D; readonly colours: readonly number[]; readonly strong: boolean }>();
    for (const passage of this.passages()) {
      if (!passage.area || (passage === chosen && changing && !this.marked())) continue;
      const box = boxOf(passage.area);
      if (box.right < left || box.left > right || box.bottom < top || box.top > bottom) continue;
      const colours = coloursOf(passage, codes);
      const strong = passage === chosen;
      const key = `${colours.join()} ${strong}`;
      let one = paths.get(key);
      if (!one) paths.set(key, (one = { path: new Path2D(), colours, strong }));
      addOutline(one.path, passage.area, map);
    }
    for (const { path, colours, strong } of paths.values()) {
      const strokes = colours.map((colour) => style.getPropertyValue(colour < 0 ? '--ink-second' : `--code-${colour}`));
      strokeOutline(context, path, strokes, halo, strong);
    }
    const active = this.active();
    if (!active) return;
    const here = style.getPropertyValue('--here');
    if (changing || this.marked()) strokeOutline(context, outlineOf(active, map), [here], halo, true);
    context.fillStyle = here;
    context.strokeStyle = halo;
    context.lineWidth = 1.5;
    for (const { x, y } of this.handles(active)) {
      context.beginPath();
      context.rect(x - HANDLE, y - HANDLE, 2 * HANDLE, 2 * HANDLE);
      context.fill();
      context.stroke();
    }
  }

  private drawUnderlines(context: CanvasRenderingContext2D, style: CSSStyleDeclaration): void {
    const map = this.view.map();
    for (const { passageId, colour, lane, lines } of this.underlines()) {
      context.strokeStyle = style.getPropertyValue(`--code-${colour}`);
      context.lineWidth = passageId === this.chosenId() ? 3.5 : 2;
      context.beginPath();
      for (const { left, right, bottom } of lines) {
        const [from, to] = [mapped(map, { x: left, y: bottom }), mapped(map, { x: right, y: bottom })];
        context.moveTo(from.x, from.y + 1 + lane * 4);
        context.lineTo(to.x, to.y + 1 + lane * 4);
      }
      context.stroke();
    }
  }

  /** The coded words at a point of the picture. */
  private wordsAt({ x, y }: Point): Id | null {
    const near = 6 / this.view.scale();
    const within = ({ left, right, top, bottom }: Box): boolean => x >= left && x <= right && y >= top && y <= bottom + near;
    return this.underlines().find(({ lines }) => lines.some(within))?.passageId ?? null;
  }

  /** Where the handles of an area are on the screen: its corners, or those and the middles of the sides of its box. */
  private handles(area: Area): Point[] {
    const map = this.view.map();
    if (area.shape === 'polygon') return area.corners.length > 60 ? [] : area.corners.map((corner) => mapped(map, corner));
    return boxHandles(boxOf(area)).map(({ x, y }) => mapped(map, { x, y }));
  }

  private at(event: { readonly clientX: number; readonly clientY: number }): Point {
    const { left, top } = this.host.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  }

  protected onDown(event: PointerEvent): void {
    const at = this.at(event);
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.host.focus();
    if (event.button === 1 || (event.button === 0 && this.panning)) {
      this.drag = { of: 'pan', last: at };
      return;
    }
    if (event.button !== 0) return;
    this.drag = this.holdOf(at) ?? {
      of: 'draw',
      from: this.view.toPicture(at),
      points: [this.view.toPicture(at)],
      start: at,
      moved: false,
    };
  }

  /** What of the active area is taken hold of at a point: a handle, or its outline. */
  private holdOf(at: Point): Drag | null {
    const area = this.active();
    if (!area) return null;
    const handle = this.handles(area).findIndex(({ x, y }) => Math.hypot(x - at.x, y - at.y) <= NEAR);
    if (handle >= 0 && area.shape === 'polygon') return { of: 'corner', at: handle, area };
    if (handle >= 0) {
      const { across, down, fixed } = boxHandles(boxOf(area))[handle]!;
      return { of: 'fit', fixed, across, down, area };
    }
    const context = this.canvas().nativeElement.getContext('2d')!;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.lineWidth = 2 * NEAR;
    return context.isPointInStroke(outlineOf(area, this.view.map()), at.x, at.y)
      ? { of: 'move', from: this.view.toPicture(at), area }
      : null;
  }

  protected onMove(event: PointerEvent): void {
    const { drag } = this;
    if (!drag) return;
    const at = this.at(event);
    const point = this.view.toPicture(at);
    const size = this.ground();
    switch (drag.of) {
      case 'pan':
        this.view.move(at.x - drag.last.x, at.y - drag.last.y);
        drag.last = at;
        return;
      case 'draw': {
        drag.moved ||= Math.hypot(at.x - drag.start.x, at.y - drag.start.y) > STILL;
        if (!drag.moved) return;
        drag.points.push(point);
        const shape = this.shape();
        const area = shape === 'outline' ? areaAlong(drag.points, size, 2 / this.view.scale()) : areaBetween(shape, drag.from, point, size);
        return this.changing.set(area);
      }
      case 'move':
        return this.changing.set(movedArea(drag.area, { x: point.x - drag.from.x, y: point.y - drag.from.y }, size));
      case 'corner':
        return this.changing.set(withCorner(drag.area, drag.at, point, size));
      case 'fit': {
        const box = boxOf(drag.area);
        const to: Box = {
          left: drag.across ? Math.min(drag.fixed.x, point.x) : box.left,
          right: drag.across ? Math.max(drag.fixed.x, point.x) : box.right,
          top: drag.down ? Math.min(drag.fixed.y, point.y) : box.top,
          bottom: drag.down ? Math.max(drag.fixed.y, point.y) : box.bottom,
        };
        return this.changing.set(fittedArea(drag.area, to, size));
      }
    }
  }

  protected onUp(event: PointerEvent): void {
    const { drag } = this;
    const area = this.changing();
    this.stop();
    if (!drag || drag.of === 'pan') return;
    if (drag.of === 'draw') {
      if (drag.moved) {
        if (area) this.mark(area);
        return;
      }
      if (this.marked()) this.marking.emit(null);
      const point = this.view.toPicture(this.at(event));
      return this.chosen.emit(this.nextAt(point) ?? this.wordsAt(point));
    }
    if (area) this.change(area);
  }

  protected stop(): void {
    this.drag = null;
    this.changing.set(null);
  }

  private mark(area: Area): void {
    this.chosen.emit(null);
    this.marking.emit({ ...rowsOf(area), area });
  }

  /** The active area becomes another: the marked one at once, a passage as an action. */
  private change(area: Area): void {
    if (this.marked()) return this.marking.emit({ ...rowsOf(area), area });
    const passage = this.chosenPassage();
    if (passage && JSON.stringify(passage.area) !== JSON.stringify(area))
      this.moved.emit({ passageId: passage.id, place: { ...rowsOf(area), area } });
  }

  /** Of the areas that lie over one another at a point, the one after the chosen; the smallest comes first. */
  private nextAt(point: Point): Id | null {
    const size = ({ left, top, right, bottom }: Box): number => (right - left) * (bottom - top);
    const here = this.passages()
      .filter(({ area }) => area && covers(area, point))
      .sort((a, b) => size(boxOf(a.area!)) - size(boxOf(b.area!)));
    const at = here.findIndex((passage) => passage.id === this.chosenId());
    return here[(at + 1) % Math.max(1, here.length)]?.id ?? null;
  }

  protected onWheel(event: WheelEvent): void {
    event.preventDefault();
    if (event.ctrlKey || event.metaKey) this.view.zoom(Math.exp(-event.deltaY / 300), this.at(event));
    else this.view.move(-event.deltaX, -event.deltaY);
  }

  protected onKeyUp(event: KeyboardEvent): void {
    if (event.key === ' ') this.panning = false;
  }

  protected onKey(event: KeyboardEvent): void {
    if (!this.ownKey(event)) {
      const command = commandOf(event);
      if (!command || /^(start|end) /.test(command)) return;
      this.asked.emit(command);
    }
    event.preventDefault();
    event.stopPropagation();
  }

  /** Arrows move the marked or chosen area, with Alt its lower right corner, else the picture; I marks one in the middle. */
  private ownKey(event: KeyboardEvent): boolean {
    if (event.ctrlKey || event.metaKey) return false;
    switch (event.key) {
      case ' ':
        this.panning = true;
        return true;
      case '+':
      case '=':
        this.view.zoom(1.25);
        return true;
      case '-':
        this.view.zoom(0.8);
        return true;
      case '0':
        this.view.showWhole();
        return true;
      case 'i':
      case 'I':
        this.markMiddle();
        return true;
      case 'Escape':
        if (!this.marked()) return false;
        this.marking.emit(null);
        return true;
    }
    const way = ARROWS[event.key];
    if (!way) return false;
    const area = this.active();
    if (!area) {
      this.view.move(-way.x * 40, -way.y * 40);
      return true;
    }
    // one pixel of the screen as it is seen, at least one of the picture
    const from = this.view.toPicture({ x: 0, y: 0 });
    const to = this.view.toPicture(way);
    const steps = event.shiftKey ? 10 : 1;
    const by = { x: stepOf(to.x - from.x) * steps, y: stepOf(to.y - from.y) * steps };
    const box = boxOf(area);
    const next = event.altKey
      ? fittedArea(
          area,
          { ...box, right: Math.max(box.left + 1, box.right + by.x), bottom: Math.max(box.top + 1, box.bottom + by.y) },
          this.ground(),
        )
      : movedArea(area, by, this.ground());
    this.change(next);
    this.bringIn(next);
    return true;
  }

  private markMiddle(): void {
    const { from, to } = this.view.seen();
    const size = this.ground();
    const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
    const [dx, dy] = [Math.abs(to.x - from.x) / 8, Math.abs(to.y - from.y) / 8];
    const shape = this.shape() === 'ellipse' ? 'ellipse' : 'rectangle';
    const area = areaBetween(shape, { x: x - dx, y: y - dy }, { x: x + dx, y: y + dy }, size);
    if (area) this.mark(area);
  }
}

const ARROWS: Readonly<Record<string, Point>> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

const NO_CODE = [-1] as const;
const known = new WeakMap<Passage, { readonly codes: Table<Code>; readonly colours: readonly number[] }>();

/** Entries of the palette that an area is outlined in; below 0 for one without a code. */
function coloursOf(passage: Passage, codes: Table<Code>): readonly number[] {
  const before = known.get(passage);
  if (before?.codes === codes) return before.colours;
  const own = [...new Set(passage.codings.flatMap(({ codeId }) => codes[codeId]?.colour ?? []))];
  const colours = own.length > 0 ? own : NO_CODE;
  known.set(passage, { codes, colours });
  return colours;
}

/** A whole number of pixels, away from nothing. */
const stepOf = (by: number): number => (Math.abs(by) < 1e-6 ? 0 : Math.sign(by) * Math.max(1, Math.round(Math.abs(by))));

/** Corners and middles of the sides of a box: which of its sides each moves, and the corner across that stays. */
const boxHandles = ({ left, top, right, bottom }: Box) =>
  ([left, (left + right) / 2, right] as const).flatMap((x, column) =>
    ([top, (top + bottom) / 2, bottom] as const).flatMap((y, row) =>
      column === 1 && row === 1
        ? []
        : [{ x, y, across: column !== 1, down: row !== 1, fixed: { x: column === 0 ? right : left, y: row === 0 ? bottom : top } }],
    ),
  );
