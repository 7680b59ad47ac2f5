import { readFileSync } from 'node:fs';
import { writeWav } from '../formats/wav/write-wav';
import { SoundWork } from './sound-work';

const RATE = 8_000;
/** Samples that say when they are heard: sample n is n / length. */
const ramp = (seconds: number): Float32Array => Float32Array.from({ length: seconds * RATE }, (_, at) => at / (seconds * RATE));
const blob = (...channels: Float32Array[]): Blob => new Blob([writeWav(channels, RATE)]);
const samplesOf = (wav: Uint8Array<ArrayBuffer>): Float32Array =>
  Float32Array.from(new Int16Array(wav.buffer, 44), (sample) => sample / 0x7fff);
const silent = (): void => undefined;

describe('Work on sound', () => {
  let work: SoundWork;
  let id = 0;
  beforeEach(() => (work = new SoundWork()));

  it('measures a recording from its file, telling how far it is', async () => {
    const told: number[] = [];
    const loudness = await work.loudness(++id, (share) => void told.push(share), blob(new Float32Array(2 * RATE), ramp(2)), 2_000);
    if (!loudness || 'trouble' in loudness) throw new Error('not measured');
    expect(loudness.values.length).toBe(40);
    // both channels count: the ramp alone is louder and louder
    expect([...loudness.values]).toEqual([...loudness.values].sort((a, b) => a - b));
    expect(loudness.values.at(-1)).toBeGreaterThan(200);
    expect(told.every((share) => share >= 0 && share <= 1)).toBeTrue();
  });

  it('cuts clips to the sample, one after another with silence between', async () => {
    const file = blob(ramp(4));
    const cut = await work.clips(
      ++id,
      silent,
      [
        { file, span: { start: 1_000, end: 1_500 } },
        { file, span: { start: 3_000, end: 3_250 } },
      ],
      100,
    );
    if (!cut || 'trouble' in cut) throw new Error('not cut');
    expect(cut.places).toEqual([
      { start: 0, end: 500 },
      { start: 600, end: 850 },
    ]);
    const samples = samplesOf(cut.wav);
    expect(samples.length).toBe((850 * RATE) / 1_000);
    expect(samples[0]).toBeCloseTo(0.25, 3);
    expect(samples[0.5 * RATE - 1]).toBeCloseTo(0.375, 3);
    expect([...samples.subarray(0.5 * RATE, 0.6 * RATE)].every((sample) => sample === 0)).toBeTrue();
    expect(samples[0.6 * RATE]).toBeCloseTo(0.75, 3);
  });

  it('brings clips of another rate to that of the first', async () => {
    const slow = new Blob([writeWav([ramp(1).filter((_, at) => at % 2 === 0)], RATE / 2)]);
    const cut = await work.clips(++id, silent, [
      { file: blob(ramp(1)), span: { start: 0, end: 1_000 } },
      { file: slow, span: { start: 0, end: 1_000 } },
    ]);
    if (!cut || 'trouble' in cut) throw new Error('not cut');
    const samples = samplesOf(cut.wav);
    expect(samples.length).toBe(2 * RATE);
    for (const at of [0, 1_001, 4_000, 7_990]) expect(samples[RATE + at]).toBeCloseTo(samples[at]!, 2);
  });

  it('says in words what cannot be decoded, and stops when it is ended', async () => {
    expect(await work.loudness(++id, silent, new Blob(['no recording at all']), 1_000)).toEqual({
      trouble: 'The file is damaged, or no recording.',
    });
    const file = blob(new Float32Array(600 * RATE));
    expect(await work.loudness(++id, () => work.end(id), file, 600_000)).toBeNull();
    const long = { file, span: { start: 0, end: 4 * 3_600_000 } };
    expect(await work.clips(++id, silent, [long])).toEqual({ trouble: jasmine.stringMatching(/longer than three hours/) });
  });

  it('says in words that a recording is damaged, and that it is none', async () => {
    const flac = readFileSync('core/formats/recording/fixtures/tone.flac');
    for (const file of [new Blob(['a letter'.repeat(50)]), new Blob([flac.subarray(0, 300)]), new Blob([new Uint8Array(4_000)])]) {
      const said = await work.loudness(++id, silent, file, 1_000);
      expect(said && 'trouble' in said && said.trouble).toMatch(/damaged|no recording|cannot look/);
    }
  });
});
