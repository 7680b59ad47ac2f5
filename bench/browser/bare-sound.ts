import { ALL_FORMATS, AudioSampleSink, BlobSource, Input } from 'mediabunny';
import { SoundWork } from '../../core/sound/sound-work';

/** Decodes a recording in a worker: bare, or measuring its loudness as Filum does. Answers with the milliseconds it took. */
async function run({ file, milliseconds, measured }: { file: Blob; milliseconds: number; measured: boolean }): Promise<number> {
  const begun = performance.now();
  if (measured) await new SoundWork().loudness(1, () => undefined, file, milliseconds);
  else {
    const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
    const track = (await input.getPrimaryAudioTrack())!;
    for await (const sample of new AudioSampleSink(track).samples()) sample.close();
  }
  return performance.now() - begun;
}

onmessage = (event: MessageEvent<Parameters<typeof run>[0]>) => void run(event.data).then((took) => postMessage(took));
