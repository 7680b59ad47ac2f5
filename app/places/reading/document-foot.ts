import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
  effect,
} from '@angular/core';
import type { Text } from '@core/model/document';
import type { Passage } from '@core/model/passage';
import { coverage } from '@core/passages/coverage';
import { union, type Stretch } from '@core/passages/relations';
import { paragraphAt } from '@core/text/paragraphs';
import { turnsOf } from '@core/text/place';

/** The whole document as one line: what is coded lies on it, a stroke says where we are. */
@Component({
  selector: 'fl-document-foot',
  template: `
    <span>{{ where() }}</span>
    <canvas #line role="img" [attr.aria-label]="'The document as a line. ' + share() + ', ' + where()" (click)="jump($event)"></canvas>
    <span data-coverage>{{ share() }}</span>
    <span data-passages>{{ passages().length.toLocaleString() }} {{ passages().length === 1 ? 'passage' : 'passages' }}</span>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 14px;
      padding: 0 18px;
      height: 33px;
      border-top: 1px solid var(--rule);
      color: var(--ink-second);
      white-space: nowrap;
    }
    canvas {
      flex: 1;
      min-width: 60px;
      height: 16px;
      cursor: pointer;
      color: var(--accent);
      --rule-here: var(--rule-strong);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DocumentFoot {
  readonly text = input.required<Text>();
  readonly passages = input.required<readonly Passage[]>();
  /** First position in view. */
  readonly at = input(0);
  readonly jumped = output<number>();

  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('line');
  private readonly style = getComputedStyle(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
  private readonly width = signal(0);
  private readonly coded = signal<readonly Stretch[]>([]);
  protected readonly share = signal('');
  protected readonly where = computed(() => {
    const at = paragraphAt(this.text().paragraphs, this.at());
    const { turns, count } = turnsOf(this.text());
    return count > 0 ? `turn ${Math.max(1, turns[at] ?? 0)} of ${count}` : `paragraph ${at + 1} of ${this.text().paragraphs.length}`;
  });

  constructor() {
    // counting words and drawing thousands of stretches take long in a long text: they follow when the hands rest
    effect((onCleanup) => {
      const text = this.text();
      const passages = this.passages();
      const timer = setTimeout(() => {
        this.coded.set(union(passages));
        const { words, covered } = coverage(text, passages);
        const percent = words === 0 ? 0 : (100 * covered) / words;
        this.share.set(percent > 0 && percent < 0.5 ? '< 1 % coded' : `${Math.round(percent)} % coded`);
      }, 120);
      onCleanup(() => clearTimeout(timer));
    });
    afterRenderEffect((onCleanup) => {
      const observer = new ResizeObserver(([entry]) => this.width.set(entry?.contentRect.width ?? 0));
      observer.observe(this.canvas().nativeElement);
      onCleanup(() => observer.disconnect());
    });
    afterRenderEffect(() => this.draw(this.width(), this.text().text.length, this.coded(), this.at()));
  }

  private draw(width: number, length: number, coded: readonly Stretch[], at: number): void {
    const canvas = this.canvas().nativeElement;
    const context = canvas.getContext('2d');
    if (!context || width === 0) return;
    const scale = devicePixelRatio;
    canvas.width = width * scale;
    canvas.height = 16 * scale;
    context.scale(scale, scale);
    const x = (position: number): number => (length === 0 ? 0 : (position / length) * width);
    context.fillStyle = this.style.getPropertyValue('--rule-strong');
    context.fillRect(0, 7.5, width, 1);
    context.fillStyle = this.style.getPropertyValue('--accent');
    context.globalAlpha = 0.75;
    for (const { start, end } of coded) context.fillRect(x(start), 6, Math.max(1, x(end) - x(start)), 4);
    context.globalAlpha = 1;
    context.fillStyle = this.style.getPropertyValue('--here');
    context.fillRect(Math.min(width - 2, x(at)), 0, 2, 16);
  }

  protected jump(event: MouseEvent): void {
    this.jumped.emit(Math.floor((event.offsetX / this.canvas().nativeElement.clientWidth) * this.text().text.length));
  }
}
