import { Bench } from '../testing/make';
import { unpackPassages } from '../passages/columns';
import { CommandError } from '../change/command';
import { childrenOf, withDescendants } from '../codebook/tree';
import { addCode, deleteCode, deletionToll, editCode, moveCode } from './codes';
import { addDocuments, deleteDocuments, documentToll, removeFolder, addFolder, editDocument } from './documents';
import { addMemo, addMemoEntry, editMemo, editMemoEntry } from './memos';
import { codePlace, removeCoding, removeCodings, setComment } from './passages';
import { saveQuery } from './queries';
import { noteExport, workAs } from './study';

const passages = (bench: Bench) => Object.values(bench.state.passages).flatMap(unpackPassages);

describe('coding a place', () => {
  let bench: Bench;
  let document: ReturnType<Bench['addDocument']>;

  beforeEach(() => {
    bench = new Bench();
    document = bench.addDocument('Interview 01', ['Nobody asked us, we were told.']);
  });

  it('makes a passage, adds codes to it at the same place, and gives none twice', () => {
    const [a, b] = [bench.addCode('A'), bench.addCode('B')];
    bench.code(document, 0, 6, a);
    bench.code(document, 0, 6, b, a);
    expect(passages(bench).length).toBe(1);
    expect(passages(bench)[0]!.codings.map((coding) => coding.codeId)).toEqual([a, b]);
    expect(bench.run(codePlace({ documentId: document.id, place: { start: 0, end: 6 }, codeIds: [a] }))).toBeNull();
  });

  it('keeps another coder’s passage at the same place apart', () => {
    const a = bench.addCode('A');
    bench.code(document, 0, 6, a);
    bench.run(workAs('Jon'));
    bench.run(codePlace({ documentId: document.id, place: { start: 0, end: 6 }, codeIds: [a] }), bench.state.study.currentCoderId);
    expect(passages(bench).map((passage) => passage.coderId)).toEqual(
      jasmine.arrayWithExactContents([bench.coderId, bench.state.study.currentCoderId]),
    );
  });

  it('makes new codes in the same step', () => {
    const action = bench.run(
      codePlace({ documentId: document.id, place: { start: 0, end: 6 }, codeIds: [], newCodes: [{ name: 'Being asked' }] }),
    )!;
    expect(action.change.map((change) => change.type)).toEqual(['code', 'passage']);
    expect(action.sentence).toBe('coded a passage in Interview 01 with Being asked');
  });

  it('refuses a place outside the text', () => {
    for (const place of [
      { start: 0, end: 99 },
      { start: 5, end: 5 },
      { start: -1, end: 3 },
    ]) {
      expect(() => bench.run(codePlace({ documentId: document.id, place, codeIds: [] }))).toThrowError(CommandError);
    }
  });

  it('takes the passage away with its last code, unless a comment or a memo keeps it', () => {
    const a = bench.addCode('A');
    bench.code(document, 0, 6, a);
    bench.code(document, 7, 12, a);
    const [first, second] = passages(bench);
    bench.run(setComment(document.id, second!.id, ' really? '));
    bench.run(removeCoding(document.id, first!.id, a));
    bench.run(removeCoding(document.id, second!.id, a));
    expect(passages(bench).map((passage) => passage.comment)).toEqual(['really?']);
    bench.run(setComment(document.id, second!.id, ''));
    expect(passages(bench)).toEqual([]);
  });

  it('takes some codings off and leaves the others, and nothing where none of them is there', () => {
    const [a, b] = [bench.addCode('A'), bench.addCode('B')];
    bench.code(document, 0, 6, a);
    bench.code(document, 0, 6, b);
    const [passage] = passages(bench);
    const [first] = passage!.codings;
    expect(bench.run(removeCodings(document.id, passage!.id, [{ codeId: a, coderId: 'somebody else' }]))).toBeNull();
    expect(bench.run(removeCodings(document.id, passage!.id, [first!]))!.sentence).toBe('took 1 coding off a passage in Interview 01');
    expect(passages(bench)[0]!.codings.map((coding) => coding.codeId)).toEqual([b]);
    bench.run(removeCodings(document.id, passage!.id, passages(bench)[0]!.codings));
    expect(passages(bench)).toEqual([]);
  });
});

