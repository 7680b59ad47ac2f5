import { EVERYTHING } from '../model/scope';
import { Bench } from '../testing/make';
import { HeldStudy } from './held-study';
import type { Told } from './messages';

describe('the study as the analysis holds it', () => {
  const bench = new Bench();
  const document = bench.addDocument('One', ['We waited for the boat.']);
  const told = (change: Partial<Told>): Told => ({
    ...{ studyId: bench.state.study.id, anew: false, changed: [], gone: [], tables: {}, language: 'en', texts: [] },
    ...change,
  });

  it('keeps what was worked out as long as only passages change', () => {
    const held = new HeldStudy(() => Promise.resolve([]));
    held.update(told({ anew: true, tables: bench.state.tables }));
    const [tables, narrowing] = [held.tables, held.narrowingTo(EVERYTHING)];
    bench.code(document, 0, 9, bench.addCode('Waiting'));
    held.update(told({ changed: Object.values(bench.state.passages) }));
    expect(held.tables).toBe(tables);
    expect(held.narrowingTo(EVERYTHING)).toBe(narrowing);
    held.update(told({ tables: { code: bench.state.tables.code } }));
    expect(held.tables).not.toBe(tables);
    expect(held.narrowingTo(EVERYTHING)).not.toBe(narrowing);
  });

  it('reads a text anew from the disk when its document has other words, and takes what it is told before that', async () => {
    const read: string[] = [];
    const text = bench.texts.get(document.id)!;
    const held = new HeldStudy((_, ids) => {
      read.push(...ids);
      return Promise.resolve([text]);
    });
    held.update(told({ anew: true, tables: bench.state.tables }));
    await held.textsOf([document.id]);
    await held.textsOf([document.id]);
    expect(read.length).toBe(1);
    held.update(told({ tables: { document: { [document.id]: { ...document, words: 4 } } } }));
    await held.textsOf([document.id]);
    expect(read.length).toBe(2);
    const ahead = { ...text, text: 'We waited.' };
    held.update(told({ texts: [ahead] }));
    expect((await held.textsOf([document.id])).get(document.id)).toBe(ahead);
    expect(read.length).toBe(2);
  });
});
