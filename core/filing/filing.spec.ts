import { readFileSync } from 'node:fs';
import { EMPTY_HISTORY } from '../change/journal';
import type { StudyBundle } from '../formats/study-file/bundle';
import { writeStudyFile } from '../formats/study-file/write-study-file';
import type { TableChoices } from '../material/plan-table';
import { randomId } from '../model/ids';
import { checkStudy } from '../integrity/check-study';
import { demoSources } from '../testing/demo-sources';
import { Bench } from '../testing/make';
import { MemoryShelf } from '../testing/shelf';
import { Filing } from './filing';
import { readMaterial } from './read-material';

const PLAIN = { speakers: {}, nobody: [], markers: null };

describe('work on files', () => {
  let shelf: MemoryShelf;
  let filing: Filing;
  let bundle: StudyBundle;
  let number = 0;
  const read = (key: number, name: string, content: string) => readMaterial(key, name, new Blob([content]), {}, filing);
  const place = () => {
    const { state, history } = shelf.studies.get(bundle.state.study.id)!;
    return { studyId: state.study.id, seq: history.seq + 1, coderId: state.study.currentCoderId, now: 5_000 };
  };
  const document = (title: string) =>
    ({ id: randomId(), title, kind: 'interview', date: null, folderId: null, values: {}, source: null }) as const;
  const stored = () => shelf.studies.get(bundle.state.study.id)!;

  beforeEach(async () => {
    const bench = new Bench();
    bundle = { state: bench.state, texts: bench.texts, media: bench.media, journal: [], history: EMPTY_HISTORY };
    shelf = new MemoryShelf();
    await shelf.add(bundle);
    const sources = demoSources();
    filing = new Filing(shelf, {
      texts: () => Promise.resolve(sources),
      media: (path) => Promise.resolve(new Blob([readFileSync(`demo/${path}`)])),
    });
  });

  it('keeps what was read until it is stored or let go', async () => {
    expect(await read(1, 'one.txt', 'Shona: They held the boat.\nShona: Twice.')).toEqual(
      jasmine.objectContaining({ text: jasmine.objectContaining({ total: 2 }) }),
    );
    expect(filing.preview(1, PLAIN, 10)!.paragraphs.length).toBe(2);
    expect(filing.words(1, PLAIN)).toContain('They held the boat.');
    filing.forget([1]);
    expect(filing.preview(1, PLAIN, 10)).toBeNull();
    expect(await read(2, 'broken.docx', 'not a Word file')).toEqual(jasmine.objectContaining({ trouble: jasmine.any(String) }));
  });

  it('stores texts as one entry, and tells its records a part at a time, without the new texts', async () => {
    const items = [];
    for (let key = 0; key < 800; key++) {
      await read(key, `${key}.txt`, `Words of ${key}.`);
      items.push({ key, document: document(`Interview ${key}`), choices: PLAIN, questionIds: [] });
    }
    const entry = await filing.storeMaterial(place(), items, [], [], 'brought in 800 documents');
    expect([entry.change, entry.sentence]).toEqual([[], 'brought in 800 documents']);
    const parts = [filing.takeStored(), filing.takeStored(), filing.takeStored()];
    expect(parts.map((one) => one.length)).toEqual([700, 100, 0]);
    expect(parts.flat().every((one) => one.type === 'document')).toBeTrue();
    const { state, texts, journal } = stored();
    expect([journal.length, texts.size, checkStudy(state, texts)]).toEqual([1, 800, []]);
    expect(shelf.taken).toBe(0);
  });

  it('stores nothing of an entry with a value that no schema allows', async () => {
    await read(1, 'one.txt', 'Words.');
    const item = { key: 1, document: document('x'.repeat(501)), choices: PLAIN, questionIds: [] };
    await expectAsync(filing.storeMaterial(place(), [item], [], [], 'brought in')).toBeRejectedWithError(/longer than 500/);
    expect(stored().journal).toEqual([]);
  });

  it('plans a table, says what is wrong with one, and stores it as planned', async () => {
    const outcome = await read(1, 'table.csv', 'id,age,Why?\nR1,44,The boat.\nR2,nine,The pier.');
    const columns = 'table' in outcome ? outcome.table.asDocuments : [];
    const choices: TableChoices = {
      columns,
      rowsBecome: 'a document each',
      kind: 'survey answers',
      folderId: null,
      source: null,
      keep: new Set(),
    };
    const nobody = columns.map((column) => ({ ...column, role: 'ignored' as const }));
    expect(await filing.plan(1, { ...choices, columns: nobody }, bundle.state, bundle.history.seq)).toEqual({
      trouble: jasmine.stringContaining('No column says who or what a row is about') as unknown as string,
    });
    expect(await filing.plan(1, choices, bundle.state, bundle.history.seq)).toEqual(jasmine.objectContaining({ change: [], known: [] }));
    await filing.storeTable(place(), 1, choices, bundle.state, 'brought in a table');
    expect(stored().texts.size).toBe(2);
    // the same rows once more, one of them with another answer
    await read(2, 'table.csv', 'id,age,Why?\nR1,44,The old boat.\nR2,nine,The pier.');
    const entry = await filing.storeTable(place(), 2, choices, stored().state, 'brought in a table');
    expect([entry.sentence, filing.answersUpdated()]).toEqual(['brought in a table, and updated 1 answer', 1]);
    expect([...stored().texts.values()].some((text) => text.text.includes('The old boat.'))).toBeTrue();
    expect([checkStudy(stored().state, stored().texts), shelf.taken]).toEqual([[], 0]);
  });

  it('says where there is no such study', async () => {
    const elsewhere = { ...place(), studyId: randomId() };
    await expectAsync(filing.storeMaterial(elsewhere, [], [], [], 'nothing')).toBeRejectedWithError(/not in this browser/);
  });

  it('opens a study file onto the shelf, or beside the study that is there', async () => {
    const file = await writeStudyFile(bundle, 0);
    const { id, title } = bundle.state.study;
    expect(await filing.openStudyFile(++number, () => undefined, file, 'ask')).toEqual({ alreadyHere: id, title });
    const copy = await filing.openStudyFile(++number, () => undefined, file, 'copy');
    expect([...(await shelf.titles())]).toEqual([title, `${title} (copy)`]);
    expect(copy).toEqual({ opened: [...shelf.studies.keys()][1]! });
    const letter = await filing.openStudyFile(++number, () => undefined, new Blob(['Dear Sir']), 'ask');
    expect(letter).toEqual({ trouble: jasmine.stringContaining('not a zip archive') as unknown as string });
  });

  it('writes what opens again to the same, and tells how far it is', async () => {
    const told: number[] = [];
    const written = await filing.writeStudyFile(++number, (share) => void told.push(share), bundle.state.study.id, {});
    expect(told.at(-1)).toBe(1);
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect([written!.through, shelf.taken]).toEqual([0, 0]);
    shelf.studies.clear();
    await filing.openStudyFile(++number, () => undefined, written!.file, 'ask');
    expect(stored()).toEqual(bundle);
  });

  it('stores nothing of what was stopped, and writes nothing', async () => {
    await filing.openDemo();
    const [demo] = [...shelf.studies.values()].slice(-1);
    const id = demo!.state.study.id;
    // ended while it tells how far it is: as somebody would who sees it
    const stop = (): void => filing.end(number);
    expect(await filing.writeStudyFile(++number, stop, id, {})).toBeNull();
    expect(shelf.taken).toBe(0);
    const file = await writeStudyFile(demo!, 0);
    shelf.studies.delete(id);
    expect(await filing.openStudyFile(++number, stop, file, 'ask')).toBeNull();
    expect(shelf.studies.has(id)).toBeFalse();
  });

  it('builds the demo study once', async () => {
    const id = await filing.openDemo();
    const built = shelf.studies.get(id);
    expect(await filing.openDemo()).toBe(id);
    expect(shelf.studies.get(id)).toBe(built);
  });
});
