import fc from 'fast-check';
import { checkStudy } from '../integrity/check-study';
import type { Text } from '../model/document';
import { unpackPassages } from '../passages/columns';
import { Bench } from '../testing/make';
import { applyChange } from '../change/apply';
import { invert } from '../change/change';
import { CommandError, type Command } from '../change/command';
import { addCase, deleteCases, editSpeaker, ownDocuments, ownStretch } from './cases';
import { correctTexts, passagesLost, redetectSpeakers } from './correct-text';
import { addMemo } from './memos';
import { setComment } from './passages';
import { joinDocuments, splitDocument } from './split-join';

const LINES = ['Interviewer: And the thumb?', 'Shona: Rang the boat. They held her.', 'And then we waited.', 'Interviewer: Long?'];

/** A coded interview with a memo and a case, and what its passages say. */
function coded() {
  const bench = new Bench();
  const document = bench.addDocument('Interview', LINES, ['Interviewer', 'Shona']);
  const help = bench.addCode('Help');
  const words = (said: string) => {
    const start = text().text.indexOf(said);
    return { start, end: start + said.length };
  };
  const text = (id = document.id): Text => bench.texts.get(id)!;
  for (const said of ['They held her.', 'the boat', 'And then we waited.']) {
    const { start, end } = words(said);
    bench.code(document, start, end, help);
  }
  const passages = (id = document.id) => {
    const columns = bench.state.passages[id];
    return columns ? unpackPassages(columns) : [];
  };
  const said = (id = document.id) => passages(id).map((passage) => text(id).text.slice(passage.start, passage.end));
  /** Runs a command and keeps the texts; undoing it must bring everything back. */
  const run = (command: Command) => {
    const before = bench.state;
    const action = bench.run(command);
    for (const change of action?.change ?? []) {
      if (change.type !== 'text') continue;
      if (change.after) bench.texts.set(change.after.id, change.after);
      else bench.texts.delete(change.before!.id);
    }
    if (action) expect(applyChange(bench.state, invert(action.change)).tables).toEqual(before.tables);
    expect(checkStudy(bench.state, bench.texts)).toEqual([]);
    return action;
  };
  return { bench, document, help, words, text, passages, said, run };
}

describe('correcting a text', () => {
  it('moves passages, counts words anew and keeps codes and comments', () => {
    const { run, bench, text, words, said, document, passages } = coded();
    bench.run(setComment(document.id, passages()[0]!.id, 'which?'));
    const { start } = words('Rang');
    const action = run(correctTexts([{ text: text(), edits: [{ from: start, to: start + 4, insert: 'I rang' }] }]))!;
    expect(said()).toEqual(['the boat', 'They held her.', 'And then we waited.']);
    expect(passages()[0]!.comment).toBe('which?');
    expect(bench.state.tables.document[document.id]!.words).toBe(document.words + 1);
    expect(action.sentence).toBe('corrected Interview in 1 place');
  });

  it('names the passages it would take away, and lets memos about them stay', () => {
    const { run, bench, text, words, said, document, passages } = coded();
    const held = passages().find((passage) => text().text.slice(passage.start, passage.end) === 'They held her.')!;
    bench.run(addMemo({ title: 'Held', kind: 'analytic', about: { type: 'passage', id: held.id, documentId: document.id }, text: '' }));
    const correction = { text: text(), edits: [{ from: words(' They held her.').start, to: words(' They held her.').end, insert: '' }] };
    expect(passagesLost(bench.state, correction)).toEqual([held]);
    run(correctTexts([correction]));
    expect(said()).toEqual(['the boat', 'And then we waited.']);
    expect(Object.values(bench.state.tables.memo).map((memo) => memo.about)).toEqual([{ type: 'document', id: document.id }]);
  });

  it('renames a speaker whose labels are all changed, and one of several not', () => {
    const { run, bench, text, document } = coded();
    const names = () => bench.state.tables.document[document.id]!.speakers.map((speaker) => speaker.name);
    const replace = (every: boolean) => {
      const edits = [...text().text.matchAll(/Interviewer/g)].map((match) => ({ from: match.index, to: match.index + 11, insert: 'Mara' }));
      run(correctTexts([{ text: text(), edits: every ? edits : edits.slice(0, 1) }]));
    };
    replace(false);
    expect(names()).toEqual(['Interviewer', 'Shona']);
    replace(true);
    expect(names()).toEqual(['Mara', 'Shona']);
  });

  it('refuses to leave nothing, and does nothing where nothing changes', () => {
    const { bench, text } = coded();
    expect(() => bench.run(correctTexts([{ text: text(), edits: [{ from: 0, to: text().text.length, insert: ' ' }] }]))).toThrowError(
      CommandError,
    );
    expect(bench.run(correctTexts([{ text: text(), edits: [{ from: 0, to: 2, insert: text().text.slice(0, 2) }] }]))).toBeNull();
  });

  it('says anew who speaks without touching a word', () => {
    const { run, bench, text, said, document } = coded();
    const before = [text().text, ...said()];
    run(redetectSpeakers(text(), new Set(['Shona'])));
    expect([text().text, ...said()]).toEqual(before);
    expect(bench.state.tables.document[document.id]!.speakers.map((speaker) => speaker.name)).toEqual(['Shona']);
  });
});

