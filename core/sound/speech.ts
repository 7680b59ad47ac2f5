import type { Stretch } from '../model/stretch';
import type { Loudness } from './loudness';

/** Milliseconds of quiet that end what is being said, and of sound that are no speech but a click. */
const QUIET = 700;
const CLICK = 200;

/**
 * Tells speech from silence by loudness alone: what is louder than half way between the quiet parts (the tenth
 * percentile) and the loud ones (the ninety-fifth), with pauses of less than 0.7 s as part of it. A steady noise is
 * one long stretch; nothing is known of who speaks, or whether it is speech at all.
 * @returns spans in milliseconds, in order
 */
export function speechIn({ step, values }: Loudness): Stretch[] {
  if (values.length === 0) return [];
  const sorted = Uint8Array.from(values).sort();
  const [quiet, loud] = [sorted[Math.floor(0.1 * sorted.length)]!, sorted[Math.floor(0.95 * (sorted.length - 1))]!];
  const threshold = Math.max(1, (quiet + loud) / 2);
  const spans: { start: number; end: number }[] = [];
  values.forEach((value, at) => {
    if (value < threshold) return;
    const last = spans.at(-1);
    const start = at * step;
    if (last && start - last.end < QUIET) last.end = start + step;
    else spans.push({ start, end: start + step });
  });
  return spans.filter(({ start, end }) => end - start >= CLICK);
}
