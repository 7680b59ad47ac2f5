import { TestBed } from '@angular/core/testing';
import { writeWav } from '@core/formats/wav/write-wav';
import { SoundWork } from '@core/sound/sound-work';
import { SOUND, SOUND_PATIENCE, SoundService, type SoundEnd } from './sound-service';

describe('Asking for the sound of a recording', () => {
  let halted: number;
  const nothing = (): void => undefined;
  const second = new Blob([writeWav([new Float32Array(8_000).fill(0.5)], 8_000)]);
  const service = (work: SoundEnd['work']): SoundService => {
    halted = 0;
    TestBed.configureTestingModule({
      providers: [
        { provide: SOUND, useValue: (): SoundEnd => ({ work, halt: () => void halted++ }) },
        { provide: SOUND_PATIENCE, useValue: 60 },
      ],
    });
    return TestBed.inject(SoundService);
  };

  it('answers, and ends what did the work', async () => {
    const loudness = await service(new SoundWork()).loudness(second, 1_000, nothing);
    expect(loudness && 'values' in loudness && loudness.values.length).toBe(20);
    expect(halted).toBe(1);
  });

  it('gives up a recording that goes round without end, in words, and can be asked again', async () => {
    const endless = { loudness: () => new Promise<null>(nothing), clips: () => new Promise<null>(nothing) };
    const sound = service(endless as unknown as SoundWork);
    for (const times of [1, 2]) {
      expect(await sound.loudness(second, 1_000, nothing)).toEqual({ trouble: jasmine.stringMatching('did not get on') });
      expect(halted).toBe(times);
    }
  });

  it('waits for as long as it gets on', async () => {
    const slow = {
      clips: async (_id: number, tell: (share: number) => void) => {
        for (let share = 0; share < 1; share += 0.2) {
          await new Promise((resolve) => setTimeout(resolve, 30));
          tell(share);
        }
        return { wav: new Uint8Array(), places: [] };
      },
    };
    const told: number[] = [];
    const cut = await service(slow as unknown as SoundWork).clips([], 0, (share) => told.push(share));
    expect(cut).toEqual({ wav: new Uint8Array(), places: [] });
    expect(told.length).toBe(5);
  });

  it('is over at once when it is no longer wanted', async () => {
    const endless = { loudness: () => new Promise<null>(nothing) };
    const stop = new AbortController();
    const asked = service(endless as unknown as SoundWork).loudness(second, 1_000, nothing, stop.signal);
    stop.abort();
    expect(await asked).toBeNull();
    expect(halted).toBe(1);
  });
});
