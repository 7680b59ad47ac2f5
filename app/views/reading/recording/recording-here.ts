import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Router, NavigationEnd } from '@angular/router';
import { Store } from '@ngrx/store';
import type { Document } from '@core/model/document';
import type { Media } from '@core/model/ground';
import type { Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import type { Stretch } from '@core/model/stretch';
import { layThreads } from '@core/passages/threads';
import type { Loudness } from '@core/sound/loudness';
import { naturalOrder } from '@core/text/natural-order';
import { isTimed, positionAt, spanOf, spokenAt, timeAt } from '@core/text/timeline';
import { MediaFiles } from '../../../state/media-files';
import { selectDocuments } from '../../../state/study.selectors';
import { Player } from '../../../ui/sound/player';
import { SoundService } from '../../../workers/sound-service';
import { ReadingHere } from '../reading-here';

/** A code on a passage as it lies under the sound: of the recording itself, or of words whose time is known. */
export interface SoundThread extends Stretch {
  readonly passageId: Id;
  readonly lane: number;
  /** Place of the code's colour in the palette. */
  readonly colour: number;
  readonly name: string;
}

/** The recording at hand: the document itself, or what the text that is read is a transcript of. */
@Injectable()
export class RecordingHere {
  private readonly here = inject(ReadingHere);
  private readonly files = inject(MediaFiles);
  private readonly sound = inject(SoundService);
  private readonly own = inject(Player);
  private readonly documents = inject(Store).selectSignal(selectDocuments);
  /** The one of the place this stands beside: of one recording there is one sound. */
  private readonly beside = inject(RecordingHere, { skipSelf: true, optional: true });

  readonly recording = computed((): (Document & { readonly ground: { readonly of: 'time' } }) | undefined => {
    const original = this.here.original();
    return original?.ground.of === 'time' ? (original as Document & { readonly ground: { readonly of: 'time' } }) : undefined;
  });
  /** The place beside this one that shows the same recording, if there is one. */
  readonly leader = computed((): RecordingHere | null =>
    this.recording() && this.beside?.recording()?.id === this.recording()?.id ? this.beside : null,
  );
  readonly player = computed((): Player => this.leader()?.player() ?? this.own);
  readonly media = computed((): Media | null => this.recording()?.ground.media ?? null);
  /** Texts that belong to the recording. */
  readonly transcripts = computed((): readonly Document[] => {
    const id = this.recording()?.id;
    const all = Object.values(this.documents()).filter((one) => one.belongsTo === id && one.ground.of === 'text');
    return id === undefined ? [] : naturalOrder(all, (one) => one.title);
  });
  /** Whether the text that is read says when its words are spoken. */
  readonly timed = computed(() => {
    const text = this.here.text();
    return this.recording() !== undefined && text !== undefined && isTimed(text);
  });
  /** How loud it is, once that is known; the share that is measured; and why it cannot be. */
  readonly loudness = signal<Loudness | null>(null);
  readonly measured = signal<number | null>(null);
  readonly unmeasured = signal('');

  /** Whether the text goes along with what is heard; whoever scrolls elsewhere ends it. */
  readonly follows = signal(true);
  private readonly phrase = signal<Stretch | null>(null);
  /** The words that are spoken now. */
  readonly spoken = this.phrase.asReadonly();

  /** Codes on the recording and on words whose time is known, in lanes. */
  readonly threads = computed((): readonly SoundThread[] => {
    const recording = this.recording();
    if (!recording) return [];
    const codes = this.here.codes();
    const text = this.here.text();
    const words = text && this.timed() ? this.here.passages().map((passage) => ({ ...passage, ...spanOf(text, passage) })) : [];
    const own = this.here.document()?.id === recording.id ? this.here.passages() : this.here.originalPassages();
    const all = [...own, ...words]
      .filter((one) => one.start < recording.ground.milliseconds)
      .sort((a, b) => a.start - b.start || b.end - a.end);
    return layThreads(all, (id) => Object.hasOwn(codes, id)).map(({ codeId, ...thread }) => ({
      ...thread,
      colour: codes[codeId]!.colour,
      name: codes[codeId]!.name,
    }));
  });
  /** Passages of the recording itself without a code yet. */
  readonly bare = computed((): readonly Passage[] => {
    const own = this.here.document()?.id === this.recording()?.id ? this.here.passages() : this.here.originalPassages();
    return own.filter((passage) => passage.codings.length === 0);
  });

  constructor() {
    effect(() => this.own.use(this.leader() ? null : (this.recording() ?? null)));
    effect((onCleanup) => {
      const media = this.media();
      const ready = this.own.element() !== null;
      const stop = new AbortController();
      onCleanup(() => stop.abort());
      untracked(() => void this.measure(ready ? media : null, stop.signal));
    });
    // the words that are spoken are looked up only when the time has left those that were
    effect(() => {
      const time = this.player().time();
      const text = this.here.text();
      const playing = this.player().playing();
      const timed = this.timed();
      untracked(() => {
        if (!text || !timed || (!playing && time === 0)) return this.phrase.set(null);
        const now = this.phrase();
        const span = now && spanOf(text, now);
        if (span && span.start <= time && time < span.end && now.end <= text.text.length) return;
        const next = spokenAt(text, time, this.here.language());
        if (next?.start !== now?.start || next?.end !== now?.end) this.phrase.set(next);
      });
    });
    effect(() => {
      if (this.player().playing()) untracked(() => this.follows.set(true));
    });
    // a place that was left for another is kept, and must not be heard
    const leaving = inject(Router).events.subscribe((event) => {
      if (event instanceof NavigationEnd && !event.urlAfterRedirects.includes('/reading')) this.own.stop();
    });
    inject(DestroyRef).onDestroy(() => leaving.unsubscribe());
  }

  /** The words under a time come into view, and the time under a place of the text is gone to. */
  goToWords(position: number): void {
    const text = this.here.text();
    if (text && this.timed()) this.player().seek(timeAt(text, position));
  }

  /** The position of the text that is reached at a time; null where it says nothing of times. */
  positionAt(time: number): number | null {
    const text = this.here.text();
    return text && this.timed() ? positionAt(text, time) : null;
  }

  /** When a passage is heard: its own span, or that of its words; null where that is not known. */
  spanOf(passage: Passage): Stretch | null {
    if (passage.documentId === this.recording()?.id) return { start: passage.start, end: passage.end };
    const text = this.here.text();
    return text?.id === passage.documentId && this.timed() ? spanOf(text, passage) : null;
  }

  /** When words of the text are heard. */
  spanOfWords(words: Stretch): Stretch | null {
    const text = this.here.text();
    return text && this.timed() ? spanOf(text, words) : null;
  }

  private async measure(media: Media | null, signal: AbortSignal): Promise<void> {
    this.unmeasured.set('');
    this.measured.set(null);
    this.loudness.set(null);
    const recording = this.recording();
    if (!media || !recording) return;
    const known = await this.files.loudness(media.sha256);
    if (signal.aborted) return;
    if (known) return this.loudness.set(known);
    const found = await this.files.find(media);
    if (signal.aborted || 'missing' in found) return;
    this.measured.set(0);
    const loudness = await this.sound.loudness(
      found.file,
      recording.ground.milliseconds,
      (share) => signal.aborted || this.measured.set(share),
      signal,
    );
    if (signal.aborted || !loudness) return;
    this.measured.set(null);
    if ('trouble' in loudness) return this.unmeasured.set(loudness.trouble);
    this.loudness.set(loudness);
    await this.files.keepLoudness(media.sha256, loudness);
  }
}
