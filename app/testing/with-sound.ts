import { TestBed } from '@angular/core/testing';
import { sha256 } from '@core/formats/sha256';
import { writeWav } from '@core/formats/wav/write-wav';
import type { Document } from '@core/model/document';
import { applyChange } from '@core/change/apply';
import type { Bench } from '@core/testing/make';
import { MediaFiles } from '../state/media-files';

/** A recording on a bench with sound in it: a tone for the given seconds, then as long a silence. */
export async function recordSound(
  bench: Bench,
  title: string,
  seconds: number,
): Promise<{ readonly document: Document; readonly file: Blob }> {
  const rate = 8_000;
  const samples = Float32Array.from({ length: 2 * seconds * rate }, (_, at) => (at < seconds * rate ? 0.6 * Math.sin(at / 3) : 0));
  const bytes = writeWav([samples], rate);
  const before = bench.record(title, 2 * seconds * 1_000);
  const media = { sha256: await sha256(bytes), bytes: bytes.length, type: 'audio/wav' };
  const document: Document = { ...before, ground: { of: 'time', milliseconds: 2 * seconds * 1_000, media } };
  bench.state = applyChange(bench.state, [{ type: 'document', before, after: document }]);
  return { document, file: new Blob([bytes], { type: 'audio/wav' }) };
}

/** Has the file of a recording or a picture at hand, as when it was chosen in this window. */
export function atHand({ ground }: Document, file: Blob): void {
  if (ground.of !== 'text') TestBed.inject(MediaFiles).hold(ground.media.sha256, file);
}
