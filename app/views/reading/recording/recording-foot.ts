import { ChangeDetectionStrategy, Component, computed, effect, inject, output, signal, untracked, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import { moveTimeMark } from '@core/commands/recordings';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/model/stretch';
import { coveredOf, shareCovered } from '@core/passages/covered';
import { clock } from '@core/text/clock';
import { StudySession } from '../../../state/study-session';
import { selectScopedPassages } from '../../../state/study.selectors';
import { Icon } from '../../../ui/icon/icon';
import { SentencePart, type Choice } from '../../../ui/sentence/sentence-part';
import { keyWords, PlayerSettings, RATES, STEPS_BACK } from '../../../ui/sound/player-settings';
import { PassageWork } from '../passage-work';
import { ReadingHere } from '../reading-here';
import type { SurfaceCommand } from '../surface/reading-surface';
import { MissingFile } from '../../../ui/missing-file/missing-file';
import { RecordingHere } from './recording-here';
import { SoundLine } from './sound-line';

/** How much of the recording is drawn larger, milliseconds. */
const LARGER = 20_000;

/** The line at the foot of a recording and of its transcripts: its sound, with what is coded under it, and how it is played. */
@Component({
  selector: 'fl-recording-foot',
  imports: [Icon, MissingFile, SentencePart, SoundLine],
  templateUrl: './recording-foot.html',
  styleUrl: './recording-foot.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordingFoot {
  protected readonly here = inject(ReadingHere);
  protected readonly recorded = inject(RecordingHere);
  protected readonly settings = inject(PlayerSettings);
  private readonly work = inject(PassageWork);
  private readonly session = inject(StudySession);
  private readonly passages = inject(Store).selectSignal(selectScopedPassages);
  readonly asked = output<SurfaceCommand>();
  /** A passage is chosen, to be shown. */
  readonly shown = output<Id>();
  /** The words at a position are to be shown. */
  readonly jumped = output<number>();
  readonly keys = output();

  private readonly line = viewChild<SoundLine>('line');
  protected readonly player = computed(() => this.recorded.player());
  protected readonly length = computed(() => this.recorded.recording()?.ground.milliseconds ?? 1);
  protected readonly whole = computed((): Stretch => ({ start: 0, end: this.length() }));
  protected readonly at = computed(() => clock(this.player().time()));
  protected readonly total = computed(() => clock(this.length()));
  protected readonly keyOf = computed(
    () => (command: keyof ReturnType<typeof this.settings.keys>) => keyWords(this.settings.keys()[command]),
  );
  protected readonly rates: readonly Choice<number>[] = RATES.map((rate) => ({ value: rate, name: `× ${rate}` }));
  protected readonly steps: readonly Choice<number>[] = STEPS_BACK.map((step) => ({
    value: step,
    name: step === 0 ? 'stays where it stops' : `steps back ${step / 1000} s`,
  }));
  protected readonly stepWords = computed(() => this.steps.find((one) => one.value === this.settings.stepBack())!.name);
  /** The passage that is chosen, where it is one of the recording. */
  protected readonly chosenSpan = computed((): Stretch | null => {
    const chosen = this.here.chosen();
    return chosen?.documentId === this.recorded.recording()?.id ? chosen! : null;
  });
  protected readonly coded = computed(() => {
    const recording = this.recorded.recording();
    const share = recording ? shareCovered(coveredOf(recording, this.passages()[recording.id])) : 0;
    return share > 0 && share < 0.005 ? '< 1 % coded' : `${Math.round(100 * share)} % coded`;
  });

  protected readonly larger = signal(false);
  private readonly from = signal(0);
  protected readonly part = computed((): Stretch => {
    const length = Math.min(LARGER, this.length());
    const start = Math.max(0, Math.min(this.length() - length, this.from()));
    return { start, end: start + length };
  });

  constructor() {
    // the larger part turns over when what is heard comes to its end
    effect(() => {
      const time = this.player().time();
      if (!this.larger()) return;
      untracked(() => {
        const { start, end } = this.part();
        if (time < start || time > end - (end - start) * 0.08) this.from.set(time - (end - start) * 0.1);
      });
    });
    this.here.coordsOfMarked = () => {
      const place = this.here.marked() ?? this.chosenSpan();
      return (place && this.line()?.coordsOf(place.start)) ?? null;
    };
  }

  protected mark(span: Stretch | null): void {
    this.here.marked.set(span);
    if (span) this.here.chosenId.set(null);
  }

  protected go(time: number): void {
    this.player().seek(time);
    const position = this.recorded.positionAt(time);
    if (position !== null) this.jumped.emit(position);
  }

  protected choose(id: Id): void {
    this.shown.emit(id);
    const passage = [...this.here.passages(), ...this.here.originalPassages()].find((one) => one.id === id);
    const span = passage && this.recorded.spanOf(passage);
    if (span) this.player().seek(span.start);
  }

  protected resize(span: Stretch): void {
    const chosen = this.here.chosen();
    if (chosen) this.work.move(chosen.id, { start: Math.max(0, span.start), end: Math.min(this.length(), span.end) });
  }

  protected retime({ at, value }: { readonly at: number; readonly value: number }): void {
    const text = this.here.text();
    if (text) this.session.run(moveTimeMark(text, at, value));
  }

  /** Plays what is marked or chosen again and again, or ends that. */
  again(): void {
    const player = this.player();
    if (player.loop()) return player.loop.set(null);
    const chosen = this.here.chosen();
    const span = this.here.marked() ?? (chosen && this.recorded.spanOf(chosen)) ?? this.recorded.spoken();
    const text = this.here.text();
    if (!span) return;
    // spoken words are a stretch of the text, the others spans of the recording
    const heard = span === this.recorded.spoken() && text ? this.recorded.spanOfWords(span) : span;
    if (!heard) return;
    player.loop.set({ start: heard.start, end: heard.end });
    player.seek(heard.start);
    player.play();
  }
}
