import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Store } from '@ngrx/store';
import { ENCODINGS } from '@core/formats/plain-text/encoding';
import type { ProbableReading } from '@core/formats/probable-readings';
import type { SpeakerChoice } from '@core/material/compose-import';
import { TEXT_KINDS } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { naturalOrder } from '@core/text/natural-order';
import type { Marker, Markers } from '@core/questions/find-questions';
import { selectCases, selectStudy } from '../../../state/study.selectors';
import { Counted } from '../../../ui/counted/counted';
import { EncodingSamples } from './encoding-samples';
import type { ImportItem } from './import-item';

/** How one file is read and what it becomes: every setting can be changed at any time, and the preview follows. */
@Component({
  imports: [Counted, EncodingSamples],
  selector: 'fl-text-settings',
  templateUrl: './text-settings.html',
  styleUrl: './text-settings.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TextSettings {
  readonly item = input.required<ImportItem>();
  /** How many other files could take over these question markers. */
  readonly others = input(0);
  readonly changed = output<Partial<ImportItem>>();
  readonly readAgain = output<ImportItem['options']>();
  readonly markersForAll = output<Markers | null>();
  readonly speakersForAll = output();
  /** Names of what files say of themselves that does not come in. */
  readonly factsLeft = input<ReadonlySet<string>>(new Set());
  readonly factWanted = output<{ readonly name: string; readonly wanted: boolean }>();

  /** Recordings and pictures it can be a transcript or a description of, and which of them it is of. */
  readonly originals = input<readonly { readonly ref: string; readonly title: string }[]>([]);
  readonly originalRef = input<string | null>(null);

  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly cases = this.store.selectSignal(selectCases);
  protected readonly caseList = computed(() => naturalOrder(Object.values(this.cases()), (one) => one.name).slice(0, 2_000));
  protected readonly kinds = TEXT_KINDS;
  protected readonly encodings = ENCODINGS;
  /** Markers on offer: every label, and the looks. */
  protected readonly markerNames = computed(() => (this.item().text?.speakers ?? []).slice(0, 200).map((speaker) => speaker.name));

  /** Labels that are speakers', or were taken for such. */
  protected readonly rows = computed(() => (this.item().text?.speakers ?? []).filter((label) => label.taken || this.speaker(label.name)));
  /** Labels that were taken for something else: a heading, a remark. */
  protected readonly leftOut = computed(() =>
    (this.item().text?.speakers ?? []).filter((label) => !label.taken && !this.speaker(label.name)),
  );
  /** Left-out labels that are shown. */
  protected readonly most = 12;

  protected readAs({ lineEnds, namesApart }: ProbableReading): void {
    this.readAgain.emit({ namesApart, ...(lineEnds ? { lineEnds } : {}) });
  }

  /** Who speaks in one way of reading, and how often. */
  protected voices({ speakers }: ProbableReading): string {
    return speakers.length === 0 ? 'nobody named' : speakers.map(({ name, turns }) => `${name} ${turns}`).join(', ');
  }

  protected kindOf(value: string): ImportItem['kind'] {
    return value as ImportItem['kind'];
  }

  protected speaker(label: string): SpeakerChoice | undefined {
    return this.item().speakers[label];
  }

  protected setSpeaker(label: string, fields: Partial<SpeakerChoice> | null): void {
    const speakers = { ...this.item().speakers };
    if (fields === null) delete speakers[label];
    else speakers[label] = { ...(speakers[label] ?? { name: label, interviewer: false, caseId: null }), ...fields };
    this.changed.emit({ speakers });
  }

  protected setName(label: string, raw: string): void {
    const name = raw.trim() || label;
    // a name that another label carries already joins the two: they are one speaker from then on
    const other = Object.values(this.item().speakers).find((choice) => choice.name === name);
    this.setSpeaker(label, { name, ...(other ? { interviewer: other.interviewer, caseId: other.caseId } : {}) });
  }

  protected setInterviewer(label: string, interviewer: boolean): void {
    this.alike(label, { interviewer });
  }

  protected setCase(label: string, caseId: string): void {
    this.alike(label, { caseId: caseId || null });
  }

  /** Changes all labels that are one speaker. */
  private alike(label: string, fields: Partial<SpeakerChoice>): void {
    const { name } = this.speaker(label)!;
    const speakers = Object.fromEntries(
      Object.entries(this.item().speakers).map(([key, choice]) => [key, choice.name === name ? { ...choice, ...fields } : choice]),
    );
    this.changed.emit({ speakers });
  }

  protected markerKey(marker: Marker | null | undefined): string {
    return !marker ? '' : marker.kind === 'label' ? `label ${marker.name}` : marker.kind;
  }

  private markerOf(key: string): Marker | null {
    if (!key) return null;
    return key.startsWith('label ') ? { kind: 'label', name: key.slice(6) } : { kind: key as 'number' | 'bold' | 'heading' };
  }

  protected setStructured(on: boolean): void {
    const { text } = this.item();
    const first = text?.guesses[0] ?? { question: { kind: 'heading' } as const, answer: null };
    this.changed.emit({ markers: on ? { question: first.question, answer: first.answer } : null });
  }

  protected setQuestion(key: string): void {
    const question = this.markerOf(key);
    if (question) this.changed.emit({ markers: { question, answer: this.item().markers?.answer ?? null } });
  }

  protected setAnswer(key: string): void {
    const { markers } = this.item();
    if (markers) this.changed.emit({ markers: { question: markers.question, answer: this.markerOf(key) } });
  }

  protected because(): string {
    const { text, markers } = this.item();
    return text?.guesses.find((guess) => this.markerKey(guess.question) === this.markerKey(markers?.question))?.because ?? '';
  }

  protected newCaseId(label: string): Id {
    return `new ${label}`;
  }
}
