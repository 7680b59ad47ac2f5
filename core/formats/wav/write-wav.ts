/**
 * A sound as a WAV file: RIFF/WAVE, linear PCM of 16 bits (Multimedia Programming Interface and Data Specifications 1.0).
 * @param channels samples between -1 and 1, of each channel as many; what is louder is cut
 * @param rate samples per second
 */
export function writeWav(channels: readonly Float32Array[], rate: number): Uint8Array<ArrayBuffer> {
  const [first = new Float32Array()] = channels;
  const data = first.length * channels.length * 2;
  const bytes = new Uint8Array(44 + data);
  const view = new DataView(bytes.buffer);
  const word = (at: number, letters: string): void => [...letters].forEach((letter, by) => view.setUint8(at + by, letter.charCodeAt(0)));
  word(0, 'RIFF');
  view.setUint32(4, 36 + data, true);
  word(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, channels.length, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * channels.length * 2, true);
  view.setUint16(32, channels.length * 2, true);
  view.setUint16(34, 16, true);
  word(36, 'data');
  view.setUint32(40, data, true);
  let at = 44;
  for (let frame = 0; frame < first.length; frame++)
    for (const samples of channels) {
      const sample = Math.max(-1, Math.min(1, samples[frame]!));
      view.setInt16(at, Math.round(sample * (sample < 0 ? 0x8000 : 0x7fff)), true);
      at += 2;
    }
  return bytes;
}
