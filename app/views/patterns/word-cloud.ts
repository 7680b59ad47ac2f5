import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output, resource } from '@angular/core';
import { shortened } from '@core/text/shortened';
import { Walk } from './walk';

/** Something in a cloud: larger the more it weighs. */
export interface CloudWord {
  readonly key: string;
  readonly words: string;
  readonly weight: number;
  /** What it counts, in words. */
  readonly said: string;
  /** An entry of the code palette, for a thread under it. */
  readonly colour?: number | undefined;
}

/** Words in a cloud at most: more cannot be told apart. */
export const IN_CLOUD = 120;
/** From the least to the most frequent, in units of the drawing. */
const [SMALLEST, LARGEST] = [12, 40];
/** Characters of a name that are shown; the whole is said. */
const LONGEST = 60;
const WIDTH = 960;
const [BESIDE, BELOW] = [16, 1.34];

/** Words in the order of the alphabet, line by line, each as large as the root of what it weighs says. Arrow keys walk them. */
@Component({
  selector: 'fl-word-cloud',
  template: `
    <svg [attr.viewBox]="'0 0 960 ' + laid().height" role="group" [attr.aria-label]="label()" data-picture>
      @for (one of laid().words; track one.key; let at = $index) {
        <g
          [class]="'word c' + (one.colour ?? '')"
          role="button"
          [attr.tabindex]="at === walk.here() ? 0 : -1"
          [attr.aria-label]="one.words + ': ' + one.said"
          (click)="walk.pick(at)"
          (keydown)="walk.onKey($event, at)"
        >
          <title>{{ one.words + ': ' + one.said }}</title>
          <rect
            class="reach"
            [attr.x]="one.x - 4"
            [attr.y]="one.y - one.size"
            [attr.width]="one.wide + 8"
            [attr.height]="one.size * 1.3"
            data-apart
          />
          <text [attr.x]="one.x" [attr.y]="one.y" [attr.font-size]="one.size">{{ one.short }}</text>
          @if (one.colour !== undefined) {
            <line [attr.x1]="one.x" [attr.x2]="one.x + one.wide" [attr.y1]="one.y + 5" [attr.y2]="one.y + 5" />
          }
        </g>
      }
    </svg>
  `,
  styleUrl: './drawn.scss',
  styles: `
    svg {
      max-width: 1040px;
      margin-top: 8px;
    }
    text {
      fill: var(--ink);
      font-family: var(--face-read);
    }
    line {
      stroke: var(--c, transparent);
      stroke-width: 2;
    }
    .reach {
      fill: transparent;
    }
    .word {
      cursor: pointer;
      outline: none;
    }
    .word:hover text {
      fill: var(--accent);
    }
    .word:focus-visible .reach {
      stroke: var(--here);
      stroke-width: 2;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WordCloud {
  /** The heaviest first; no more than {@link IN_CLOUD} are shown. */
  readonly words = input.required<readonly CloudWord[]>();
  readonly label = input.required<string>();
  readonly picked = output<CloudWord>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** How wide words are is known when their face is there. */
  private readonly face = resource({ loader: () => document.fonts.ready });
  protected readonly laid = computed(() => {
    this.face.value();
    const words = this.words().slice(0, IN_CLOUD);
    const most = Math.sqrt(Math.max(...words.map(({ weight }) => weight), 0)) || 1;
    const widthOf = widths(getComputedStyle(this.host).getPropertyValue('--face-read') || 'serif');
    const sized = words
      .map((word) => ({ ...word, size: SMALLEST + (LARGEST - SMALLEST) * (Math.sqrt(Math.max(0, word.weight)) / most) }))
      .sort((a, b) => a.words.localeCompare(b.words));
    return inLines(
      sized.map((word) => {
        const words = shortened(word.words, LONGEST);
        // what is longer than a line is made to fit
        const size = Math.min(word.size, (word.size * WIDTH) / Math.max(1, widthOf(words, word.size)));
        return { ...word, size, short: words, wide: widthOf(words, size) };
      }),
    );
  });
  protected readonly walk = new Walk(
    computed(() => this.laid().words),
    this.host,
    '.word',
    (word) => this.picked.emit(word),
  );
}

/** Measures words in a face. */
function widths(face: string): (words: string, size: number) => number {
  const context = document.createElement('canvas').getContext('2d')!;
  return (words, size) => {
    context.font = `${size}px ${face}`;
    return context.measureText(words).width;
  };
}

/** Sets words beside each other on lines, each line as high as its largest word. */
function inLines<W extends { readonly size: number; readonly wide: number }>(
  words: readonly W[],
): { readonly words: readonly (W & { readonly x: number; readonly y: number })[]; readonly height: number } {
  const laid: (W & { x: number; y: number })[] = [];
  let [line, x, bottom]: [W[], number, number] = [[], 0, 0];
  const end = (): void => {
    const high = Math.max(...line.map(({ size }) => size), 0);
    let at = 0;
    for (const word of line) {
      laid.push({ ...word, x: at, y: bottom + high });
      at += word.wide + BESIDE;
    }
    bottom += high * BELOW;
    [line, x] = [[], 0];
  };
  for (const word of words) {
    if (line.length > 0 && x + word.wide > WIDTH) end();
    line.push(word);
    x += word.wide + BESIDE;
  }
  if (line.length > 0) end();
  return { words: laid, height: Math.max(40, bottom + 12) };
}
