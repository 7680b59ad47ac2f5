import { checkStudy } from '../integrity/check-study';
import { subjectsOf } from '../memos/references';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { Memo, MemoSubject } from '../model/memo';
import { unpackPassages } from '../passages/columns';
import { Bench } from '../testing/make';
import { addCase, deleteCases, ownStretch } from './cases';
import { deleteCodes } from './codes';
import { correctTexts } from './correct-text';
import { deleteDocuments } from './documents';
import { addMemo, linkMemo } from './memos';
import { removeCoding, removePassage } from './passages';
import { joinDocuments, splitDocument } from './split-join';

describe('a memo about several things', () => {
  let bench: Bench;
  let one: Document;
  let two: Document;
  let memoId: Id;
  const memo = (): Memo => bench.state.tables.memo[memoId]!;
  const linksOf = (): string[] =>
    subjectsOf(memo()).map((subject) => `${subject.type} ${subject.type === 'passage' ? wordsOf(subject) : ''}`);
  const wordsOf = (subject: Extract<MemoSubject, { type: 'passage' }>): string => {
    const found = unpackPassages(bench.state.passages[subject.documentId]!).find((row) => row.id === subject.id);
    return found ? bench.texts.get(subject.documentId)!.text.slice(found.start, found.end) : 'gone';
  };
  const passageIn = (document: Document): MemoSubject & { readonly type: 'passage' } => ({
    type: 'passage',
    id: unpackPassages(bench.state.passages[document.id]!)[0]!.id,
    documentId: document.id,
  });
  /** Runs a command and keeps the texts that come of it. */
  const run = (command: Parameters<Bench['run']>[0]): void => {
    for (const change of bench.run(command)?.change ?? [])
      if (change.type === 'text' && change.after) bench.texts.set(change.after.id, change.after);
  };

  beforeEach(() => {
    bench = new Bench();
    one = bench.addDocument('One', ['The boat waits.', 'The queue grows.']);
    two = bench.addDocument('Two', ['The fare rises.']);
    const code = bench.addCode('Waiting');
    bench.code(one, 20, 25, code);
    bench.code(two, 4, 8, code);
    run(addMemo({ title: 'Waiting', kind: 'analytic', about: { type: 'code', id: code }, text: 'They wait.' }));
    memoId = Object.keys(bench.state.tables.memo)[0]!;
    run(linkMemo(memoId, passageIn(one), true));
    run(linkMemo(memoId, passageIn(two), true));
  });
  afterEach(() => expect(checkStudy(bench.state, bench.texts)).toEqual([]));

  it('goes with its passages when a document is divided and joined again', () => {
    expect(linksOf()).toEqual(['code ', 'passage queue', 'passage fare']);
    run(splitDocument(bench.texts.get(one.id)!, 16, 'Rest'));
    expect(linksOf()).toEqual(['code ', 'passage queue', 'passage fare']);
    const rest = Object.values(bench.state.tables.document).find((document) => document.title === 'Rest')!;
    expect(memo().also![0]).toEqual(passageIn(rest));
    run(joinDocuments(bench.texts.get(two.id)!, bench.texts.get(rest.id)!));
    bench.texts.delete(rest.id);
    expect(linksOf()).toEqual(['code ', 'passage queue', 'passage fare']);
  });

  it('keeps a passage that loses its last code, and speaks of the document when the passage is removed', () => {
    const { id } = passageIn(one);
    run(removeCoding(one.id, id, memo().about!.id));
    expect(linksOf()).toEqual(['code ', 'passage queue', 'passage fare']);
    run(removePassage(one.id, id));
    expect(linksOf()).toEqual(['code ', 'document ', 'passage fare']);
  });

  it('loses only the link to what is deleted', () => {
    run(deleteDocuments([two.id], [bench.texts.get(two.id)!]));
    bench.texts.delete(two.id);
    expect(linksOf()).toEqual(['code ', 'passage queue']);
    run(addCase('Shona'));
    const caseId = Object.keys(bench.state.tables.case)[0]!;
    run(linkMemo(memoId, { type: 'case', id: caseId }, true));
    run(deleteCases([caseId]));
    expect(linksOf()).toEqual(['code ', 'passage queue']);
    run(deleteCodes([memo().about!.id]));
    expect(linksOf()).toEqual(['passage queue']);
  });

  it('is changed once by a correction of several documents, and so is a case that owns words in them', () => {
    run(addCase('Shona'));
    const caseId = Object.keys(bench.state.tables.case)[0]!;
    run(ownStretch(caseId, { documentId: one.id, start: 4, end: 8 }, true));
    run(ownStretch(caseId, { documentId: two.id, start: 4, end: 8 }, true));
    const cut = (document: Document, from: number, to: number) => ({
      text: bench.texts.get(document.id)!,
      edits: [
        { from: 0, to: 4, insert: 'Our old ' },
        { from, to, insert: '' },
      ],
    });
    run(correctTexts([cut(one, 20, 26), cut(two, 9, 14)]));
    expect(
      bench.state.tables.case[caseId]!.stretches.map(({ documentId, start, end }) => bench.texts.get(documentId)!.text.slice(start, end)),
    ).toEqual(['boat', 'fare']);
    // the words it was about are gone, the document is not
    expect(linksOf()).toEqual(['code ', 'document ', 'passage fare']);
  });
});
