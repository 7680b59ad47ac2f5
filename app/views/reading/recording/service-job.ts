import { ChangeDetectionStrategy, Component, DestroyRef, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { addTranscript } from '@core/commands/recordings';
import { randomId } from '@core/model/ids';
import { composeTranscript } from '@core/transcribing/compose-transcript';
import type { Job } from '@core/transcribing/service';
import { MediaFiles } from '../../../state/media-files';
import { Notices } from '../../../state/notices';
import { StudySession } from '../../../state/study-session';
import { selectStudy } from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';
import { TRANSCRIBING_SERVICE } from '../../../workers/transcribing-service';
import { RecordingHere } from './recording-here';

/** How often a job is looked at, milliseconds. */
const EVERY = 400;

/** Hands the recording to a transcribing service, tells how far it is, and takes in what comes of it. */
@Component({
  selector: 'fl-service-job',
  template: `
    @if (share() === null) {
      <button class="do quiet" (click)="begin()">Have it transcribed{{ service.simulated ? ' (simulated)' : '' }}</button>
      @if (service.simulated) {
        <span class="second"
          >A stand-in for a real service: it knows the demo recording, and of any other it only tells where somebody seems to speak.</span
        >
      }
    } @else {
      <span role="status">{{ service.name }}, {{ (share()! * 100).toFixed(0) }} %</span>
      <progress max="1" [value]="share()" aria-label="Transcribing"></progress>
      <button class="act" (click)="cancel()">Cancel</button>
    }
    @if (trouble()) {
      <span class="bad" role="alert">{{ trouble() }}</span>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ServiceJob {
  private readonly recorded = inject(RecordingHere);
  private readonly files = inject(MediaFiles);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly ways = inject(Ways);
  private readonly study = inject(Store).selectSignal(selectStudy);
  protected readonly service = inject(TRANSCRIBING_SERVICE);
  protected readonly share = signal<number | null>(null);
  protected readonly trouble = signal('');
  private turn = 0;
  private job: string | null = null;

  constructor() {
    inject(DestroyRef).onDestroy(() => void this.giveUp());
  }

  protected async begin(): Promise<void> {
    const recording = this.recorded.recording();
    if (!recording) return;
    const turn = ++this.turn;
    const isWanted = (): boolean => turn === this.turn;
    this.trouble.set('');
    this.share.set(0);
    try {
      const { media, milliseconds } = recording.ground;
      const found = await this.files.find(media);
      if (!isWanted()) return;
      if ('missing' in found) throw new Error('The file of the recording is not here. Find it first, at the foot.');
      const language = this.study()?.language ?? 'en';
      const loudness = this.recorded.loudness();
      this.job = await this.service.begin({ file: found.file, sha256: media.sha256, milliseconds, language, loudness });
      const segments = await this.wait(this.job, isWanted);
      if (!segments || !isWanted()) return;
      this.job = null;
      const id = randomId();
      const { name, simulated } = this.service;
      const title = `${recording.title}, by the ${name}`;
      const made = composeTranscript(id, segments);
      // asked for while it was away: the recording may have gone meanwhile
      if (!this.session.run(addTranscript(recording.id, title, made, { by: name, simulated }))) return;
      this.notices.say(
        made.text.unsure || /\(unclear/.test(made.text.text)
          ? 'The transcript is here. Some of its words are to be listened to again: see Text, Listen again.'
          : 'The transcript is here.',
      );
      this.ways.go(['reading', id]);
    } catch (error) {
      if (isWanted()) this.trouble.set(error instanceof Error ? error.message : String(error));
    } finally {
      if (isWanted()) this.share.set(null);
    }
  }

  private async wait(job: string, isWanted: () => boolean): Promise<Extract<Job, { state: 'done' }>['segments'] | null> {
    while (isWanted()) {
      const now = await this.service.look(job);
      if (now.state === 'done') return now.segments;
      if (now.state === 'failed') throw new Error(now.reason);
      if (isWanted()) this.share.set(now.share);
      await new Promise((resolve) => setTimeout(resolve, EVERY));
    }
    return null;
  }

  protected async cancel(): Promise<void> {
    this.share.set(null);
    await this.giveUp();
    this.notices.say('Given up. Nothing was stored.');
  }

  private async giveUp(): Promise<void> {
    this.turn++;
    const { job } = this;
    this.job = null;
    if (job) await this.service.cancel(job).catch(() => undefined);
  }
}
