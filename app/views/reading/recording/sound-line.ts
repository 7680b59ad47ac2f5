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
  viewChild,
} from '@angular/core';
import type { PlaceMark } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/model/stretch';
import { loudestOf, type Loudness } from '@core/sound/loudness';
import { clock } from '@core/text/clock';
import type { Player } from '../../../ui/sound/player';
import { commandOf, type SurfaceCommand } from '../surface/reading-surface';
import type { SoundThread } from './recording-here';

/** Height of the sound above the threads, and of a lane of threads, pixels. */
const SOUND = 56;
const LANE = 6;
/** Lanes that are told apart: more lie on one another. */
const LANES = 5;
/** Pixels that the pointer moves before it marks a span and does not only point. */
const STILL = 4;
/** Pixels around an edge or a mark in which it is taken hold of. */
const NEAR = 6;

/** What the pointer is doing. */
type Drag =
  | { readonly of: 'span'; readonly from: number; readonly x: number; moved: boolean }
  | { readonly of: 'edge'; readonly fixed: number }
  | { readonly of: 'mark'; readonly at: number };

/**
 * A recording, or a part of it, as a line: loudness is its thickness, coded spans lie under it as threads, the stroke
 * says where we are. A drag marks a span, a click goes there; in the larger part the times of words can be moved.
 */
