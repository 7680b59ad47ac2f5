import { inject, Injectable, InjectionToken } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { Stretch } from '@core/model/stretch';
import type { Loudness } from '@core/sound/loudness';
import type { ClipOf, SoundWork } from '@core/sound/sound-work';

/** Whoever does the work on one sound, and what ends it in the middle of whatever it does. */
export interface SoundEnd {
  readonly work: Pick<Remote<SoundWork>, 'loudness' | 'clips'> | SoundWork;
  readonly halt: () => void;
}

/** Makes the other end for one request. */
export const SOUND = new InjectionToken<() => SoundEnd>('SOUND', {
  providedIn: 'root',
  factory: () => () => {
    const worker = new Worker(new URL('./sound.worker', import.meta.url), { type: 'module' });
    return { work: wrap<SoundWork>(worker), halt: () => worker.terminate() };
  },
});

/** How long a sound may go without getting on before it is given up, milliseconds. */
export const SOUND_PATIENCE = new InjectionToken<number>('SOUND_PATIENCE', { providedIn: 'root', factory: () => 20_000 });
const ENDLESS = 'It was given up, since it did not get on: something in the recording takes endlessly to decode. It may be damaged.';

/**
 * Looking into the sound of recordings, in a worker. Each request has one of its own: a damaged recording can send the
 * decoder round without end, and only ending the worker stops that.
 */
@Injectable({ providedIn: 'root' })
export class SoundService {
  private readonly make = inject(SOUND);
  private readonly patience = inject(SOUND_PATIENCE);

  /** @param signal ends it @returns null if it was ended */
  loudness(
    file: Blob,
    milliseconds: number,
    progress: (share: number) => void,
    signal?: AbortSignal,
  ): Promise<Loudness | { readonly trouble: string } | null> {
    return this.ask((work, told) => work.loudness(1, proxy(told), file, milliseconds), progress, signal);
  }

  /** Clips as one WAV file. @param gap milliseconds of silence between two @param signal ends it @returns null if it was ended */
  clips(
    clips: readonly ClipOf[],
    gap: number,
    progress: (share: number) => void,
    signal?: AbortSignal,
  ): Promise<{ readonly wav: Uint8Array<ArrayBuffer>; readonly places: readonly Stretch[] } | { readonly trouble: string } | null> {
    return this.ask((work, told) => work.clips(1, proxy(told), clips, gap), progress, signal);
  }

  private async ask<T>(
    ask: (work: SoundEnd['work'], told: (share: number) => void) => Promise<T>,
    progress: (share: number) => void,
    signal?: AbortSignal,
  ): Promise<T | { readonly trouble: string } | null> {
    if (signal?.aborted) return null;
    const { work, halt } = this.make();
    const { promise: cutShort, resolve } = Promise.withResolvers<{ readonly trouble: string } | null>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const wait = (): void => {
      clearTimeout(timer);
      timer = setTimeout(() => resolve({ trouble: ENDLESS }), this.patience);
    };
    const stop = (): void => resolve(null);
    signal?.addEventListener('abort', stop);
    try {
      wait();
      const told = (share: number): void => {
        wait();
        if (!signal?.aborted) progress(share);
      };
      return await Promise.race([ask(work, told), cutShort]);
    } finally {
      clearTimeout(timer);
      signal?.removeEventListener('abort', stop);
      halt();
    }
  }
}
