/** How loud a recording is from beginning to end. */
export interface Loudness {
  /** Milliseconds that each value stands for. */
  readonly step: number;
  /** Loudness of each step, 0 for silence to 255 for full scale; see {@link asByte}. */
  readonly values: Uint8Array;
}

/** Milliseconds of a step: twenty values a second show syllables, and two hours are 144,000 bytes. */
export const STEP = 50;

/** The quietest that is told from silence, decibels below full scale. */
const FLOOR = -60;

/**
 * The level of some samples as a byte: their root mean square in decibels relative to full scale (AES17, without its
 * correction for sines), from -60 dB to 0 dB laid evenly on 0 to 255.
 * @param meanSquare of samples between -1 and 1
 */
export function asByte(meanSquare: number): number {
  if (!(meanSquare > 0)) return 0;
  const decibels = 10 * Math.log10(meanSquare);
  return Math.max(0, Math.min(255, Math.round((255 * (decibels - FLOOR)) / -FLOOR)));
}

/** Measures loudness while a recording is decoded, piece by piece; of no recording more than a piece is in memory. */
export class LoudnessMeter {
  private readonly values: Uint8Array;
  /** The step that is being filled, the sum of its squares so far, and how many samples they are of. */
  private step = 0;
  private sum = 0;
  private count = 0;

  /** @param milliseconds how long the recording is */
  constructor(private readonly milliseconds: number) {
    this.values = new Uint8Array(Math.ceil(milliseconds / STEP));
  }

  /**
   * Takes the next piece: samples of one channel, between -1 and 1. Where pieces leave a gap it is silence.
   * @param time of its first sample, milliseconds
   * @param rate samples per second
   */
  take(samples: Float32Array, time: number, rate: number): void {
    const perStep = (STEP * rate) / 1000;
    let from = 0;
    while (from < samples.length) {
      const step = Math.max(this.step, Math.floor((time + (1000 * from) / rate) / STEP));
      if (step !== this.step) this.turnTo(step);
      const next = Math.ceil((step + 1) * perStep - (time * rate) / 1000);
      const to = Math.min(samples.length, Math.max(from + 1, next));
      let sum = 0;
      for (let at = from; at < to; at++) sum += samples[at]! * samples[at]!;
      this.sum += sum;
      this.count += to - from;
      from = to;
    }
  }

  private turnTo(step: number): void {
    if (this.step < this.values.length && this.count > 0) this.values[this.step] = asByte(this.sum / this.count);
    this.step = step;
    this.sum = 0;
    this.count = 0;
  }

  /** The share of the recording that is measured, 0 to 1. */
  get share(): number {
    return Math.min(1, (this.step * STEP) / this.milliseconds);
  }

  /** The loudness measured so far. */
  finish(): Loudness {
    this.turnTo(this.step);
    return { step: STEP, values: this.values };
  }
}

/**
 * The loudest of each of some equal parts of a span, for drawing it as wide as there is room.
 * @param span in milliseconds
 */
export function loudestOf({ step, values }: Loudness, span: { readonly start: number; readonly end: number }, parts: number): Uint8Array {
  const loudest = new Uint8Array(Math.max(0, parts));
  const width = (span.end - span.start) / step / parts;
  for (let part = 0; part < parts; part++) {
    const from = Math.floor(span.start / step + part * width);
    const to = Math.max(from + 1, Math.floor(span.start / step + (part + 1) * width));
    for (let at = Math.max(0, from); at < Math.min(to, values.length); at++) if (values[at]! > loudest[part]!) loudest[part] = values[at]!;
  }
  return loudest;
}
