import { addCode } from '@core/commands/codes';
import { codePlace } from '@core/commands/passages';
import type { Command } from '@core/change/command';
import type { JournalEntry } from '@core/change/journal';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { PAST } from '../../testing/past';
import { FilesService } from '../../workers/files-service';
import { Log } from './log';

const at = (day: number, hour: number, minute = 0): number => new Date(2025, 2, day, hour, minute).getTime();

describe('the log', () => {
  let log: Drawn<Log>;
  let journal: JournalEntry[];
  const days = () => log.texts('section h2');
  const lines = () => log.texts('ol li').map((one) => one.replace(/^\d\d:\d\d ?/, ''));
  const choose = async (part: string, entry: string) => {
    await log.click(log.button(part));
    await log.click(log.button(entry));
    await log.settle();
  };

  beforeEach(async () => {
    const bench = new Bench();
    journal = [];
    const run = (time: number, command: Command): Id => {
      const action = bench.run(command)!;
      journal.unshift({ seq: journal.length + 1, at: time, coderId: bench.coderId, kind: 'act', of: null, ...action });
      return action.change[0]!.after?.id ?? '';
    };
    const document = bench.addDocument('One', ['We waited at the pier for the boat and it did not come.']);
    const code = run(at(1, 9), addCode({ name: 'Waiting' }));
    for (const [minute, start] of [1, 5, 9].entries())
      run(at(2, 14, minute), codePlace({ documentId: document.id, place: { start, end: start + 3 }, codeIds: [code] }));
    run(at(3, 8), addCode({ name: 'Worry' }));
    log = await drawn(
      Log,
      bench,
      {},
      [
        { provide: FilesService, useValue: {} },
        { provide: PAST, useValue: journal },
      ],
      { width: 1_100, height: 700 },
    );
    for (let turn = 0; turn < 3; turn++) await log.settle();
  });

  it('tells the life of the study by days, the newest first, a sitting of one kind as one line', async () => {
    expect(days()).toEqual(['Monday, 3 March 2025', 'Sunday, 2 March 2025', 'Saturday, 1 March 2025']);
    expect(lines()[0]).toBe('Ada made the code Worry');
    expect(lines().length).toBe(3);
    await log.click(log.all('.group')[0]!);
    expect(log.texts('.inner').length).toBe(3);
    await log.click(log.all('.group')[0]!);
    expect(log.texts('.inner').length).toBe(0);
  });

  it('is narrowed by kind and by words', async () => {
    await choose('of every kind', 'codebook');
    expect(days()).toEqual(['Monday, 3 March 2025', 'Saturday, 1 March 2025']);
    await log.type('[aria-label="Find in the log"]', 'worry');
    await log.settle();
    expect(lines()).toEqual(['Ada made the code Worry']);
    await log.type('[aria-label="Find in the log"]', 'ferry');
    await log.settle();
    expect(log.host.textContent).toContain('Nothing in the log fits.');
  });

  it('takes the researcher’s own entries, among the days and apart', async () => {
    await log.click(log.button('Own entry'));
    await log.type('fl-entry-form textarea', 'Met with Jon about the codebook.');
    await log.type('fl-entry-form input[type=date]', '2025-03-02', 'input');
    log.find('fl-entry-form form').dispatchEvent(new Event('submit', { cancelable: true }));
    for (let turn = 0; turn < 2; turn++) await log.settle();
    expect(log.texts('.own p')[0]).toBe('Met with Jon about the codebook.');
    expect(log.session.sentences.at(-1)).toMatch(/log/);
    await choose('of every kind', 'own entries');
    expect(lines()).toEqual([]);
    expect(log.all('.own').length).toBe(1);
  });
});
