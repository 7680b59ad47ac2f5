import { inject, Injectable, InjectionToken } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { Stretch } from '@core/model/stretch';
import type { Loudness } from '@core/sound/loudness';
import type { ClipOf, SoundWork } from '@core/sound/sound-work';
import { requested } from './requested';

/** The work at the other end: in a worker, or here. */
type SoundEnd = Pick<Remote<SoundWork>, 'end' | 'loudness' | 'clips'> | SoundWork;

/** Makes the other end when it is first needed. */
export const SOUND = new InjectionToken<() => SoundEnd>('SOUND', {
  providedIn: 'root',
  factory: () => () => wrap<SoundWork>(new Worker(new URL('./sound.worker', import.meta.url), { type: 'module' })),
});

/** Looking into the sound of recordings, in a worker. */
@Injectable({ providedIn: 'root' })
export class SoundService {
  private readonly make = inject(SOUND);
  private end: SoundEnd | null = null;

  /** @param signal ends it @returns null if it was ended */
  loudness(
    file: Blob,
    milliseconds: number,
    progress: (share: number) => void,
    signal?: AbortSignal,
  ): Promise<Loudness | { readonly trouble: string } | null> {
    const end = (this.end ??= this.make());
    return requested(
      signal,
      async (id) => end.loudness(id, proxy(progress), file, milliseconds),
      (id) => void end.end(id),
    );
  }

  /** Clips as one WAV file. @param gap milliseconds of silence between two @param signal ends it @returns null if it was ended */
  clips(
    clips: readonly ClipOf[],
    gap: number,
    progress: (share: number) => void,
    signal?: AbortSignal,
  ): Promise<{ readonly wav: Uint8Array<ArrayBuffer>; readonly places: readonly Stretch[] } | { readonly trouble: string } | null> {
    const end = (this.end ??= this.make());
    return requested(
      signal,
      async (id) => end.clips(id, proxy(progress), clips, gap),
      (id) => void end.end(id),
    );
  }
}