describe('dividing and joining documents', () => {
  it('gives each part its words, passages, memos and cases', () => {
    const { run, bench, text, words, said, document } = coded();
    bench.run(addCase('Shona Adair'));
    const [owner] = Object.values(bench.state.tables.case);
    bench.run(ownDocuments(owner!.id, [document.id], true));
    run(splitDocument(text(), words('And then').start + 3, 'Second'));
    const second = Object.values(bench.state.tables.document).find((one) => one.title === 'Second')!;
    expect(text(second.id).text).toBe('And then we waited.\nInterviewer: Long?');
    expect([said(), said(second.id)]).toEqual([['the boat', 'They held her.'], ['And then we waited.']]);
    expect(bench.state.tables.case[owner!.id]!.documentIds).toEqual([document.id, second.id]);
    run(joinDocuments(text(), text(second.id)));
    expect(text().text).toBe(LINES.join('\n'));
    expect(said()).toEqual(['the boat', 'They held her.', 'And then we waited.']);
  });

  it('cuts a passage that lies across into two with the same codes', () => {
    const { run, bench, text, words, said, document, help, passages } = coded();
    bench.code(document, words('held her').start, words('And then').end, help);
    run(splitDocument(text(), words('And then').start, 'Second'));
    const second = Object.values(bench.state.tables.document).find((one) => one.title === 'Second')!;
    expect(said()).toContain('held her.');
    expect(said(second.id)).toContain('And then');
    expect(passages(second.id).every((passage) => passage.codings[0]!.codeId === help)).toBeTrue();
  });

  it('come back to the same words wherever a text is cut', () => {
    fc.assert(
      fc.property(fc.integer({ min: 28, max: 100 }), (at) => {
        const { run, bench, text, said } = coded();
        const before = said();
        run(splitDocument(text(), at, 'Second'));
        const second = Object.values(bench.state.tables.document).find((one) => one.title === 'Second')!;
        run(joinDocuments(text(), text(second.id)));
        expect(text().text).toBe(LINES.join('\n'));
        expect(said()).toEqual(before);
      }),
      { numRuns: 20 },
    );
  });
});

describe('what belongs to a case', () => {
  it('is whole documents, a speaker’s turns and stretches, and goes when the case goes', () => {
    const { run, bench, document } = coded();
    bench.run(addCase('Shona Adair'));
    const { id } = Object.values(bench.state.tables.case)[0]!;
    run(editSpeaker(document.id, 1, { caseId: id }));
    run(ownStretch(id, { documentId: document.id, start: 0, end: 20 }, true));
    run(ownStretch(id, { documentId: document.id, start: 15, end: 30 }, true));
    expect(bench.state.tables.case[id]!.stretches).toEqual([{ documentId: document.id, start: 0, end: 30 }]);
    run(ownStretch(id, { documentId: document.id, start: 10, end: 12 }, false));
    expect(bench.state.tables.case[id]!.stretches.map((one) => [one.start, one.end])).toEqual([
      [0, 10],
      [12, 30],
    ]);
    run(deleteCases([id]));
    expect(bench.state.tables.document[document.id]!.speakers[1]!.caseId).toBeNull();
  });
});
