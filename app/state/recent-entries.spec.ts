import type { JournalEntry } from '@core/change/journal';
import { RecentEntries } from './recent-entries';

describe('the newest entries in memory', () => {
  const entry = (seq: number, records = 1): JournalEntry => ({
    seq,
    at: seq,
    coderId: 'c',
    kind: 'act',
    of: null,
    sentence: '',
    change: Array.from({ length: records }, () => ({ type: 'folder' as const, before: null, after: null })),
  });
  const kept = (recent: RecentEntries, ...numbers: number[]) => numbers.filter((seq) => recent.get(seq));

  it('are the last two hundred small ones', () => {
    const recent = new RecentEntries();
    for (let seq = 1; seq <= 250; seq++) recent.add(entry(seq));
    expect(kept(recent, 1, 50, 51, 250)).toEqual([51, 250]);
  });

  it('make room for a large one, which stays whatever its size', () => {
    const recent = new RecentEntries();
    for (let seq = 1; seq <= 5; seq++) recent.add(entry(seq, 20_000));
    expect(kept(recent, 1, 2, 3, 4, 5)).toEqual([3, 4, 5]);
    recent.add(entry(6, 200_000));
    expect(kept(recent, 3, 4, 5, 6)).toEqual([6]);
    recent.add(entry(7));
    expect(kept(recent, 6, 7)).toEqual([7]);
    recent.clear();
    expect(kept(recent, 7)).toEqual([]);
  });
});
