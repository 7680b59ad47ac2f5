import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Document } from '@core/model/document';
import { beginTranscript, setShortForms } from '@core/commands/recordings';
import { FIRST_SHORT_FORMS } from '@core/text/short-forms';
import { tidyWords } from '@core/text/normalise';
import { randomId, type Id } from '@core/model/ids';
import { StudySession } from '../../../state/study-session';
import { selectCases, selectStudy } from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';
import { Drafts, type Draft, type DraftOf } from '../../../state/drafts';
import { Ask } from '../../../ui/dialogs/ask';
import { timesIn, type Listening } from '../correct/transcribing';
import { ReadingHere } from '../reading-here';
import { RecordingHere } from './recording-here';

/** Typing what is heard: who takes turns, what is typed for what, and where the recording is meanwhile. */
@Injectable()
export class TranscribingHere {
  private readonly here = inject(ReadingHere);
  private readonly recorded = inject(RecordingHere);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly ways = inject(Ways);
  private readonly store = inject(Store);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly cases = this.store.selectSignal(selectCases);
  private readonly drafts = inject(Drafts);
  /** Names that were typed, by document: a browser without room for drafts has them at least until it is closed. */
  private readonly named = signal<ReadonlyMap<Id, Draft>>(new Map());

  /** Who takes turns: as it was said, else as in the text, else as in another transcript, else by what is known of the recording. */
  readonly speakers = computed((): readonly string[] => {
    const document = this.here.document();
    const said = document && (this.named().get(document.id) ?? this.drafts.get(namesOf(document.id)));
    // once the text has other speakers than when the names were typed, the text knows better
    if (said && said.base === speakersIn(document)) return tidyWords(said.text.split(','));
    const known = [document, ...this.recorded.transcripts()].find((one) => one && one.speakers.length > 0)?.speakers;
    if (known) return known.map((speaker) => speaker.name);
    const recording = this.recorded.recording()?.id;
    const owner = Object.values(this.cases()).find((one) => one.documentIds.includes(recording ?? ''));
    return ['Interviewer', owner?.name ?? 'Participant'];
  });

  readonly listening = computed((): Listening | null => {
    const text = this.here.text();
    if (!text || !this.recorded.recording()) return null;
    return {
      times: timesIn(text),
      speakers: () => this.speakers(),
      shortForms: () => this.study()?.shortForms ?? FIRST_SHORT_FORMS,
      now: () => this.recorded.player().now(),
      seek: (time) => this.recorded.player().seek(time),
    };
  });

  /** Says who takes turns, with commas between the names. */
  name(raw: string): void {
    const document = this.here.document();
    if (!document) return;
    const draft = { text: raw, base: speakersIn(document) };
    this.drafts.keep(namesOf(document.id), draft);
    this.named.update((all) => new Map(all).set(document.id, draft));
  }

  /** The labels of turns once it is kept: those that take turns, and those that were there. */
  labels(): string[] {
    return [...new Set([...this.speakers(), ...(this.here.document()?.speakers ?? []).map((speaker) => speaker.name)])];
  }

  /** What is typed for what, to be changed. */
  async changeShortForms(): Promise<void> {
    const forms = this.study()?.shortForms ?? FIRST_SHORT_FORMS;
    await this.ask.reply({
      title: 'Short forms',
      lines: [
        'What is typed on the left becomes what stands on the right as soon as a blank or a full stop follows: words that come often, and the signs of this study for pauses, overlap and laughter.',
      ],
      label: 'One a line: short = long',
      text: forms.map(({ short, long }) => `${short} = ${long}`).join('\n'),
      long: { what: 'short forms', of: this.study()?.id ?? '' },
      yes: 'Keep them',
      tries: (raw) => this.session.attempt(setShortForms(raw)).refused,
    });
  }

  /** Begins a transcript of the recording and goes to it. @returns whether it was begun */
  async begin(): Promise<boolean> {
    const recording = this.recorded.recording();
    if (!recording) return false;
    const id = randomId();
    const others = this.recorded.transcripts().length;
    const title = await this.ask.keep(
      'A transcript of this recording',
      'Title',
      `${recording.title}${others > 0 ? `, transcript ${others + 1}` : ', transcript'}`,
      'Begin it',
      (title) => this.session.attempt(beginTranscript(recording.id, title, id)).refused,
    );
    if (title === null) return false;
    this.ways.go(['reading', id], { queryParams: { as: 'transcribing' } });
    return true;
  }
}

/** Names that were typed for a document whose turns are not kept yet. */
const namesOf = (documentId: Id): DraftOf => ({ what: 'who speaks', of: documentId });

const speakersIn = (document: Document | null | undefined): string => JSON.stringify(document?.speakers.map((one) => one.name) ?? []);
