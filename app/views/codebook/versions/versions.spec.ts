import { TestBed } from '@angular/core/testing';
import { editCode, addCode, moveCode, deleteCode } from '@core/commands/codes';
import type { Command } from '@core/change/command';
import type { JournalEntry } from '@core/change/journal';
import { Bench } from '@core/testing/make';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { PAST } from '../../../testing/past';
import { Versions } from './versions';

const day = (date: number, hour: number): number => new Date(2025, 2, date, hour).getTime();

describe('the codebook then and now', () => {
  let versions: Drawn<Versions>;
  let bench: Bench;
  let journal: JournalEntry[];
  const changed = () =>
    Object.fromEntries(
      versions
        .all('[aria-label="What changed"] h2')
        .map((heading) => [
          heading.firstChild!.textContent!.trim(),
          [...heading.nextElementSibling!.querySelectorAll('li')].map((one) => one.textContent!.replace(/\s+/g, ' ').trim()),
        ]),
    );
  const run = (at: number, command: Command) => {
    const action = bench.run(command)!;
    journal.unshift({ seq: journal.length + 1, at, coderId: bench.coderId, kind: 'act', of: null, ...action });
    return action.change[0]!.after?.id ?? '';
  };

  beforeEach(async () => {
    bench = new Bench();
    journal = [];
    const crossing = run(day(1, 9), addCode({ name: 'Crossing' }));
    const waiting = run(day(1, 10), addCode({ name: 'Waiting' }));
    const gone = run(day(1, 11), addCode({ name: 'Old idea' }));
    run(day(2, 9), editCode(waiting, { name: 'Waiting in company', definition: 'Time at the pier spent with others.' }));
    run(day(2, 10), moveCode(waiting, crossing, 0));
    run(day(3, 9), deleteCode(gone));
    run(day(3, 10), addCode({ name: 'Longing' }));
    versions = await drawn(Versions, bench, {}, [{ provide: PAST, useValue: journal }]);
    await versions.settle();
  });

  it('begins with what changed on the last day on which something did', () => {
    expect(versions.host.textContent).toContain('3 and 3 codes');
    const { added, removed, ...others } = changed();
    expect([added, removed]).toEqual([[jasmine.stringContaining('Longing')], [jasmine.stringContaining('Old idea')]] as never);
    expect(Object.keys(others)).toEqual([]);
  });

  it('compares with any earlier day: renamed, moved and redefined codes say from what', async () => {
    await versions.type('[aria-label="Then"]', String(day(2, 0)), 'change');
    const { renamed, moved, redefined } = changed();
    expect(renamed![0]).toContain('from “Waiting”');
    expect(moved![0]).toContain('from the top to Crossing');
    expect(redefined![0]).toContain('no definition');
    expect(redefined![0]).toContain('Time at the pier');
  });

  it('compares two days of the past', async () => {
    await versions.type('[aria-label="Then"]', String(day(1, 0)), 'change');
    await versions.type('[aria-label="Now"]', String(day(1, 0)), 'change');
    expect(versions.host.textContent).toContain('0 and 3 codes');
    expect(changed()['added']!.length).toBe(3);
  });

  it('says so where nothing was changed yet', async () => {
    TestBed.resetTestingModule();
    versions = await drawn(Versions, new Bench());
    await versions.settle();
    expect(versions.host.textContent).toContain('No changes yet');
  });
});
