import fc from 'fast-check';
import { Bench } from '../testing/make';
import type { StudyState } from '../model/study-state';
import { unpackPassages } from '../passages/columns';
import { applyChange, ChangeConflictError } from './apply';
import { invert, squash, type Change } from './change';
import { CommandError, type Command } from './command';
import { addCode, deleteCode, editCode, moveCode } from '../commands/codes';
import { addMemo, deleteMemo } from '../commands/memos';
import { codePlace, removeCoding, removePassage, setComment } from '../commands/passages';
import { addFolder, moveDocuments } from '../commands/documents';

/** The state as plain values, so that two states can be compared whatever their columns are made of. */
const plain = (state: StudyState) => ({
  ...state,
  passages: Object.fromEntries(Object.entries(state.passages).map(([id, columns]) => [id, unpackPassages(columns)])),
});

/** What a researcher may do next: numbers choose among what is there. */
function someCommand(bench: Bench, [what, a, b, c]: readonly number[]): Command {
  const pick = <T>(all: readonly T[], at: number): T | undefined => all[at % Math.max(1, all.length)];
  const document = pick(Object.values(bench.state.tables.document), a!)!;
  const code = pick(Object.values(bench.state.tables.code), b!);
  const columns = bench.state.passages[document.id];
  const passage = columns && pick(unpackPassages(columns), c!);
  const none: Command = () => null;
  switch (what! % 10) {
    case 0:
      return addCode({ name: `Code ${a}-${b}-${c}`, parentId: code?.id ?? null });
    case 1:
      return code ? deleteCode(code.id) : none;
    case 2:
      return code ? editCode(code.id, { name: `Renamed ${c}`, colour: c! % 40 }) : none;
    case 3:
      return code ? moveCode(code.id, pick(Object.values(bench.state.tables.code), c!)!.id, a!) : none;
    case 4:
      return passage ? removePassage(document.id, passage.id) : none;
    case 5:
      return passage?.codings[0] ? removeCoding(document.id, passage.id, passage.codings[0].codeId) : none;
    case 6:
      return passage ? setComment(document.id, passage.id, a! % 2 ? 'why?' : '') : none;
    case 7:
      return passage
        ? addMemo({ title: 'Thought', kind: 'analytic', about: { type: 'passage', id: passage.id, documentId: document.id }, text: 'x' })
        : none;
    case 8:
      return Object.keys(bench.state.tables.memo).length > 0
        ? deleteMemo(Object.keys(bench.state.tables.memo)[0]!)
        : addFolder(`Folder ${a}`);
    default:
      return codePlace({
        documentId: document.id,
        place: { start: a! % 20, end: (a! % 20) + 1 + (c! % 9) },
        codeIds: code ? [code.id] : [],
      });
  }
}

describe('changes', () => {
  it('undo one by one to where it began, and redo to where it ended, whatever was done', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.nat(1_000), { minLength: 4, maxLength: 4 }), { maxLength: 30 }), (steps) => {
        const bench = new Bench();
        bench.addDocument('One', ['Nobody asked us, we were told of it at the pier.']);
        bench.addDocument('Two', ['The boat did not come today, nor tomorrow.']);
        bench.addCode('First');
        const begun = plain(bench.state);
        const done: Change[] = [];
        for (const step of steps) {
          try {
            const action = bench.run(someCommand(bench, step));
            if (action) done.push(action.change);
          } catch (error) {
            if (!(error instanceof CommandError)) throw error;
          }
        }
        const ended = plain(bench.state);
        let state = bench.state;
        for (const change of [...done].reverse()) state = applyChange(state, invert(change));
        expect(plain(state)).toEqual(begun);
        for (const change of done) state = applyChange(state, change);
        expect(plain(state)).toEqual(ended);
        expect(plain(applyChange(state, squash(...[...done].reverse().map(invert))))).toEqual(begun);
      }),
      { numRuns: 150 },
    );
  });

  it('share what they do not touch', () => {
    const bench = new Bench();
    const one = bench.addDocument('One', ['Some words to code.']);
    const two = bench.addDocument('Two', ['Other words to code.']);
    const code = bench.addCode('Code');
    bench.code(two, 0, 5, code);
    const before = bench.state;
    bench.code(one, 0, 4, code);
    expect(bench.state.passages[two.id]).toBe(before.passages[two.id]!);
    expect(bench.state.tables.code).toBe(before.tables.code);
  });

  it('are refused whole where they do not fit', () => {
    const bench = new Bench();
    const id = bench.addCode('Code');
    const code = bench.state.tables.code[id]!;
    expect(() => applyChange(bench.state, [{ type: 'code', before: null, after: code }])).toThrowError(ChangeConflictError);
    const gone = applyChange(bench.state, [{ type: 'code', before: code, after: null }]);
    expect(() => applyChange(gone, [{ type: 'code', before: code, after: { ...code, name: 'Other' } }])).toThrowError(ChangeConflictError);
  });

  it('squash what was added and removed again to nothing', () => {
    const bench = new Bench();
    const id = bench.addCode('Code');
    const code = bench.state.tables.code[id]!;
    expect(squash([{ type: 'code', before: null, after: code }], [{ type: 'code', before: code, after: null }])).toEqual([]);
  });
});

describe('moving documents', () => {
  it('names how many went where, and does nothing where they already are', () => {
    const bench = new Bench();
    const document = bench.addDocument('One', ['Words.']);
    const folder = bench.run(addFolder('Interviews'))!.change[0]!.after!.id;
    expect(bench.run(moveDocuments([document.id], folder))!.sentence).toBe('moved 1 document to Interviews');
    expect(bench.run(moveDocuments([document.id], folder))).toBeNull();
  });
});
