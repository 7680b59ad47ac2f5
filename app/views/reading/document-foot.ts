import { Counted } from '../../ui/counted/counted';
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
import { MatMenuModule } from '@angular/material/menu';
import type { Id } from '@core/model/ids';
import type { Text } from '@core/model/document';
import type { Passage } from '@core/model/passage';
import { coverage } from '@core/passages/coverage';
import { union } from '@core/passages/union';
import type { Stretch } from '@core/model/stretch';
import { paragraphAt } from '@core/text/paragraphs';
import { turnsOf } from '@core/text/citation';

/** The whole document as one line: what is coded lies on it, a stroke says where we are. */
@Component({
  selector: 'fl-document-foot',
  imports: [Counted, MatMenuModule],
  template: `
    <span>{{ where() }}</span>
    <canvas #line role="img" [attr.aria-label]="'The document as a line. ' + share() + ', ' + where()" (click)="jump($event)"></canvas>
    @if (undecided().length > 0) {
      <button class="act" [matMenuTriggerFor]="later">{{ undecided().length }} to decide</button>
      <mat-menu #later="matMenu">
        <ng-template matMenuContent>
          @for (passage of undecided().slice(0, 60); track passage.id) {
            <button mat-menu-item (click)="shown.emit(passage.id)">{{ words(passage) }}</button>
          }
        </ng-template>
      </mat-menu>
    }
    @if (readTo() > 0) {
      <span title="Marked as read up to here with the key H">{{ readShare() }}</span>
    }
    <span data-coverage>{{ share() }}</span>
    <span data-passages>{{ passages().length | counted: 'passage' }}</span>
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
  /** Up to which position the text is read. */
  readonly readTo = input(0);
  /** Passages without a code. */
  readonly undecided = input<readonly Passage[]>([]);
  /** A passage to be shown. */
  readonly shown = output<Id>();

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
    afterRenderEffect(() => this.draw(this.readTo(), this.width(), this.text().text.length, this.coded(), this.at()));
  }

  protected readonly readShare = computed(() => {
    const share = Math.floor((100 * this.readTo()) / Math.max(1, this.text().text.length));
    return share >= 100 || this.readTo() >= this.text().text.trimEnd().length ? 'read' : `${share} % read`;
  });

  protected words(passage: Passage): string {
    return passage.comment || this.text().text.slice(passage.start, Math.min(passage.end, passage.start + 80));
  }

  private draw(readTo: number, width: number, length: number, coded: readonly Stretch[], at: number): void {
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
    // what is read is a stronger line
    context.fillStyle = this.style.getPropertyValue('--ink-second');
    if (readTo > 0) context.fillRect(0, 7, x(readTo), 2);
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