@Component({
  selector: 'fl-sound-line',
  template: `
    <svg
      [attr.viewBox]="'0 0 ' + width() + ' ' + height"
      [attr.height]="height"
      aria-hidden="true"
      (pointerdown)="onDown($event)"
      (pointermove)="onMove($event)"
      (pointerup)="onUp($event)"
      (pointercancel)="drag = null"
    >
      @if (loop(); as span) {
        <rect class="looped" [attr.x]="x(span.start)" y="0" [attr.width]="x(span.end) - x(span.start)" [attr.height]="sound" />
      }
      @if (marked(); as span) {
        <rect class="marked" [attr.x]="x(span.start)" y="0" [attr.width]="widthOf(span)" [attr.height]="sound" />
      }
      <path class="sound" [attr.d]="path()" />
      @for (mark of times(); track mark.at) {
        <path class="time" data-time-mark [attr.d]="'M' + x(moving()?.at === mark.at ? moving()!.value : mark.value) + ' 0V' + sound" />
      }
      @for (thread of drawn(); track thread.passageId + thread.colour + thread.name) {
        <path
          [class]="'thread c' + thread.colour + (thread.passageId === chosenId() ? ' on' : '')"
          [attr.d]="lineOf(thread)"
          [attr.data-passage]="thread.passageId"
        >
          <title>{{ thread.name }}, {{ words(thread) }}</title>
        </path>
      }
      @if (grips(); as span) {
        <path class="grip" [attr.d]="'M' + x(span.start) + ' 0V' + height + 'M' + x(span.end) + ' 0V' + height" />
      }
    </svg>
    <i #here class="here"></i>
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      overflow: hidden;
      cursor: text;
      color: var(--ink-second);
      touch-action: none;
    }
    svg {
      display: block;
      width: 100%;
    }
    .sound {
      fill: currentColor;
    }
    .thread {
      stroke: var(--c);
      stroke-width: 2.5;
      stroke-linecap: butt;
      cursor: pointer;
    }
    .thread.on {
      stroke-width: 4;
    }
    .marked {
      fill: var(--selection);
    }
    .looped {
      fill: none;
      stroke: var(--here);
      stroke-dasharray: 3 3;
    }
    .time {
      stroke: var(--accent);
      stroke-width: 1;
      cursor: ew-resize;
    }
    .grip {
      stroke: var(--here);
      stroke-width: 2;
      cursor: ew-resize;
    }
    .here {
      position: absolute;
      inset: 0 auto 0 0;
      width: 2px;
      background: var(--here);
      pointer-events: none;
    }
  `,
  host: {
    role: 'slider',
    tabindex: '0',
    'data-original': '',
    '[attr.aria-label]': 'label()',
    'aria-valuemin': '0',
    '[attr.aria-valuemax]': 'seconds(length())',
    '[attr.aria-valuenow]': 'seconds(player().time())',
    '[attr.aria-valuetext]': 'said()',
    '(keydown)': 'onKey($event)',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SoundLine {
  readonly player = input.required<Player>();
  /** How long the recording is, milliseconds. */
  readonly length = input.required<number>();
  /** The part that is shown, milliseconds. */
  readonly shown = input.required<Stretch>();
  readonly label = input('The recording as a line');
  readonly loudness = input<Loudness | null>(null);
  readonly threads = input<readonly SoundThread[]>([]);
  readonly chosenId = input<Id | null>(null);
  /** The chosen passage, where its ends can be moved here. */
  readonly grips = input<Stretch | null>(null);
  /** A span that is marked and not coded yet. */
  readonly marked = input<Stretch | null>(null);
  readonly loop = input<Stretch | null>(null);
  /** Times of words that can be moved. */
  readonly marks = input<readonly PlaceMark[]>([]);

  readonly marking = output<Stretch | null>();
  readonly chosen = output<Id>();
  readonly gone = output<number>();
  /** Where the chosen passage would be, while one of its ends is moved. */
  readonly reshaping = output<Stretch | null>();
  /** The ends of the chosen passage are moved. */
  readonly resized = output<Stretch>();
  /** The time of the words at a position is moved. */
  readonly retimed = output<{ readonly at: number; readonly value: number }>();
  readonly asked = output<SurfaceCommand>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly stroke = viewChild.required<ElementRef<HTMLElement>>('here');
  protected readonly width = signal(600);
  protected readonly sound = SOUND;
  protected readonly height = SOUND + LANES * LANE + 4;
  protected drag: Drag | null = null;
  protected readonly moving = signal<{ readonly at: number; readonly value: number } | null>(null);
  protected readonly path = computed(() => this.soundPath());
  protected readonly drawn = computed(() => {
    const { start, end } = this.shown();
    return this.threads().filter((thread) => thread.end > start && thread.start < end);
  });
  protected readonly times = computed(() => {
    const { start, end } = this.shown();
    return this.marks().filter((mark) => mark.kind === 'time' && mark.value >= start && mark.value <= end);
  });
  protected readonly said = computed(() => {
    const marked = this.marked();
    const under = this.threads().filter((one) => one.start <= this.player().time() && this.player().time() < one.end);
    return (
      `${clock(this.player().time())} of ${clock(this.length())}` +
      (under.length > 0 ? `, under ${under.map((one) => one.name).join(', ')}` : '') +
      (marked ? `, marked ${this.words(marked)}` : '')
    );
  });

  constructor() {
    afterRenderEffect((onCleanup) => {
      const observer = new ResizeObserver(([entry]) => this.width.set(Math.max(60, Math.round(entry?.contentRect.width ?? 0))));
      observer.observe(this.host);
      onCleanup(() => observer.disconnect());
    });
    // while it plays the stroke moves with every frame, and nothing else is drawn
    effect((onCleanup) => {
      const player = this.player();
      const playing = player.playing();
      const time = player.time();
      const [shown, width] = [this.shown(), this.width()];
      let frame = 0;
      const place = (): void => {
        const at = playing ? player.now() : time;
        const to = ((at - shown.start) / Math.max(1, shown.end - shown.start)) * width;
        this.stroke().nativeElement.style.transform = `translateX(${Math.max(-4, Math.min(width + 4, to) - 1)}px)`;
        if (playing) frame = requestAnimationFrame(place);
      };
      place();
      onCleanup(() => cancelAnimationFrame(frame));
    });
  }

  protected seconds(milliseconds: number): number {
    return Math.round(milliseconds / 1000);
  }

  protected words({ start, end }: Stretch): string {
    return `${clock(start)}–${clock(end)}`;
  }

  protected x(time: number): number {
    const { start, end } = this.shown();
    return Math.round(((time - start) / Math.max(1, end - start)) * this.width() * 10) / 10;
  }

  protected widthOf({ start, end }: Stretch): number {
    return Math.max(1, this.x(end) - this.x(start));
  }

  protected lineOf({ start, end, lane }: SoundThread): string {
    const y = SOUND + 4 + Math.min(lane, LANES - 1) * LANE;
    return `M${Math.max(-5, this.x(start))} ${y}H${Math.min(this.width() + 5, Math.max(this.x(end), this.x(start) + 2))}`;
  }

  /** Where a place of the recording is on the screen. */
  coordsOf(time: number): { readonly left: number; readonly top: number; readonly bottom: number } {
    const box = this.host.getBoundingClientRect();
    return { left: box.left + Math.max(0, Math.min(this.width(), this.x(time))), top: box.top, bottom: box.bottom };
  }

  focus(): void {
    this.host.focus();
  }

  /** Bars two pixels wide, as high as it is loud; a fine line where it is silent or not known. */
  private soundPath(): string {
    const width = this.width();
    const loudness = this.loudness();
    const middle = SOUND / 2;
    if (!loudness) return `M0 ${middle - 0.5}H${width}v1H0Z`;
    const bars = Math.max(1, Math.floor(width / 3));
    let path = '';
    loudestOf(loudness, this.shown(), bars).forEach((value, bar) => {
      const half = Math.max(0.5, ((value / 255) ** 2 * SOUND) / 2);
      path += `M${bar * 3} ${(middle - half).toFixed(1)}h2v${(2 * half).toFixed(1)}h-2Z`;
    });
    return path;
  }

  private timeAt(event: PointerEvent): number {
    const box = this.host.getBoundingClientRect();
    const { start, end } = this.shown();
    const share = Math.max(0, Math.min(1, (event.clientX - box.left) / Math.max(1, box.width)));
    return Math.round(start + share * (end - start));
  }

  protected onDown(event: PointerEvent): void {
    if (event.button !== 0) return;
    const time = this.timeAt(event);
    const x = this.x(time);
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    const grips = this.grips();
    const isNear = (at: number): boolean => Math.abs(this.x(at) - x) <= NEAR;
    const mark = this.times().find((one) => isNear(one.value));
    if (grips && isNear(grips.start)) this.drag = { of: 'edge', fixed: grips.end };
    else if (grips && isNear(grips.end)) this.drag = { of: 'edge', fixed: grips.start };
    else if (mark) this.drag = { of: 'mark', at: mark.at };
    else this.drag = { of: 'span', from: time, x: event.clientX, moved: false };
  }

  protected onMove(event: PointerEvent): void {
    const { drag } = this;
    if (!drag) return;
    const time = this.timeAt(event);
    if (drag.of === 'span') {
      drag.moved ||= Math.abs(event.clientX - drag.x) > STILL;
      if (drag.moved) this.marking.emit(spanBetween(drag.from, time));
    } else if (drag.of === 'edge') this.reshaping.emit(spanBetween(drag.fixed, time));
    else this.moving.set({ at: drag.at, value: time });
  }

  protected onUp(event: PointerEvent): void {
    const { drag } = this;
    this.drag = null;
    if (!drag) return;
    const time = this.timeAt(event);
    if (drag.of === 'mark') {
      const moved = this.moving();
      this.moving.set(null);
      if (moved) this.retimed.emit({ at: drag.at, value: time });
      return;
    }
    if (drag.of === 'edge') {
      this.reshaping.emit(null);
      const span = spanBetween(drag.fixed, time);
      if (span) this.resized.emit(span);
      return;
    }
    if (drag.moved) return;
    this.marking.emit(null);
    const passageId = (event.target as Element).closest?.('[data-passage]') ?? document.elementFromPoint(event.clientX, event.clientY);
    const id = passageId?.getAttribute('data-passage');
    if (id) this.chosen.emit(id);
    else this.gone.emit(time);
  }

  protected onKey(event: KeyboardEvent): void {
    const handled = this.ownKey(event);
    const command = handled ? null : commandOf(event);
    if (!handled && !command) return;
    event.preventDefault();
    event.stopPropagation();
    if (command) this.asked.emit(command);
  }

  /** Arrows go by a second, with Shift by five; I and O set where a span begins and ends. */
  private ownKey(event: KeyboardEvent): boolean {
    if (event.altKey || event.ctrlKey || event.metaKey) return false;
    const player = this.player();
    const now = player.now();
    const step = event.shiftKey ? 5_000 : 1_000;
    const marked = this.marked();
    switch (event.key) {
      case 'ArrowRight':
      case 'ArrowUp':
        player.skip(step);
        return true;
      case 'ArrowLeft':
      case 'ArrowDown':
        player.skip(-step);
        return true;
      case 'PageUp':
        player.skip(10_000);
        return true;
      case 'PageDown':
        player.skip(-10_000);
        return true;
      case 'Home':
        player.seek(0);
        return true;
      case 'End':
        player.seek(this.length());
        return true;
      case ' ':
        player.toggle();
        return true;
      case 'Enter':
        if (marked) player.playSpan(marked);
        return marked !== null;
      case 'i':
      case 'I':
        this.marking.emit(spanBetween(now, marked && marked.end > now ? marked.end : Math.min(this.length(), now + 1_000)));
        return true;
      case 'o':
      case 'O':
        this.marking.emit(spanBetween(marked && marked.start < now ? marked.start : Math.max(0, now - 1_000), now));
        return true;
      case 'Escape':
        this.marking.emit(null);
        return marked !== null;
      default:
        return false;
    }
  }
}

/** From the earlier of two times to the later; null where they are the same. */
const spanBetween = (one: number, other: number): Stretch | null =>
  one === other ? null : { start: Math.min(one, other), end: Math.max(one, other) };
