import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { Question } from '../model/query';
import { EVERYTHING } from '../model/scope';
import { absencesIn, sameAsked } from '../patterns/absence';
import { cellQuestion } from '../patterns/cell-question';
import { Bench } from '../testing/make';
import { noteAbsence, takeAbsenceBack } from './absences';
import { deleteCodes } from './codes';
import { joinCodes } from './join-codes';
import { deleteMemo } from './memos';

describe('what was expected and not found', () => {
  let bench: Bench;
  let document: Document;
  let [grief, relief]: Id[] = [];
  const rows = { of: 'codes', codeIds: null, withUnder: false } as const;
  const asks = (code: Id): Question => cellQuestion(bench.state, rows, { by: 'document' }, { row: code, column: document.id })!;
  const absences = () => Object.values(bench.state.tables.absence);
  const found = (code: Id) => absencesIn(absences(), EVERYTHING)(asks(code));
  const note = (question = asks(grief!)) =>
    noteAbsence({ question, scope: EVERYTHING, title: 'Not found: Grief · Letter', note: 'The letter is a farewell.' });

  beforeEach(() => {
    bench = new Bench();
    document = bench.addDocument('Letter', ['We waited for the last boat.']);
    [grief, relief] = [bench.addCode('Grief'), bench.addCode('Relief')];
    bench.run(note());
  });

  it('is kept with a memo that is linked to what it speaks of, in one step', () => {
    expect(found(grief!)?.id).toBe(absences()[0]!.id);
    expect(found(relief!)).toBeNull();
    const memo = bench.state.tables.memo[absences()[0]!.memoId]!;
    expect([memo.title, memo.entries[0]!.text, memo.tags]).toEqual(['Not found: Grief · Letter', 'The letter is a farewell.', ['absence']]);
    expect([memo.about, ...(memo.also ?? [])]).toEqual([
      { type: 'code', id: grief! },
      { type: 'document', id: document.id },
    ]);
  });

  it('is not marked twice, nor without a word, nor without saying of what', () => {
    expect(() => bench.run(note())).toThrowError(/already/);
    expect(() => bench.run(noteAbsence({ question: asks(relief!), scope: EVERYTHING, title: 'T', note: ' ' }))).toThrowError(/why/i);
    expect(() => bench.run(note({ all: [] }))).toThrowError(/what is absent/);
    expect(absences().length).toBe(1);
  });

  it('stays on its cell when its code is joined with another, and loses it when the code goes', () => {
    bench.run(joinCodes(relief!, [grief!]));
    expect(found(relief!)?.id).toBe(absences()[0]!.id);
    bench.run(deleteCodes([relief!]));
    expect(Object.values(absences()[0]!.question.gone ?? {})).toEqual(['Relief']);
  });

  it('goes with its memo, and leaves it where the mark alone is taken back', () => {
    const [{ id, memoId }] = absences() as [ReturnType<typeof absences>[number]];
    bench.run(takeAbsenceBack(id));
    expect([absences(), bench.state.tables.memo[memoId]?.title]).toEqual([[], 'Not found: Grief · Letter']);
    bench.run(note());
    bench.run(deleteMemo(absences()[0]!.memoId));
    expect(absences()).toEqual([]);
  });

  it('asks the same in whatever order its fields are written, and something else in another scope', () => {
    const question = {
      all: [{ reach: 'passage', codes: { withUnder: false, setIds: [], codeIds: [grief!] }, carries: 'any' }, asks(grief!).all[1]!],
    } as Question;
    expect(sameAsked({ question, scope: EVERYTHING }, absences()[0]!)).toBeTrue();
    expect(sameAsked({ question, scope: { parts: [{ kinds: ['interview'] }] } }, absences()[0]!)).toBeFalse();
  });
});
