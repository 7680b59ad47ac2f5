import { RequestEndedError, Requests, type Running } from './requests';

describe('requests', () => {
  let requests: Requests;
  /** Work that goes on until it is let go. */
  const held = () => {
    let release: (value: string) => void = () => undefined;
    const wait = new Promise<string>((resolve) => (release = resolve));
    return { release, work: () => wait };
  };

  beforeEach(() => (requests = new Requests()));

  it('give what was worked out, and tell how far it is', async () => {
    const told: number[] = [];
    const done = await requests.run(
      'sum',
      1,
      async (running) => {
        await running.tell(0.5);
        return 3;
      },
      (share) => void told.push(share),
    );
    expect([done, told]).toEqual([3, [0.5]]);
  });

  it('of one kind are ended by a newer one, and of another kind are not', async () => {
    const [older, other] = [held(), held()];
    const first = requests.run('sum', 1, older.work);
    const beside = requests.run('list', 2, other.work);
    const second = requests.run('sum', 3, () => 'new');
    older.release('old');
    other.release('list');
    expect(await Promise.all([first, beside, second])).toEqual([null, 'list', 'new']);
  });

  it('are ended by their number, at the next breath', async () => {
    let at: Running | undefined;
    const wait = held();
    const asked = requests.run('sum', 7, async (running) => {
      at = running;
      await wait.work();
      await running.breathe();
      return 'too late';
    });
    requests.end(7);
    expect(() => at!.check()).toThrowError(RequestEndedError);
    wait.release('');
    expect(await asked).toBeNull();
    // ending what is done does nothing
    requests.end(7);
    expect(await requests.run('sum', 7, () => 'again')).toBe('again');
  });

  it('let others have their turn while they work for long', async () => {
    let heard = false;
    setTimeout(() => (heard = true));
    await requests.run('long', 1, async (running) => {
      // long, for a machine that stands still between two breaths; who never breathes is never heard
      const until = Date.now() + 3_000;
      while (!heard && Date.now() < until) await running.tell(0);
    });
    expect(heard).toBeTrue();
  });

  it('tell at the first, now and then, and when all is done, however often they are asked to', async () => {
    const told: number[] = [];
    await requests.run(
      'often',
      1,
      async (running) => {
        for (let at = 0; at <= 1_000; at++) await running.tell(at / 1_000);
      },
      (share) => void told.push(share),
    );
    expect([told[0], told.at(-1)]).toEqual([0, 1]);
    expect(told.length).toBeLessThan(500);
  });

  it('that fail fail for whoever asked', async () => {
    await expectAsync(requests.run('sum', 1, () => Promise.reject(new Error('no room')))).toBeRejectedWithError('no room');
  });
});
