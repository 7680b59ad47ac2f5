import fc from 'fast-check';
import { asByte, loudestOf, LoudnessMeter, STEP } from './loudness';
import { speechIn } from './speech';

const RATE = 8_000;
const tone = (seconds: number, level: number): Float32Array =>
  Float32Array.from({ length: seconds * RATE }, (_, at) => level * Math.sin((2 * Math.PI * 440 * at) / RATE));

describe('Loudness', () => {
  it('is the root mean square in decibels: a full sine is 3 dB below full scale, half of it 6 dB less', () => {
    expect(asByte(1)).toBe(255);
    expect(asByte(0)).toBe(0);
    expect(asByte(1e-7)).toBe(0);
    const meter = new LoudnessMeter(1_000);
    meter.take(tone(1, 1), 0, RATE);
    // -3.01 dB of 60
    expect([...new Set(meter.finish().values)]).toEqual([Math.round((255 * (60 - 3.01)) / 60)]);
    expect(asByte(0.5) - asByte(0.125)).toBeCloseTo((255 * 6.02) / 60, -1);
  });

  it('is the same in whatever pieces the recording is decoded', () => {
    const samples = Float32Array.from({ length: 2 * RATE }, (_, at) => Math.sin(at * at * 1e-4) * ((at % 3_000) / 3_000));
    const whole = new LoudnessMeter(2_000);
    whole.take(samples, 0, RATE);
    const expected = [...whole.finish().values];
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 3_000 }), { minLength: 1, maxLength: 30 }), (sizes) => {
        const meter = new LoudnessMeter(2_000);
        let at = 0;
        for (const size of [...sizes, samples.length]) {
          meter.take(samples.subarray(at, at + size), (1_000 * at) / RATE, RATE);
          at = Math.min(samples.length, at + size);
        }
        const found = [...meter.finish().values];
        expect(found.every((value, step) => Math.abs(value - expected[step]!) <= 1)).toBeTrue();
      }),
    );
  });

  it('is silence where pieces leave a gap, and nothing is taken from behind the end', () => {
    const meter = new LoudnessMeter(1_000);
    meter.take(tone(0.1, 1), 0, RATE);
    meter.take(tone(1, 1), 500, RATE);
    const { values } = meter.finish();
    expect(values.length).toBe(1_000 / STEP);
    expect([...values].map((value) => value > 0)).toEqual([...values].map((_, at) => at < 2 || at >= 10));
  });

  it('is drawn by the loudest of each part, however wide', () => {
    const loudness = { step: 50, values: Uint8Array.of(1, 9, 2, 3, 7, 0, 0, 4) };
    expect([...loudestOf(loudness, { start: 0, end: 400 }, 4)]).toEqual([9, 3, 7, 4]);
    expect([...loudestOf(loudness, { start: 100, end: 200 }, 4)]).toEqual([2, 2, 3, 3]);
    expect([...loudestOf(loudness, { start: 300, end: 600 }, 3)]).toEqual([4, 0, 0]);
  });
});

describe('Speech by loudness', () => {
  const values = (...parts: readonly (readonly [number, number])[]): Uint8Array =>
    Uint8Array.from(parts.flatMap(([steps, level]) => Array<number>(steps).fill(level)));

  it('is told from silence, a pause within it left in, a click left out', () => {
    const found = speechIn({
      step: 50,
      values: values([20, 5], [30, 180], [8, 6], [20, 170], [40, 5], [2, 200], [30, 4], [25, 150], [20, 5]),
    });
    expect(found).toEqual([
      { start: 1_000, end: 3_900 },
      { start: 7_500, end: 8_750 },
    ]);
  });

  it('is nowhere in silence, and everywhere in a steady noise', () => {
    expect(speechIn({ step: 50, values: values([100, 0]) })).toEqual([]);
    expect(speechIn({ step: 50, values: values([100, 90]) })).toEqual([{ start: 0, end: 5_000 }]);
    expect(speechIn({ step: 50, values: new Uint8Array() })).toEqual([]);
  });
});
