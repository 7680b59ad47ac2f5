import { checkStudy } from '../integrity/check-study';
import { Bench } from '../testing/make';
import { packPassages, unpackPassages } from '../passages/columns';
import { CommandError } from '../change/command';
import { applyChange } from '../change/apply';
import { invert } from '../change/change';
import { addMemo } from './memos';
import { setComment } from './passages';
import { movePassage, rateCoding, recode, recodeAllHere } from './reshape-passages';

describe('reshaping passages', () => {
  function study() {
    const bench = new Bench();
    const document = bench.addDocument('Interview', ['I sold the boat and left the island for good.']);
    const [leaving, selling] = [bench.addCode('leaving'), bench.addCode('selling')];
    const passages = () => unpackPassages(bench.state.passages[document.id]!);
    const codes = (at: number) => passages()[at]!.codings.map((coding) => bench.state.tables.code[coding.codeId]!.name);
    return { bench, document, leaving, selling, passages, codes };
  }

  it('moves ends, and refuses what leaves the text or holds nothing', () => {
    const { bench, document, selling, passages } = study();
    bench.code(document, 2, 6, selling);
    const { id } = passages()[0]!;
    bench.run(movePassage(document.id, id, { start: 0, end: 15 }));
    expect([passages()[0]!.start, passages()[0]!.end]).toEqual([0, 15]);
    expect(bench.run(movePassage(document.id, id, { start: 0, end: 15 }))).toBeNull();
    for (const place of [
      { start: 4, end: 4 },
      { start: 0, end: 999 },
    ])
      expect(() => bench.run(movePassage(document.id, id, place))).toThrowError(CommandError);
  });

  it('makes one of two passages that come to the same place, with all both held, and it can be undone', () => {
    const { bench, document, leaving, selling, passages } = study();
    bench.code(document, 0, 10, selling, leaving);
    bench.code(document, 2, 10, leaving);
    const [long, short] = passages();
    bench.run(setComment(document.id, long!.id, 'first'));
    bench.run(setComment(document.id, short!.id, 'second'));
    bench.run(addMemo({ title: 'Why', text: '', kind: 'analytic', about: { type: 'passage', id: short!.id, documentId: document.id } }));
    const before = bench.state;
    const done = bench.run(movePassage(document.id, short!.id, { start: 0, end: 10 }))!;
    expect(passages().map((one) => [one.id, one.codings.length, one.comment])).toEqual([[long!.id, 2, 'first\nsecond']]);
    expect(Object.values(bench.state.tables.memo)[0]!.about).toEqual({ type: 'passage', id: long!.id, documentId: document.id });
    expect(checkStudy(bench.state, bench.texts)).toEqual([]);
    const undone = applyChange(bench.state, invert(done.change));
    expect(unpackPassages(undone.passages[document.id]!)).toEqual(unpackPassages(before.passages[document.id]!));
  });

  it('puts a code in the place of another on one passage or on all of a document, never twice', () => {
    const { bench, document, leaving, selling, passages, codes } = study();
    bench.code(document, 0, 10, selling);
    bench.code(document, 12, 20, selling, leaving);
    bench.code(document, 30, 40, selling);
    bench.run(recode(document.id, passages()[0]!.id, selling, { codeIds: [leaving] }));
    expect([codes(0), codes(1), codes(2)]).toEqual([['leaving'], ['selling', 'leaving'], ['selling']]);
    const done = bench.run(recodeAllHere(document.id, selling, leaving))!;
    expect([codes(0), codes(1), codes(2)]).toEqual([['leaving'], ['leaving'], ['leaving']]);
    expect(done.sentence).toContain('2 passages');
    expect(bench.run(recodeAllHere(document.id, selling, leaving))).toBeNull();
  });

  it('makes the code that takes the place on the way, in one step, also where another category has one of its name', () => {
    const { bench, document, leaving, selling, passages } = study();
    const category = bench.addCode('Losses');
    const other = bench.addCode('parting', category);
    bench.code(document, 0, 10, selling, leaving);
    const done = bench.run(recode(document.id, passages()[0]!.id, selling, { codeIds: [], newCodes: [{ name: 'parting' }] }))!;
    expect(done.change.map((one) => one.type)).toEqual(['code', 'passage']);
    const made = done.change[0]!.after!.id;
    expect(made).not.toBe(other);
    expect(passages()[0]!.codings.map((coding) => coding.codeId)).toEqual([leaving, made]);
  });

  it('rates codings only as far as the study rates, and the rating is packed and read back', () => {
    const { bench, document, selling, passages } = study();
    bench.code(document, 0, 10, selling);
    const rate = (rating: number | null) => bench.run(rateCoding(document.id, passages()[0]!.id, selling, bench.coderId, rating));
    expect(() => rate(3)).toThrowError(CommandError, /does not use ratings/);
    bench.state = { ...bench.state, study: { ...bench.state.study, ratings: 5 } };
    expect(() => rate(6)).toThrowError(CommandError, /from 1 to 5/);
    rate(4);
    const stored = structuredClone(packPassages(document.id, passages()));
    expect(unpackPassages(stored)[0]!.codings[0]!.rating).toBe(4);
    rate(null);
    expect(passages()[0]!.codings[0]).not.toEqual(jasmine.objectContaining({ rating: 4 }));
    expect('rating' in passages()[0]!.codings[0]!).toBeFalse();
  });
});
