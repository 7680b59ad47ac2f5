import { checkStudy } from '../integrity/check-study';
import { applyChange } from '../change/apply';
import { invert } from '../change/change';
import { CommandError } from '../change/command';
import { Bench } from '../testing/make';
import { correctTexts } from './correct-text';
import { markRead, setUnits } from './documents';
import { codePlaces } from './passages';
import { joinDocuments, splitDocument } from './split-join';
import { useRatings } from './study';

const LINES = ['I sold the boat. It was old.', 'Then I left.', 'For good.'];

describe('what is noted while reading', () => {
  function study() {
    const bench = new Bench();
    const document = bench.addDocument('Interview', LINES);
    const now = (id = document.id) => bench.state.tables.document[id]!;
    const keep = (change: readonly { type: string; after: unknown }[]) => {
      for (const one of change) if (one.type === 'text' && one.after) bench.texts.set((one.after as { id: string }).id, one.after as never);
    };
    return { bench, document, now, keep };
  }

  it('is how far a document is read, and can be taken back', () => {
    const { bench, document, now } = study();
    expect(bench.run(markRead(document.id, 28))!.sentence).toContain('up to 55 %');
    expect(now().readTo).toBe(28);
    bench.run(markRead(document.id, 9_999));
    expect(now().readTo).toBe(document.characters);
    const done = bench.run(markRead(document.id, null))!;
    expect('readTo' in now()).toBeFalse();
    expect(applyChange(bench.state, invert(done.change)).tables.document[document.id]!.readTo).toBe(document.characters);
    expect(bench.run(markRead(document.id, null))).toBeNull();
  });

  it('moves with the words when the text is corrected, divided and joined', () => {
    const { bench, document, now, keep } = study();
    const third = bench.texts.get(document.id)!.text.indexOf('For good');
    bench.run(markRead(document.id, third));
    bench.run(setUnits(document.id, [0, 17, third]));
    const edits = [{ from: 0, to: 0, insert: 'Well. ' }];
    keep(bench.run(correctTexts([{ text: bench.texts.get(document.id)!, edits }]))!.change);
    expect([now().readTo, now().units]).toEqual([third + 6, [0, 23, third + 6]]);
    expect(checkStudy(bench.state, bench.texts)).toEqual([]);
    const cut = third + 6;
    keep(bench.run(splitDocument(bench.texts.get(document.id)!, cut, 'Second part'))!.change);
    const second = Object.values(bench.state.tables.document).find((one) => one.id !== document.id)!;
    expect([now().readTo, now().units, second.readTo, second.units]).toEqual([cut - 1, [0, 23], 0, [0]]);
    expect(checkStudy(bench.state, bench.texts)).toEqual([]);
    keep(bench.run(joinDocuments(bench.texts.get(document.id)!, bench.texts.get(second.id)!))!.change);
    expect(now().units).toEqual([0, 23, cut]);
    expect(checkStudy(bench.state, bench.texts)).toEqual([]);
  });

  it('is where idea-units begin, with what was done in the log', () => {
    const { bench, document } = study();
    const said = [[0, 17], [0, 17, 29], [0, 29], null].map((starts) => bench.run(setUnits(document.id, starts))!.sentence);
    expect(said.map((one) => one.split(' ')[0])).toEqual(['began', 'divided', 'joined', 'put']);
  });

  it('is a rating where the study wants it, within sense', () => {
    const { bench } = study();
    bench.run(useRatings(5));
    expect(bench.state.study.ratings).toBe(5);
    expect(bench.run(useRatings(5))).toBeNull();
    for (const wrong of [1, 11, 2.5]) expect(() => bench.run(useRatings(wrong))).toThrowError(CommandError);
    bench.run(useRatings(null));
    expect('ratings' in bench.state.study).toBeFalse();
  });

  it('is one code on many places in one step, each place once', () => {
    const { bench, document } = study();
    const places = [
      { start: 0, end: 16 },
      { start: 17, end: 28 },
      { start: 0, end: 16 },
    ];
    const done = bench.run(codePlaces({ documentId: document.id, places, codeIds: [], newCodes: [{ name: 'boats' }] }))!;
    expect(done.change.map((one) => one.type)).toEqual(['code', 'passage', 'passage']);
    const [code] = Object.values(bench.state.tables.code);
    expect(bench.run(codePlaces({ documentId: document.id, places, codeIds: [code!.id] }))).toBeNull();
    expect(() => bench.run(codePlaces({ documentId: document.id, places: [{ start: 0, end: 999 }], codeIds: [code!.id] }))).toThrowError(
      CommandError,
    );
  });
});
