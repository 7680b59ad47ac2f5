import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { short } from '@core/change/command';
import { correctTexts, passagesLost, type Correction } from '@core/commands/correct-text';
import { timesIn } from './transcribing';
import type { Id } from '@core/model/ids';
import type { CarriedOver } from '@core/text/carry-over';
import { tidyLine } from '@core/text/normalise';
import { correctionDrafts } from '../../../state/correction-drafts';
import { StudySession } from '../../../state/study-session';
import { selectData } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { ReadingHere } from '../reading-here';
import type { Corrections } from './correct-surface';

/** Correcting the text at hand: begun, kept against a crash while it is typed, then kept for good or dropped. */
@Injectable()
export class Correcting {
  private readonly here = inject(ReadingHere);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly data = inject(Store).selectSignal(selectData);
  private readonly drafts = signal(0);
  /** Where the correcting begins, or null while the text is read. */
  readonly from = signal<number | null>(null);
  /** Whether the text is typed while its recording is listened to. */
  readonly transcribing = signal(false);
  /** Times that were noted with what was begun. */
  readonly begunTimes = computed(() => {
    this.drafts();
    const text = this.here.text();
    return text ? correctionDrafts.timesOf(this.studyId(), text.id, text.text) : null;
  });
  /** Why the corrections could not be kept. */
  readonly refusal = signal<string | null>(null);
  /** Corrections that were begun in this document and neither kept nor dropped, over its text as it is now. */
  readonly begun = computed((): CarriedOver => {
    this.drafts();
    const text = this.here.text();
    return text ? correctionDrafts.of(this.studyId(), text.id, text.text) : { edits: [], uncertain: [] };
  });
  readonly isBegun = computed(() => this.begun().edits.length + this.begun().uncertain.length > 0 || this.begunTimes() !== null);

  private studyId(): Id {
    return this.data()?.study.id ?? '';
  }

  /** Begins to correct, or to transcribe, at a place of the text. */
  begin(at: number, transcribing = false): void {
    this.transcribing.set(transcribing);
    this.from.set(at);
  }

  keepTyped({ text, edits, uncertain, times }: Corrections): void {
    const noted = times && JSON.stringify(times) !== JSON.stringify(timesIn(text)) ? times : undefined;
    this.refusal.set(
      correctionDrafts.keep(this.studyId(), text.id, text.text, edits, uncertain, noted)
        ? null
        : 'The browser has no room for a draft: keep the corrections before you close the window.',
    );
  }

  forgetTyped(): void {
    const documentId = this.here.documentId();
    if (documentId) correctionDrafts.drop(this.studyId(), documentId);
    this.drafts.update((version) => version + 1);
  }

  /** Goes on with what was begun. */
  goOn(): void {
    this.begin(this.begun().edits[0]?.from ?? this.here.at(), this.begunTimes() !== null);
  }

  /** Keeps a correction, after naming the passages that would lose all their words. What is refused stays as it was typed. */
  async keep({ text, edits, uncertain, times }: Corrections, speakers: readonly string[] = []): Promise<void> {
    const data = this.data();
    if (!data) return;
    const correction: Correction = { text, edits, ...(times && { heard: { times, speakers: new Set(speakers) } }) };
    const lost = passagesLost(data, correction);
    const goOn =
      lost.length === 0 ||
      (await this.ask.confirm({
        title: lost.length === 1 ? 'A passage loses all its words' : `${lost.length} passages lose all their words`,
        lines: [
          ...lost.slice(0, 8).map((passage) => {
            const names = passage.codings.map((coding) => this.here.codes()[coding.codeId]?.name).join(', ');
            return `“${tidyLine(text.text.slice(passage.start, passage.end)).slice(0, 90)}” – ${names || 'no code'}`;
          }),
          ...(lost.length > 8 ? [`and ${lost.length - 8} more`] : []),
          'They go with their words. It can be undone.',
        ],
        yes: 'Keep the corrections',
        danger: true,
      }));
    if (!goOn) return;
    const title = data.tables.document[text.id]?.title ?? '';
    const { refused } = this.session.attempt(correctTexts([correction], times && `transcribed ${short(title)}`));
    this.refusal.set(refused);
    if (refused !== null) return;
    this.from.set(null);
    // what found no place is still to be dealt with
    correctionDrafts.keep(this.studyId(), text.id, text.text, [], uncertain);
    this.drafts.update((version) => version + 1);
  }

  async drop(changed: boolean): Promise<void> {
    const goOn =
      !changed ||
      (await this.ask.confirm({ title: 'Drop the corrections?', lines: ['The text stays as it was.'], yes: 'Drop them', danger: true }));
    if (!goOn) return;
    this.from.set(null);
    this.refusal.set(null);
    this.forgetTyped();
  }
}
