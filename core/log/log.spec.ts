import { addLogEntry, deleteLogEntry, editLogEntry } from '../commands/log-entries';
import { addMemo } from '../commands/memos';
import { codePlace } from '../commands/passages';
import type { Command } from '../change/command';
import type { JournalEntry } from '../change/journal';
import { logDocx } from '../formats/docx-out/log-docx';
import { readDocx } from '../formats/docx/read-docx';
import { passageCount } from '../passages/columns';
import { Bench } from '../testing/make';
import { dayOf, endOfDay, groupLog, groupSentence, kindOf, numbersBefore, type StudyNumbers } from './group-log';
import { ownEntryTest } from './wish';

describe('the log', () => {
  const bench = new Bench();
  const journal: JournalEntry[] = [];
  const NOON = new Date(2025, 3, 1, 12).getTime();
  const run = (command: Command, minutes: number) => {
    const action = bench.run(command)!;
    journal.unshift({
      seq: journal.length + 1,
      at: NOON + minutes * 60_000,
      coderId: bench.coderId,
      kind: 'act',
      of: null,
      sentence: action.sentence,
      change: action.change,
    });
  };
  const document = bench.addDocument('One', ['We waited at the pier and the boat did not come.']);
  const code = bench.addCode('Waiting');
  const numbers = (): StudyNumbers => {
    const columns = Object.values(bench.state.passages);
    const { tables } = bench.state;
    return {
      documents: Object.keys(tables.document).length,
      codes: Object.keys(tables.code).length,
      memos: Object.keys(tables.memo).length,
      cases: 0,
      passages: columns.reduce((sum, one) => sum + passageCount(one), 0),
      codings: columns.reduce((sum, one) => sum + one.codingRow.length, 0),
    };
  };
  const first = numbers();
  run(codePlace({ documentId: document.id, place: { start: 0, end: 2 }, codeIds: [code] }), 0);
  run(codePlace({ documentId: document.id, place: { start: 3, end: 9 }, codeIds: [], newCodes: [{ name: 'New' }] }), 5);
  run(addMemo({ title: 'm', kind: 'analytic', about: null, text: 'x' }), 6);
  run(codePlace({ documentId: document.id, place: { start: 10, end: 12 }, codeIds: [code] }), 7);
  run(codePlace({ documentId: document.id, place: { start: 13, end: 15 }, codeIds: [code] }), 60 * 24);

  it('gathers the codings of a sitting into a line, and tells other work and other days apart', () => {
    const groups = groupLog(journal);
    expect(groups.map((group) => [group.kind, group.entries.length])).toEqual([
      ['coded', 1],
      ['coded', 1],
      ['memos', 1],
      ['coded', 2],
    ]);
    expect(groupSentence(groups[3]!)).toBe('worked on passages 2 times in 1 document');
    expect(groupSentence(groups[2]!)).toBe('wrote the memo m');
    expect(groupLog(journal.slice(0, 2).map((entry, at) => ({ ...entry, at: NOON - at * 4 * 3_600_000 }))).length).toBe(2);
    expect(dayOf(NOON)).toBe('2025-04-01');
  });

  it('knows kinds of work', () => {
    expect(kindOf({ change: [], sentence: 'exported the codebook as CSV' })).toBe('exports');
    expect(kindOf({ change: [{ type: 'code', before: null, after: bench.state.tables.code[code]! }], sentence: 'x' })).toBe('codebook');
    expect(kindOf({ change: [{ type: 'document', before: null, after: document }], sentence: 'x' })).toBe('material');
    expect(kindOf({ change: [], sentence: 'x' })).toBe('other');
  });

  it('says what the study was at an earlier time', () => {
    expect(numbersBefore(numbers(), journal)).toEqual(first);
    expect(numbersBefore(numbers(), journal.slice(0, 1))).toEqual({
      ...numbers(),
      passages: numbers().passages - 1,
      codings: numbers().codings - 1,
    });
  });

  it('takes the researcher’s own entries, and none that is empty', () => {
    bench.run(addLogEntry('2025-04-01', ' Met with Jon. ', ['meeting', 'meeting']));
    const entry = Object.values(bench.state.tables.logEntry)[0]!;
    expect([entry.text, entry.tags]).toEqual(['Met with Jon.', ['meeting']]);
    bench.run(editLogEntry(entry.id, '2025-04-02', 'Met.', []));
    expect(bench.state.tables.logEntry[entry.id]!.day).toBe('2025-04-02');
    expect(() => addLogEntry('2025-04-01', '  ', [])(bench.state, bench.context())).toThrowError(/nothing written/);
    bench.run(deleteLogEntry(entry.id));
    expect(bench.state.tables.logEntry).toEqual({});
  });

  it('finds own entries by whose they are, from a day on, and by words in any order in text and tags', () => {
    const entry = (day: string, coderId: string, text: string, ...tags: string[]) => ({ id: '', day, coderId, text, tags, createdAt: 0 });
    const entries = [
      entry('2025-04-01', 'ada', 'Met with Jon about the Code “Help”', 'meeting'),
      entry('2025-04-02', 'ben', 'Café: decided to split it', 'decision'),
    ];
    const found = (...asked: Parameters<typeof ownEntryTest>) => entries.filter(ownEntryTest(...asked)).map((one) => one.coderId);
    expect(found({}, '')).toEqual(['ada', 'ben']);
    expect(found({ words: ['help', 'jon', 'meeting'] }, '')).toEqual(['ada']);
    expect(found({ words: ['cafe'] }, '')).toEqual(['ben']);
    expect(found({}, '2025-04-02')).toEqual(['ben']);
    expect(found({ coderId: 'ada', words: ['decided'] }, '')).toEqual([]);
  });

  it('as Word has a heading a day', async () => {
    const rows = [
      { day: '2025-04-01', coder: 'Ada', kind: 'coded', text: 'coded a passage' },
      { day: '2025-04-01', coder: 'Ada', kind: 'own entry', text: 'Met.' },
    ];
    const { paragraphs } = await readDocx(await logDocx('Pier', rows));
    expect(paragraphs.map((paragraph) => paragraph.text)).toEqual(['Pier: log', '2025-04-01', 'Ada coded a passage', 'Ada Met.']);
  });
});

describe('the end of a day', () => {
  it('is the next midnight, whatever the hour, and the beginning of another day', () => {
    for (let day = 0; day < 400; day++) {
      const noon = new Date(2025, 0, 1 + day, 12).getTime();
      const end = endOfDay(noon);
      expect([new Date(end).getHours(), dayOf(end - 1), dayOf(end) > dayOf(noon)]).toEqual([0, dayOf(noon), true]);
      expect(endOfDay(end - 1)).toBe(end);
    }
  });
});
