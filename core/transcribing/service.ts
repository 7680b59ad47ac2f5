import * as z from 'zod';
import type { Loudness } from '../sound/loudness';

/** A word as a service heard it, and how sure it is of it, from 0 to 1. */
export const HeardWordSchema = z.strictObject({ text: z.string().min(1).max(500), confidence: z.number().min(0).max(1) });

/** What somebody says without a pause: from and to in milliseconds; without words where it is only known that somebody speaks. */
export const SegmentSchema = z.strictObject({
  start: z.number().min(0),
  end: z.number().min(0),
  /** A name that the service gives who speaks, or null. */
  speaker: z.string().max(100).nullable(),
  words: z.array(HeardWordSchema).max(10_000),
});
export type Segment = z.infer<typeof SegmentSchema>;

/** How a job stands. */
export const JobSchema = z.discriminatedUnion('state', [
  z.strictObject({ state: z.literal('working'), share: z.number().min(0).max(1) }),
  z.strictObject({ state: z.literal('failed'), reason: z.string().max(1_000) }),
  z.strictObject({ state: z.literal('done'), segments: z.array(SegmentSchema).max(100_000) }),
]);
export type Job = z.infer<typeof JobSchema>;

/** What a service is asked to transcribe. A service takes of it what it needs. */
export interface ToTranscribe {
  readonly file: Blob;
  readonly sha256: string;
  readonly milliseconds: number;
  /** BCP 47 tag of what is spoken. */
  readonly language: string;
  /** How loud it is, where that was measured. */
  readonly loudness: Loudness | null;
}

/** A service that makes transcripts. Each of its methods fails with a message for the researcher. */
export interface TranscribingService {
  /** As it is shown wherever its result is. */
  readonly name: string;
  /** Whether it only stands in for a real one. */
  readonly simulated: boolean;
  /** Hands a recording in. @returns the number of the job */
  begin(recording: ToTranscribe): Promise<string>;
  /** How a job stands. */
  look(job: string): Promise<Job>;
  /** Gives a job up: nothing comes of it. */
  cancel(job: string): Promise<void>;
}