describe('codes', () => {
  let bench: Bench;
  beforeEach(() => (bench = new Bench()));

  it('need a name that their category does not have yet', () => {
    const top = bench.addCode('Worry');
    expect(() => bench.run(addCode({ name: '  ' }))).toThrowError(CommandError, /needs a name/);
    expect(() => bench.run(addCode({ name: 'worry' }))).toThrowError(CommandError, /already a code “Worry”/);
    expect(() => bench.addCode('Worry', top)).not.toThrow();
  });

  it('get marks and colours that differ, in the family of their category', () => {
    const top = bench.addCode('Feelings');
    const other = bench.addCode('Fear');
    const child = bench.addCode('Fury', top);
    const code = (id: string) => bench.state.tables.code[id]!;
    expect(new Set([top, other, child].map((id) => code(id).mark)).size).toBe(3);
    expect(Math.floor(code(child).colour / 5)).toBe(Math.floor(code(top).colour / 5));
    expect(Math.floor(code(other).colour / 5)).not.toBe(Math.floor(code(top).colour / 5));
  });

  it('move among siblings and under others, but never under themselves', () => {
    const [a, b, c] = ['A', 'B', 'C'].map((name) => bench.addCode(name)) as [string, string, string];
    bench.run(moveCode(c, null, 0));
    expect(childrenOf(bench.state.tables.code, null).map((code) => code.name)).toEqual(['C', 'A', 'B']);
    bench.run(moveCode(b, a, 0));
    expect(withDescendants(bench.state.tables.code, a)).toEqual([a, b]);
    expect(() => bench.run(moveCode(a, b, 0))).toThrowError(CommandError, /under itself/);
    expect(bench.run(moveCode(b, a, 0))).toBeNull();
  });

  it('stay in order when squeezed between the same two a hundred times', () => {
    const [first, second] = [bench.addCode('First'), bench.addCode('Second')];
    const movers = ['x', 'y'].map((name) => bench.addCode(name));
    for (let at = 0; at < 100; at++) bench.run(moveCode(movers[at % 2]!, null, 1));
    const order = childrenOf(bench.state.tables.code, null).map((code) => code.id);
    expect(order).toEqual([first, movers[1]!, movers[0]!, second]);
  });

  it('say what deleting takes away, and take exactly that', () => {
    const document = bench.addDocument('One', ['Some words that are coded twice.']);
    const top = bench.addCode('Top');
    const under = bench.addCode('Under', top);
    const other = bench.addCode('Other');
    bench.code(document, 0, 4, under);
    bench.code(document, 5, 10, top, other);
    bench.run(addMemo({ title: 'On top', kind: 'theory', about: { type: 'code', id: top }, text: 'x' }));
    const both = { carries: 'all' as const, codes: { codeIds: [top, other], setIds: [], withUnder: false }, reach: 'passage' as const };
    bench.run(saveQuery('Both', { all: [both] }));
    expect(deletionToll(bench.state, top)).toEqual({ codes: 2, codings: 2, passages: 1, documents: 1 });
    const action = bench.run(deleteCode(top))!;
    expect(action.sentence).toBe('deleted the code Top and 1 code under it, with 2 codings');
    expect(Object.keys(bench.state.tables.code)).toEqual([other]);
    expect(passages(bench).map((passage) => passage.codings.map((coding) => coding.codeId))).toEqual([[other]]);
    expect(Object.values(bench.state.tables.memo)[0]!.about).toBeNull();
    // it still asks for both, and says by name what is gone: without it, it would find more than was asked for
    expect(Object.values(bench.state.tables.query)[0]!.question).toEqual({ all: [both], gone: { [top]: 'Top' } });
  });

  it('are renamed with a sentence that says so, and keep a mark of one to three letters', () => {
    const id = bench.addCode('Wory');
    expect(bench.run(editCode(id, { name: 'Worry' }))!.sentence).toBe('renamed the code Wory to Worry');
    bench.run(editCode(id, { mark: 'WORRIED' }));
    expect(bench.state.tables.code[id]!.mark).toBe('WOR');
    expect(bench.run(editCode(id, { name: 'Worry' }))).toBeNull();
  });
});

describe('documents', () => {
  it('come in with their texts and go with their passages, memos staying', () => {
    const bench = new Bench();
    const kept = bench.addDocument('Kept', ['Words.']);
    const text = { ...bench.texts.get(kept.id)!, id: bench.newId() };
    const document = { ...kept, id: text.id, title: 'New' };
    expect(bench.run(addDocuments([{ document, text }]))!.sentence).toBe('brought in New');
    bench.code(document, 0, 5, bench.addCode('A'));
    bench.run(addMemo({ title: 'On it', kind: 'method', about: { type: 'document', id: document.id }, text: '' }));
    expect(documentToll(bench.state, [document.id])).toEqual({ documents: 1, passages: 1, codings: 1 });
    bench.run(deleteDocuments([text.id], [text]));
    expect(Object.keys(bench.state.tables.document)).toEqual([kept.id]);
    expect(bench.state.passages[document.id]).toBeUndefined();
    expect(Object.values(bench.state.tables.memo)[0]!.about).toBeNull();
  });

  it('move up when their folder is taken away', () => {
    const bench = new Bench();
    const outer = bench.run(addFolder('Outer'))!.change[0]!.after!.id;
    const inner = bench.run(addFolder('Inner', outer))!.change[0]!.after!.id;
    const document = bench.addDocument('One', ['Words.']);
    bench.run(editDocument(document.id, { folderId: inner }));
    bench.run(removeFolder(inner));
    expect(bench.state.tables.document[document.id]!.folderId).toBe(outer);
  });
});

describe('memos', () => {
  it('keep the date of an entry that is corrected, and lose one that is emptied', () => {
    const bench = new Bench();
    const id = bench.run(addMemo({ title: 'Thought', kind: 'analytic', about: null, text: 'Firts.' }))!.change[0]!.after!.id;
    bench.run(addMemoEntry(id, 'Second.'));
    const [first] = bench.state.tables.memo[id]!.entries;
    bench.run(editMemoEntry(id, first!.id, 'First.'));
    expect(bench.state.tables.memo[id]!.entries[0]).toEqual({ ...first!, text: 'First.' });
    bench.run(editMemoEntry(id, first!.id, ' '));
    expect(bench.state.tables.memo[id]!.entries.map((entry) => entry.text)).toEqual(['Second.']);
    expect(() => bench.run(editMemo(id, { title: '' }))).toThrowError(CommandError);
  });
});

describe('the study', () => {
  it('makes a new coder once and hands over to a known one', () => {
    const bench = new Bench();
    bench.run(workAs('Jon'));
    bench.run(workAs('Ada'));
    bench.run(workAs('Jon'));
    expect(Object.values(bench.state.tables.coder).map((coder) => coder.name)).toEqual(['Ada', 'Jon']);
    expect(bench.run(workAs('Jon'))).toBeNull();
  });

  it('logs an export as a note, which undo passes over', () => {
    expect(new Bench().run(noteExport('the codebook as CSV'))).toEqual({
      change: [],
      sentence: 'exported the codebook as CSV',
      isNote: true,
    });
  });
});
