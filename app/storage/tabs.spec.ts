import { until } from '../testing/until';
import type { JournalEntry } from '@core/change/journal';
import { randomId } from '@core/model/ids';
import { StudyChannel } from './study-channel';
import { whileNobodyWrites, WriterLock } from './writer-lock';

describe('the right to write', () => {
  it('belongs to one tab at a time, until it is given back', async () => {
    const studyId = randomId();
    const [first, second] = [new WriterLock(studyId, () => undefined), new WriterLock(studyId, () => undefined)];
    expect(await first.acquire()).toBeTrue();
    expect(await second.acquire()).toBeFalse();
    expect(await whileNobodyWrites(studyId, () => Promise.resolve())).toBeFalse();
    await first.giveBack();
    expect(await second.acquire()).toBeTrue();
    await second.giveBack();
  });

  it('can be taken over, and the tab that had it is told', async () => {
    const studyId = randomId();
    let lost = 0;
    const first = new WriterLock(studyId, () => lost++);
    const second = new WriterLock(studyId, () => undefined);
    await first.acquire();
    expect(await second.acquire(true)).toBeTrue();
    await until(() => lost > 0);
    expect(lost).toBe(1);
    // giving back what is lost already takes nothing from the other
    await first.giveBack();
    expect(await first.acquire()).toBeFalse();
    await second.giveBack();
  });

  it('is of one study alone, and nobody can take it while something is done to the study', async () => {
    const [one, other] = [randomId(), randomId()];
    const lock = new WriterLock(other, () => undefined);
    let there: boolean | undefined;
    const done = await whileNobodyWrites(one, async () => {
      there = await new WriterLock(one, () => undefined).acquire();
      expect(await lock.acquire()).toBeTrue();
    });
    expect([done, there]).toEqual([true, false]);
    await lock.giveBack();
  });
});

describe('what tabs tell each other', () => {
  const entry = (records: number): JournalEntry => ({
    seq: 7,
    at: 1,
    coderId: 'c',
    kind: 'act',
    of: null,
    sentence: 'did',
    change: Array.from({ length: records }, () => ({ type: 'folder' as const, before: null, after: null })),
  });

  it('is each entry, or for a large one only that something has to be read anew; never to another study', async () => {
    const studyId = randomId();
    const heard: (JournalEntry | null)[] = [];
    const elsewhere: (JournalEntry | null)[] = [];
    const mine = new StudyChannel(studyId, () => fail('a tab hears itself'));
    const other = new StudyChannel(studyId, (one) => heard.push(one));
    const stranger = new StudyChannel(randomId(), (one) => elsewhere.push(one));
    // what it has heard, the others have heard, or never will
    let witnessed = 0;
    const witness = new StudyChannel(studyId, () => witnessed++);
    mine.tell(entry(2));
    mine.tell(entry(5_000));
    await until(() => witnessed === 2);
    expect(heard).toEqual([entry(2), null]);
    expect(elsewhere).toEqual([]);
    other.close();
    mine.tell(entry(1));
    await until(() => witnessed === 3);
    expect(heard.length).toBe(2);
    for (const channel of [mine, stranger, witness]) channel.close();
  });
});
