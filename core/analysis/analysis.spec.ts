import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import { correctTexts } from '../commands/correct-text';
import { Bench } from '../testing/make';
import { Analysis, type Told } from './analysis';

describe('the analysis of an open study', () => {
  let bench: Bench;
  let analysis: Analysis;
  /** What the disk has, and how often it was asked. */
  let disk: Map<Id, Text>;
  let reads: number;
  /** Readers that wait for the disk, where it is slow. */
  let waiting: (() => void)[] | null;
  let code: Id;
  /** The number of the request asked last. */
  let asked = 0;
  const scope = () => ({ documentIds: new Set(Object.keys(bench.state.tables.document)), coderId: null });
  const told = (fields: Partial<Told> = {}): Told => ({
    studyId: bench.state.study.id,
    anew: false,
    changed: Object.values(bench.state.passages),
    gone: [],
    tables: bench.state.tables,
    language: 'en',
    texts: [],
    ...fields,
  });
  const words = async () => (await analysis.codeUse(++asked, () => undefined, scope(), true))?.get(code)?.words;

  beforeEach(() => {
    bench = new Bench();
    const document = bench.addDocument('One', ['We waited at the pier all night.']);
    code = bench.addCode('Waiting');
    bench.code(document, 0, 21, code);
    disk = new Map(bench.texts);
    reads = 0;
    waiting = null;
    analysis = new Analysis(async (_, ids) => {
      reads++;
      const queue = waiting;
      if (queue) await new Promise<void>((resolve) => queue.push(resolve));
      return ids.flatMap((id) => disk.get(id) ?? []);
    });
    analysis.update(told());
  });

  it('counts words of texts from disk, and reads each once', async () => {
    expect(await words()).toBe(5);
    expect(await words()).toBe(5);
    expect(reads).toBe(1);
  });

  it('never reads a text older than the study it was told of', async () => {
    await words();
    const [text] = [...bench.texts.values()];
    const action = bench.do(correctTexts([{ text: text!, edits: [{ from: 3, to: 9, insert: 'stood and waited' }] }]))!;
    const change = action.change.find((one) => one.type === 'text')!;
    // the disk still has the text before, and another document is told meanwhile
    analysis.update(told({ texts: [change.after as Text] }));
    expect(await words()).toBe(7);
    analysis.update(told());
    expect(await words()).toBe(7);
    // read anew, the disk is what counts
    analysis.update(told({ anew: true }));
    await words();
    expect(reads).toBe(2);
  });

  it('ends an older question of a kind when a newer one comes', async () => {
    const queue: (() => void)[] = [];
    waiting = queue;
    const older = words();
    const newer = words();
    for (const release of queue) release();
    expect(await older).toBeUndefined();
    expect(await newer).toBe(5);
  });

  it('ends a question by its number', async () => {
    const queue: (() => void)[] = [];
    waiting = queue;
    const ended = words();
    analysis.end(asked);
    for (const release of queue) release();
    expect(await ended).toBeUndefined();
  });

  it('forgets one study for another', async () => {
    await words();
    const codes = { codeIds: [code], setIds: [], withUnder: false };
    const question = { all: [{ carries: 'any' as const, codes, reach: 'passage' as const }] };
    const order = Object.keys(bench.state.tables.document);
    const hits = async () => (await analysis.ask(++asked, () => undefined, question, scope(), scope(), order))?.hits.length;
    expect(await hits()).toBe(1);
    analysis.update(told({ studyId: bench.newId(), changed: [], tables: { document: {} } }));
    expect(await hits()).toBe(0);
    expect(await words()).toBeUndefined();
  });
});
