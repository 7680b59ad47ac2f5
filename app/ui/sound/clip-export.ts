import { inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { zipSync, strToU8 } from 'fflate';
import { clipFileName, clipOf, clipsCsv, codesVtt, inOrder, type Clip } from '@core/formats/clips/clips';
import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { passageOf } from '@core/passages/columns';
import { isTimed } from '@core/text/timeline';
import { counted } from '@core/text/counted';
import { MediaFiles } from '../../state/media-files';
import { Notices } from '../../state/notices';
import { selectData } from '../../state/study.selectors';
import { TextCache } from '../../state/text-cache';
import { SoundService } from '../../workers/sound-service';
import { saveFile } from '../save-file';

/** How clips go out. */
export type ClipForm = 'one sound' | 'a sound each' | 'times' | 'subtitles';

/** Silence between two clips in one sound, milliseconds. */
const GAP = 700;

/** Passages that are heard, taken out: as sound, as a table of times, as subtitles with codes. */
@Injectable({ providedIn: 'root' })
export class ClipExport {
  private readonly files = inject(MediaFiles);
  private readonly texts = inject(TextCache);
  private readonly sound = inject(SoundService);
  private readonly notices = inject(Notices);
  private readonly data = inject(Store).selectSignal(selectData);
  private readonly share = signal<number | null>(null);
  /** How far the cutting is; null while nothing is cut. */
  readonly progress = this.share.asReadonly();
  private stop = new AbortController();

  /** Those of some passages that are heard. */
  async clipsOf(places: readonly { readonly documentId: Id; readonly passageId: Id }[]): Promise<readonly Clip[]> {
    const data = this.data();
    if (!data) return [];
    const { document: documents, code } = data.tables;
    const clips: Clip[] = [];
    for (const { documentId, passageId } of places) {
      const document = documents[documentId];
      const passage = passageOf(data.passages[documentId], passageId);
      if (!document || !passage) continue;
      const clip = clipOf(passage, documents, code, await this.wordsFor(documentId));
      if (clip) clips.push(clip);
    }
    return inOrder(clips);
  }

  /** The text of a document, or of a recording the first of its transcripts that says when its words are heard. */
  private async wordsFor(documentId: Id): Promise<Text | null> {
    const documents = this.data()!.tables.document;
    if (documents[documentId]?.ground.of === 'text') return this.texts.get(documentId);
    for (const one of Object.values(documents)) {
      if (one.belongsTo !== documentId || one.ground.of !== 'text') continue;
      const text = await this.texts.get(one.id);
      if (text && isTimed(text)) return text;
    }
    return null;
  }

  cancel(): void {
    this.stop.abort();
    this.share.set(null);
  }

  /** Takes clips out under a name. @returns what went out, for the log; null if nothing did */
  async take(name: string, clips: readonly Clip[], form: ClipForm): Promise<string | null> {
    if (clips.length === 0) {
      this.notices.refuse('None of these passages is heard: they are not of a recording, nor of a transcript with times.');
      return null;
    }
    const what = `${counted(clips.length, 'clip')} of ${name}`;
    if (form === 'times') saveFile(`${name} – times.csv`, clipsCsv(clips), 'text/csv');
    else if (form === 'subtitles') this.saveSubtitles(name, clips);
    else if (!(await this.saveSound(name, clips, form))) return null;
    return what;
  }

  private saveSubtitles(name: string, clips: readonly Clip[]): void {
    const byRecording = [...Map.groupBy(clips, (clip) => clip.recording)];
    if (byRecording.length === 1) return saveFile(`${name}.vtt`, codesVtt(clips), 'text/vtt');
    const files = Object.fromEntries(byRecording.map(([{ title }, some], at) => [`${at + 1} ${safe(title)}.vtt`, strToU8(codesVtt(some))]));
    saveFile(`${name} – subtitles.zip`, zipSync(files), 'application/zip');
  }

  private async saveSound(name: string, clips: readonly Clip[], form: 'one sound' | 'a sound each'): Promise<boolean> {
    this.stop = new AbortController();
    const { signal } = this.stop;
    this.share.set(0);
    try {
      const files = new Map<Id, Blob>();
      for (const { recording } of clips) {
        if (files.has(recording.id) || recording.ground.of !== 'time') continue;
        const found = await this.files.find(recording.ground.media);
        if ('missing' in found) throw new Error(`The file of “${recording.title}” is not here. Find it first, in Reading.`);
        files.set(recording.id, found.file);
      }
      const cut = async (some: readonly Clip[], from: number): ReturnType<SoundService['clips']> =>
        this.sound.clips(
          some.map(({ recording, span }) => ({ file: files.get(recording.id)!, span })),
          GAP,
          (share) => this.share.set((from + share * some.length) / clips.length),
          signal,
        );
      if (form === 'one sound') {
        const sound = await cut(clips, 0);
        if (!sound) return false;
        if ('trouble' in sound) throw new Error(sound.trouble);
        saveFile(`${name}.wav`, sound.wav, 'audio/wav');
        saveFile(`${name} – list.csv`, clipsCsv(clips, sound.places), 'text/csv');
        return true;
      }
      const all: Record<string, Uint8Array> = { 'list.csv': strToU8(clipsCsv(clips)) };
      for (const [at, clip] of clips.entries()) {
        const sound = await cut([clip], at);
        if (!sound) return false;
        if ('trouble' in sound) throw new Error(sound.trouble);
        all[clipFileName(clip, at)] = sound.wav;
      }
      saveFile(`${name} – clips.zip`, zipSync(all, { level: 0 }), 'application/zip');
      return true;
    } catch (error) {
      this.notices.refuse(error instanceof Error ? error.message : String(error));
      return false;
    } finally {
      this.share.set(null);
    }
  }
}

const safe = (title: string): string => title.replace(/[\\/:*?"<>|\p{Cc}]/gu, '-').slice(0, 80);
