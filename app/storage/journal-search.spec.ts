import { fold } from '@core/text/fold';
import { kindOf } from '@core/log/group-log';
import type { JournalEntry } from '@core/change/journal';
import { randomId } from '@core/model/ids';
import { seededRandom } from '@core/sample/large-study';
import { findEntries, type JournalFilter } from './journal-search';
import { LogDigests } from './log-digests';
import { StudyDatabase, toRow } from './study-database';

const TOTAL = 3_000;
const WORDS = ['ferry', 'queue', 'help', 'night', 'fare', 'grief', 'council', 'doors'];

describe('finding in a long journal', () => {
  let db: StudyDatabase;
  let entries: JournalEntry[];

  beforeEach(async () => {
    db = new StudyDatabase(randomId());
    const random = seededRandom(9);
    entries = Array.from({ length: TOTAL }, (_, at) => ({
      seq: at + 1,
      at: 1_000 * (at + 1),
      // one works in the first half only
      coderId: at < TOTAL / 2 && random() < 0.3 ? 'ben' : 'ada',
      kind: 'act' as const,
      of: null,
      sentence: `${at % 700 === 3 ? 'exported' : 'coded'} “${WORDS[Math.floor(random() * 8)]}”${at % 1_100 === 70 ? ' by the lighthouse' : ''}`,
      change: [],
    }));
    await db.journal.bulkAdd(entries.map(toRow));
  });
  afterEach(() => db.delete());

  const FILTERS: readonly JournalFilter[] = [
    {},
    { words: ['lighthouse'] },
    { words: ['ferry'] },
    { words: ['ferry', 'house'] },
    { words: ['nowhere at all'] },
    { words: ['y'] },
    { coderId: 'ben' },
    { kind: 'exports' },
    { coderId: 'ben', words: ['light'], from: 70_000, to: 1_400_000 },
    { kind: 'exports', from: 1_000_000 },
  ];

  /** Everything that a filter finds, page after page. */
  async function all(filter: JournalFilter, limit: number): Promise<number[]> {
    const found: number[] = [];
    for (let before: number | null = TOTAL + 1; before !== null;) {
      const page = await findEntries(db, filter, before, limit);
      found.push(...page.entries.map((entry) => entry.seq));
      before = page.next;
    }
    return found;
  }

  const plainly = (filter: JournalFilter): number[] =>
    entries
      .filter(
        (entry) =>
          (!filter.coderId || entry.coderId === filter.coderId) &&
          (!filter.kind || kindOf(entry) === filter.kind) &&
          (filter.words ?? []).every((word) => fold(entry.sentence).includes(word)) &&
          entry.at >= (filter.from ?? 0) &&
          entry.at < (filter.to ?? Infinity),
      )
      .map((entry) => entry.seq)
      .reverse();

  it('finds what a look at every entry finds: without digests, with some, with all, and after coming back', async () => {
    for (const filter of FILTERS)
      expect(await all(filter, 40))
        .withContext(JSON.stringify(filter))
        .toEqual(plainly(filter));
    await (await LogDigests.of(db)).complete(TOTAL, () => true);
    // 3,000 entries are 23 blocks of 128 and a rest that is not whole yet
    expect(await db.logDigest.count()).toBe(23);
    for (const filter of FILTERS)
      expect(await all(filter, 7))
        .withContext(JSON.stringify(filter))
        .toEqual(plainly(filter));
    const { studyId } = db;
    db.close();
    db = new StudyDatabase(studyId);
    for (const filter of FILTERS)
      expect(await all(filter, 1_000))
        .withContext(JSON.stringify(filter))
        .toEqual(plainly(filter));
  });

  it('does not read blocks in which nothing wanted can be', async () => {
    const digests = await LogDigests.of(db);
    await digests.complete(TOTAL, () => true);
    const stretches = digests.stretchesBefore(TOTAL + 1, Infinity, { words: ['lighthouse'] }, -Infinity);
    // entries 71, 1171 and 2271, and the rest that has no digest
    expect(stretches).toEqual([
      { start: 2_945, end: 3_001 },
      { start: 2_177, end: 2_305 },
      { start: 1_153, end: 1_281 },
      { start: 1, end: 129 },
    ]);
  });

  it('ends a search that is no longer wanted, and says where to go on', async () => {
    const page = await findEntries(db, { words: ['nowhere'] }, TOTAL + 1, 40, () => false);
    expect(page.entries).toEqual([]);
    expect(page.next).toBeGreaterThan(1);
    expect(await all({ words: ['nowhere'] }, 40)).toEqual([]);
  });
});
