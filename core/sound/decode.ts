import { ALL_FORMATS, AudioSampleSink, BlobSource, Input, type AudioSample, type InputAudioTrack } from 'mediabunny';
import type { Stretch } from '../model/stretch';

/** The sound of a recording cannot be decoded here. The message says why, and what still works. */
export class UndecodableError extends Error {
  constructor(reason: string) {
    super(reason);
    this.name = 'UndecodableError';
  }
}

/** Samples of one channel, or of several mixed evenly into one, as they are decoded. */
export interface Piece {
  readonly samples: Float32Array;
  /** When the first of them is heard, milliseconds from the start of the recording. */
  readonly time: number;
  /** Samples per second. */
  readonly rate: number;
}

/**
 * Decodes the sound of a recording piece by piece; never more than a few pieces are in memory.
 * @param span of it, in milliseconds; all of it where it is left out
 * @throws UndecodableError where it has no sound, or one that this browser cannot decode
 */
export async function* decoded(file: Blob, span?: Stretch): AsyncGenerator<Piece> {
  const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
  try {
    const track = await soundOf(input);
    const sink = new AudioSampleSink(track);
    for await (const sample of sink.samples(span && span.start / 1000, span && span.end / 1000)) {
      try {
        yield { samples: mixed(sample), time: sample.timestamp * 1000, rate: sample.sampleRate };
      } finally {
        sample.close();
      }
    }
  } catch (error) {
    if (error instanceof UndecodableError) throw error;
    throw new UndecodableError('The sound of the recording is damaged: only a part of it can be decoded, or nothing.');
  } finally {
    input.dispose();
  }
}

async function soundOf(input: Input): Promise<InputAudioTrack> {
  const track = await input.getPrimaryAudioTrack().catch(() => {
    throw new UndecodableError('The file is damaged, or no recording.');
  });
  if (!track) throw new UndecodableError('There is no sound in this recording.');
  if (!(await track.canDecode())) throw new UndecodableError('This browser plays the recording, but cannot look into its sound.');
  return track;
}

/** All channels as one, each with the same weight. */
function mixed(sample: AudioSample): Float32Array {
  const frames = sample.numberOfFrames;
  const samples = new Float32Array(frames);
  sample.copyTo(samples, { planeIndex: 0, format: 'f32-planar' });
  if (sample.numberOfChannels === 1) return samples;
  const other = new Float32Array(frames);
  for (let channel = 1; channel < sample.numberOfChannels; channel++) {
    sample.copyTo(other, { planeIndex: channel, format: 'f32-planar' });
    for (let at = 0; at < frames; at++) samples[at]! += other[at]!;
  }
  for (let at = 0; at < frames; at++) samples[at]! /= sample.numberOfChannels;
  return samples;
}
