import { rowsOf, type Area } from '../model/area';
import { unpackPassages } from '../passages/columns';
import { invert } from '../change/change';
import { applyChange } from '../change/apply';
import { Bench } from '../testing/make';
import { ownStretch, addCase } from './cases';
import { addDocuments, belongTo, deleteDocuments, markRead, setUnits } from './documents';
import { codePlace } from './passages';
import { movePassage } from './reshape-passages';
import { joinDocuments, splitDocument } from './split-join';

const box = (x: number, y: number, width: number, height: number): Area => ({ shape: 'rectangle', x, y, width, height });
const placed = (area: Area) => ({ ...rowsOf(area), area });

function make() {
  const bench = new Bench();
  const code = bench.addCode('Loss');
  const tape = bench.record('Ferry horn', 10_000);
  const plan = bench.draw('Plan of the pier', 40, 30);
  const words = bench.addDocument('Transcript', ['The horn.', 'Then nothing.']);
  const passages = (id: string) => (bench.state.passages[id] ? unpackPassages(bench.state.passages[id]) : []);
  const belongs = (id: string) => bench.state.tables.document[id]!.belongsTo;
  return { bench, code, tape, plan, words, passages, belongs };
}

describe('documents of other grounds than a text', () => {
  it('are coded over spans and areas, which are taken back and done again', () => {
    const { bench, code, tape, plan, passages } = make();
    const empty = bench.state;
    const spans = bench.run(codePlace({ documentId: tape.id, place: { start: 100, end: 900 }, codeIds: [code] }))!;
    expect(bench.run(codePlace({ documentId: tape.id, place: { start: 100, end: 900 }, codeIds: [code] }))).toBeNull();
    bench.run(codePlace({ documentId: plan.id, place: placed(box(2, 3, 10, 5)), codeIds: [code] }));
    // another shape over the very same pixels is the same passage
    const corners = [
      { x: 2, y: 3 },
      { x: 12, y: 3 },
      { x: 12, y: 8 },
      { x: 2, y: 8 },
    ];
    expect(bench.run(codePlace({ documentId: plan.id, place: placed({ shape: 'polygon', corners }), codeIds: [code] }))).toBeNull();
    expect(passages(tape.id).map((one) => [one.start, one.end, one.area])).toEqual([[100, 900, undefined]]);
    expect(passages(plan.id).map((one) => [one.start, one.end, one.area])).toEqual([[3, 8, box(2, 3, 10, 5)]]);
    expect(bench.state.passages[plan.id]!.ground).toBe('picture');
    const [area] = passages(plan.id);
    bench.run(movePassage(plan.id, area!.id, placed(box(4, 3, 10, 5))));
    expect(passages(plan.id).map((one) => [one.id, one.area])).toEqual([[area!.id, box(4, 3, 10, 5)]]);
    expect(applyChange({ ...empty, passages: { [tape.id]: bench.state.passages[tape.id]! } }, invert(spans.change)).passages).toEqual({});
  });

  it('refuse what has no meaning for them', () => {
    const { bench, code, tape, plan } = make();
    const refused = (command: Parameters<typeof bench.run>[0], why: RegExp) => expect(() => bench.run(command)).toThrowError(why);
    refused(codePlace({ documentId: tape.id, place: { start: 0, end: 10_001 }, codeIds: [code] }), /outside the recording/);
    refused(codePlace({ documentId: plan.id, place: { start: 0, end: 5 }, codeIds: [code] }), /outside the picture/);
    refused(codePlace({ documentId: tape.id, place: placed(box(0, 0, 5, 5)), codeIds: [code] }), /outside the recording/);
    refused(markRead(plan.id, 5), /cannot be read up to a place/);
    refused(setUnits(tape.id, [0, 5]), /no text/);
    bench.run(addCase('Shona'));
    const [caseId] = Object.keys(bench.state.tables.case);
    refused(ownStretch(caseId!, { documentId: plan.id, start: 0, end: 5 }, true), /words that belong/);
    bench.run(markRead(tape.id, 99_999));
    expect(bench.state.tables.document[tape.id]!.readTo).toBe(10_000);
  });

  it('come with a text where they have one, and only then', () => {
    const { bench, tape, words } = make();
    const text = bench.texts.get(words.id)!;
    const fresh = { ...words, id: bench.newId() };
    expect(() => bench.run(addDocuments([{ document: fresh, text: null }]))).toThrowError(/without what it consists of/);
    expect(() => bench.run(addDocuments([{ document: { ...tape, id: fresh.id }, text: { ...text, id: fresh.id } }]))).toThrowError(
      /without/,
    );
    expect(() => bench.run(deleteDocuments([words.id], []))).toThrowError(/could not be read/);
    bench.run(deleteDocuments([tape.id], []));
    expect(bench.state.tables.document[tape.id]).toBeUndefined();
  });
});

describe('what a document belongs to', () => {
  it('is one thing that belongs to nothing itself', () => {
    const { bench, tape, plan, words, belongs } = make();
    bench.run(belongTo([words.id], tape.id));
    expect(belongs(words.id)).toBe(tape.id);
    expect(bench.run(belongTo([words.id], tape.id))).toBeNull();
    expect(() => bench.run(belongTo([plan.id], words.id))).toThrowError(/belongs to Ferry horn itself/);
    expect(() => bench.run(belongTo([tape.id], plan.id))).toThrowError(/must stand by itself/);
    expect(() => bench.run(belongTo([plan.id], plan.id))).toThrowError(/to itself/);
    bench.run(belongTo([words.id], null));
    expect(belongs(words.id)).toBeUndefined();
  });

  it('goes without taking anything with it', () => {
    const { bench, tape, words, belongs } = make();
    bench.run(belongTo([words.id], tape.id));
    bench.run(deleteDocuments([tape.id], []));
    expect(belongs(words.id)).toBeUndefined();
  });

  it('is the same for both parts of a document that is divided, and for two that are put together', () => {
    const { bench, tape, plan, words, belongs } = make();
    const text = () => bench.texts.get(words.id)!;
    bench.run(belongTo([words.id], tape.id));
    bench.do(splitDocument(text(), text().text.indexOf('Then'), 'Rest'));
    const rest = Object.values(bench.state.tables.document).find((one) => one.title === 'Rest')!;
    expect([belongs(words.id), belongs(rest.id)]).toEqual([tape.id, tape.id]);
    bench.run(belongTo([rest.id], plan.id));
    expect(() => bench.run(joinDocuments(text(), bench.texts.get(rest.id)!))).toThrowError(/different documents/);
    bench.run(belongTo([words.id], null));
    bench.do(joinDocuments(text(), bench.texts.get(rest.id)!));
    expect(belongs(words.id)).toBe(plan.id);
  });

  it('put together with what belongs to it belongs to nothing', () => {
    for (const first of [true, false]) {
      const { bench, words, belongs } = make();
      const other = bench.addDocument('Translation', ['La corne.']);
      bench.run(belongTo([first ? words.id : other.id], first ? other.id : words.id));
      bench.do(joinDocuments(bench.texts.get(words.id)!, bench.texts.get(other.id)!));
      expect(belongs(words.id)).withContext(String(first)).toBeUndefined();
    }
  });
});
