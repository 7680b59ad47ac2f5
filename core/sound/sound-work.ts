import { writeWav } from '../formats/wav/write-wav';
import type { Stretch } from '../model/stretch';
import { Requests, type Tell } from '../requests/requests';
import { decoded, UndecodableError } from './decode';
import { LoudnessMeter, type Loudness } from './loudness';

/** A clip of a recording: where its sound is, and when in it the clip begins and ends, milliseconds. */
export interface ClipOf {
  readonly file: Blob;
  readonly span: Stretch;
}

/** The longest that clips may be together, milliseconds: three hours of one channel are about 2 GB at 96 kHz. */
const MOST = 3 * 3_600_000;

/** Work on the sound of recordings. It knows no worker: it is run in one, and tested as it is. */
export class SoundWork {
  private readonly requests = new Requests();

  /** Ends a request, if it is still at work. */
  end(id: number): void {
    this.requests.end(id);
  }

  /**
   * How loud a recording is from beginning to end.
   * @returns null if it was ended; in words why it cannot be told
   */
  loudness(id: number, tell: Tell, file: Blob, milliseconds: number): Promise<Loudness | { readonly trouble: string } | null> {
    return this.requests.run(
      `loudness ${id}`,
      id,
      ({ tell }) =>
        inWords(async () => {
          const meter = new LoudnessMeter(milliseconds);
          for await (const { samples, time, rate } of decoded(file)) {
            meter.take(samples, time, rate);
            await tell(meter.share);
          }
          return meter.finish();
        }),
      tell,
    );
  }

  /**
   * Clips as one WAV file, one channel of 16 bits, one after another with silence between them.
   * @param gap milliseconds of silence between two
   * @returns the bytes, and where each clip begins and ends in them; null if it was ended
   */
  clips(
    id: number,
    tell: Tell,
    clips: readonly ClipOf[],
    gap = 0,
  ): Promise<{ readonly wav: Uint8Array<ArrayBuffer>; readonly places: readonly Stretch[] } | { readonly trouble: string } | null> {
    return this.requests.run(
      `clips ${id}`,
      id,
      ({ tell }) =>
        inWords(async () => {
          if (clips.reduce((sum, { span }) => sum + span.end - span.start, 0) > MOST)
            throw new UndecodableError('The clips are longer than three hours together. Take fewer.');
          const parts: Float32Array[] = [];
          let rate = 0;
          for (const [at, clip] of clips.entries()) {
            const cut = await cutOut(clip, (share) => tell((at + share) / clips.length));
            rate ||= cut.rate;
            parts.push(resampled(cut.samples, cut.rate, rate));
            await tell((at + 1) / clips.length);
          }
          return joined(parts, rate || 8_000, gap);
        }),
      tell,
    );
  }
}

async function inWords<T>(work: () => Promise<T>): Promise<T | { readonly trouble: string }> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof UndecodableError) return { trouble: error.message };
    throw error;
  }
}

/** Exactly the samples of a clip; silence where the recording has none. */
async function cutOut({ file, span }: ClipOf, tell: Tell): Promise<{ readonly samples: Float32Array; readonly rate: number }> {
  let samples = new Float32Array();
  let rate = 0;
  for await (const piece of decoded(file, span)) {
    if (rate === 0) {
      rate = piece.rate;
      samples = new Float32Array(Math.round(((span.end - span.start) * rate) / 1000));
    }
    const at = Math.round(((piece.time - span.start) * rate) / 1000);
    const from = Math.max(0, -at);
    const to = Math.min(piece.samples.length, samples.length - at);
    if (to > from) samples.set(piece.samples.subarray(from, to), at + from);
    await tell(Math.min(1, Math.max(0, (piece.time - span.start) / Math.max(1, span.end - span.start))));
  }
  return { samples, rate: rate || 8_000 };
}

/** Samples at another rate, straight lines drawn between them: for a recording among others of another rate. */
function resampled(samples: Float32Array, from: number, to: number): Float32Array {
  if (from === to) return samples;
  return Float32Array.from({ length: Math.round((samples.length * to) / from) }, (_, at) => {
    const place = (at * from) / to;
    const before = Math.floor(place);
    const [a = 0, b = a] = [samples[before], samples[before + 1]];
    return a + (b - a) * (place - before);
  });
}

function joined(parts: readonly Float32Array[], rate: number, gap: number): { wav: Uint8Array<ArrayBuffer>; places: Stretch[] } {
  const silence = Math.round((gap * rate) / 1000);
  const all = new Float32Array(parts.reduce((sum, part) => sum + part.length, 0) + silence * Math.max(0, parts.length - 1));
  const places: Stretch[] = [];
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    places.push({ start: Math.round((1000 * at) / rate), end: Math.round((1000 * (at + part.length)) / rate) });
    at += part.length + silence;
  }
  return { wav: writeWav([all], rate), places };
}
