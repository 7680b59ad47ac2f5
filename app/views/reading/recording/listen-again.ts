import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { correctTexts } from '@core/commands/correct-text';
import { wordsAreRight } from '@core/commands/recordings';
import type { Stretch } from '@core/model/stretch';
import { clock } from '@core/text/clock';
import { timeAt } from '@core/text/timeline';
import { StudySession } from '../../../state/study-session';
import { Icon } from '../../../ui/icon/icon';
import { ReadingHere } from '../reading-here';
import { UNCLEAR } from '../surface/heard-marks';
import { RecordingHere } from './recording-here';

/** Words to be listened to again: a service was not sure of them, or the researcher could not make them out. */
interface Doubtful extends Stretch {
  readonly confidence: number | null;
  /** When they are heard, milliseconds; null where that is not known. */
  readonly at: number | null;
}

/** How much is played before and after the words, milliseconds. */
const AROUND = 1_200;

/** Walks through the words that are to be listened to again, one by one: they are right, or are written otherwise. */
@Component({
  selector: 'fl-listen-again',
  imports: [Icon],
  template: `
    @if (now(); as word) {
      <span>Listen again, {{ at() + 1 }} of {{ words().length }}</span>
      <span class="second">{{
        word.confidence === null ? 'could not be made out' : 'the service was ' + (word.confidence * 100).toFixed(0) + ' % sure'
      }}</span>
      <button class="act" (click)="play()">Play {{ word.at === null ? '' : clockOf(word.at) }}</button>
      <input
        #box
        [value]="written()"
        (input)="typed.set(box.value)"
        (keydown.enter)="$event.preventDefault(); decide(box.value)"
        (keydown.arrowDown)="$event.preventDefault(); step(1)"
        (keydown.arrowUp)="$event.preventDefault(); step(-1)"
        (keydown.escape)="$event.stopPropagation(); closed.emit()"
        aria-label="What is said there"
        autocomplete="off"
        dir="auto"
      />
      <button class="do" (click)="decide(box.value)" [disabled]="word.confidence === null && same(box.value)">
        {{ same(typed() ?? written()) ? 'It is right' : 'Write it so' }}
      </button>
      <button class="icon" (click)="step(-1)" aria-label="The one before"><fl-icon name="arrow-up" /></button>
      <button class="icon" (click)="step(1)" aria-label="The next"><fl-icon name="arrow-down" /></button>
    } @else {
      <span role="status">No words are left to be listened to again.</span>
    }
    <button class="icon end" (click)="closed.emit()" aria-label="End listening again"><fl-icon name="x" /></button>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 10px;
      padding: 5px 18px 5px 96px;
      border-bottom: 1px solid var(--rule);
      background: var(--accent-ground);
      --icon-size: 15px;
    }
    input {
      width: 190px;
    }
    .end {
      margin-left: auto;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ListenAgain {
  private readonly here = inject(ReadingHere);
  private readonly recorded = inject(RecordingHere);
  private readonly session = inject(StudySession);
  readonly closed = output();
  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');
  protected readonly typed = signal<string | null>(null);
  private readonly wanted = signal(0);

  protected readonly words = computed((): readonly Doubtful[] => {
    const text = this.here.text();
    if (!text) return [];
    const timed = this.recorded.timed();
    const unsure = (text.unsure ?? []).map((one) => ({ ...one, at: timed ? timeAt(text, one.start) : null }));
    const unclear = Array.from(text.text.matchAll(UNCLEAR), ({ index, 0: sign }) => ({
      start: index,
      end: index + sign.length,
      confidence: null,
      at: timed ? timeAt(text, index) : null,
    }));
    return [...unsure, ...unclear].sort((a, b) => a.start - b.start);
  });
  protected readonly at = computed(() => Math.min(this.wanted(), Math.max(0, this.words().length - 1)));
  protected readonly now = computed(() => this.words()[this.at()]);
  protected readonly written = computed(() => {
    const word = this.now();
    return word ? (this.here.text()?.text.slice(word.start, word.end) ?? '') : '';
  });
  protected readonly clockOf = clock;

  constructor() {
    effect(() => {
      const word = this.now();
      const box = this.box();
      untracked(() => {
        this.typed.set(null);
        if (!word || !box) return;
        this.here.goTo(word);
        this.here.surface()?.select(word);
        box.nativeElement.value = this.written();
        box.nativeElement.focus();
        box.nativeElement.select();
        this.play();
      });
    });
  }

  protected same(words: string): boolean {
    return words.trim() === this.written();
  }

  protected play(): void {
    const word = this.now();
    if (!word || word.at === null) return;
    const span = this.recorded.spanOfWords(word);
    if (span) this.recorded.player().playSpan({ start: Math.max(0, span.start - AROUND), end: span.end + AROUND });
  }

  protected step(by: 1 | -1): void {
    const count = this.words().length;
    if (count > 0) this.wanted.set((this.at() + by + count) % count);
  }

  /** The words are right as they stand, or become what was typed. */
  protected decide(raw: string): void {
    const text = this.here.text();
    const word = this.now();
    const words = raw.trim();
    if (!text || !word || !words) return;
    if (words !== this.written()) this.session.run(correctTexts([{ text, edits: [{ from: word.start, to: word.end, insert: words }] }]));
    else if (word.confidence !== null) this.session.run(wordsAreRight(text, [word]));
  }
}
