import { Bench } from '../testing/make';
import { checkStudy } from '../integrity/check-study';
import { findInTexts, replaceHits } from '../text/find-replace';
import { applyChange } from '../change/apply';
import { invert } from '../change/change';
import { addCase, editSpeaker } from './cases';
import { addMemo } from './memos';
import { passagesOf, setComment } from './passages';
import { replaceWords } from './replace-words';

describe('finding words', () => {
  const texts = [{ id: 'd', text: 'Shona said: SHONA, Shonas, the  boat\nShona Adair', paragraphs: [], emphasis: [], marks: [] }];
  const found = (words: string, matchCase = false, wholeWords = false) =>
    findInTexts(texts, { words, matchCase, wholeWords }).map((hit) => texts[0]!.text.slice(hit.start, hit.end));

  it('minds case and word borders where asked, and lets spaces differ', () => {
    expect(found('shona')).toEqual(['Shona', 'SHONA', 'Shona', 'Shona']);
    expect(found('Shona', true)).toEqual(['Shona', 'Shona', 'Shona']);
    expect(found('shona', false, true)).toEqual(['Shona', 'SHONA', 'Shona']);
    expect(found('the boat')).toEqual(['the  boat']);
    expect(found('  ')).toEqual([]);
    expect(found('.*')).toEqual([]);
  });
});

describe('replacing a name everywhere', () => {
  function study() {
    const bench = new Bench();
    const document = bench.addDocument(
      'Interview with Shona',
      ['Mara: Shona?', 'Shona: Yes. Shona it is.', 'Mara: Good.'],
      ['Mara', 'Shona'],
    );
    const code = bench.addCode('Naming');
    const text = bench.texts.get(document.id)!;
    const at = text.text.indexOf('Shona it is');
    bench.code(document, at, at + 5, code);
    bench.run(setComment(document.id, passagesOf(bench.state, document.id)[0]!.id, 'Shona herself'));
    bench.run(addCase('Shona Adair'));
    bench.run(editSpeaker(document.id, 1, { caseId: Object.keys(bench.state.tables.case)[0]! }));
    bench.run(addMemo({ title: 'On Shona', kind: 'analytic', about: null, text: 'Shona laughs.' }));
    const sought = { words: 'Shona', matchCase: true, wholeWords: true };
    const edits = replaceHits(findInTexts([text], sought), 'P3');
    return { bench, document, text, sought, edits };
  }

  it('leaves it nowhere, keeps codings on the new name and does not name it in the log', () => {
    const { bench, document, text, sought, edits } = study();
    const before = bench.state;
    const action = bench.run(replaceWords([{ text, edits }], { ...sought, by: 'P3', everywhere: true }))!;
    for (const one of action.change) if (one.type === 'text') bench.texts.set(one.after!.id, one.after!);

    expect(JSON.stringify([bench.state.tables, passagesOf(bench.state, document.id), bench.texts.get(document.id)])).not.toContain('Shona');
    expect(action.sentence).not.toContain('Shona');
    const [passage] = passagesOf(bench.state, document.id);
    expect(bench.texts.get(document.id)!.text.slice(passage!.start, passage!.end)).toBe('P3');
    expect(bench.state.tables.document[document.id]!.speakers.map((speaker) => speaker.name)).toEqual(['Mara', 'P3']);
    expect(checkStudy(bench.state, bench.texts)).toEqual([]);
    expect(applyChange(bench.state, invert(action.change)).tables).toEqual(before.tables);
  });

  it('touches the texts alone where not wanted elsewhere', () => {
    const { bench, text, sought, edits } = study();
    bench.run(replaceWords([{ text, edits }], { ...sought, by: 'P3', everywhere: false }));
    expect(Object.values(bench.state.tables.case)[0]!.name).toBe('Shona Adair');
    expect(Object.values(bench.state.tables.memo)[0]!.title).toBe('On Shona');
  });
});
