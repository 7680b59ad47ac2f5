import { readFileSync } from 'node:fs';
import { UnreadableFileError } from '../reading';
import { readRecording } from './read-recording';
import { writeWav } from '../wav/write-wav';

const MP3 = readFileSync('demo/media/pier-01.mp3');
const file = (...bytes: readonly (string | Uint8Array<ArrayBuffer>)[]): Blob => new Blob([...bytes]);
const trouble = (ending: string, blob: Blob): Promise<string> =>
  readRecording(ending, blob).then(
    () => 'read',
    (error: unknown) => (error instanceof UnreadableFileError ? error.message : `not in words: ${String(error)}`),
  );

describe('A recording that comes in', () => {
  it('says how long it is, how large, what type and what tracks it has, and tells how far it is read', async () => {
    const shares: number[] = [];
    const facts = await readRecording('.mp3', file(MP3), (share) => shares.push(share));
    expect(facts).toEqual(jasmine.objectContaining({ bytes: MP3.length, type: 'audio/mpeg', film: false }));
    expect(facts.milliseconds / 1000).toBeCloseTo(105.6, 0);
    expect(facts.tracks).toEqual(['sound, mp3, 1 channel, 22,050 Hz']);
    expect(facts.sha256).toMatch(/^[0-9a-f]{64}$/);
    expect(shares.at(-1)).toBe(1);
  });

  it('is read by what it is, whatever its ending says', async () => {
    const wave = writeWav([new Float32Array(8_000)], 8_000);
    expect((await readRecording('.mp3', file(wave))).milliseconds).toBe(1_000);
    expect((await readRecording('.mp3', file(wave))).type).toMatch(/^audio\/.*wav/);
  });

  it('is read in every kind of file that browsers play, films with their pictures', async () => {
    const fixture = (name: string): Blob => file(readFileSync(`core/formats/recording/fixtures/${name}`));
    const of = async (name: string) => {
      const { type, film, tracks, milliseconds } = await readRecording(name.slice(name.lastIndexOf('.')), fixture(name));
      expect(Math.abs(milliseconds - 1_000))
        .withContext(name)
        .toBeLessThan(120);
      return [type, film, tracks.length];
    };
    expect(await of('tone.ogg')).toEqual(['audio/ogg', false, 1]);
    expect(await of('tone.m4a')).toEqual(['audio/mp4', false, 1]);
    expect(await of('tone.flac')).toEqual(['audio/flac', false, 1]);
    expect(await of('film.webm')).toEqual(['video/webm', true, 2]);
  });

  it('is refused in words where browsers do not play it, with what to convert it to', async () => {
    expect(await trouble('.wma', file('anything'))).toBe(
      'Browsers do not play sound files ending in .wma. Convert it to MP3 or WAV, and bring that in.',
    );
    expect(await trouble('.mkv', file('anything'))).toMatch(/MP4/);
  });

  it('is refused in words where it is empty, cut off, or something else', async () => {
    expect(await trouble('.mp3', file())).toBe('The file is empty.');
    expect(await trouble('.mp3', file('This is a letter.'.repeat(200)))).toMatch(/neither sound nor film/);
    expect(await trouble('.wav', file(new Uint8Array(50)))).toMatch(/neither sound nor film/);
    const header = writeWav([new Float32Array(8_000)], 8_000).slice(0, 44);
    expect(await trouble('.wav', file(header))).toMatch(/of no length|damaged|cut off/);
    for (const length of [12, 100, 1_000])
      expect(await trouble('.mp4', file(MP3.subarray(5_000, 5_000 + length)))).not.toMatch(/^not in words/);
  });
});
