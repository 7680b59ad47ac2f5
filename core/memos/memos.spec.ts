import { addCode } from '../commands/codes';
import { importMemos } from '../commands/import-memos';
import {
  addMemo,
  addMemoEntry,
  askComment,
  deleteMemos,
  editMemo,
  editMemoEntry,
  editMemos,
  linkMemo,
  memoFromComment,
  renameKind,
  colourKinds,
} from '../commands/memos';
import { memoToDocument } from '../material/memo-to-document';
import { setComment } from '../commands/passages';
import { memosDocx } from '../formats/docx-out/memos-docx';
import { readDocx } from '../formats/docx/read-docx';
import { checkStudy } from '../integrity/check-study';
import { unpackPassages } from '../passages/columns';
import { Bench } from '../testing/make';
import { memosFromMarkdown, memosMarkdown } from './exchange/memo-markdown';
import { memosFromTable, memoTable } from './exchange/memo-table';
import { findMemos, snippetOf, sortMemos } from './find-memos';
import { memoHtml } from './memo-html';
import { isAbout } from './references';
import { addressOf, referenceOf, referencesIn } from '../model/address';

const ID = '00000000-0000-4000-8000-000000000001';
const OTHER = '00000000-0000-4000-8000-000000000002';
const memoOf = (bench: Bench) => Object.values(bench.state.tables.memo)[0]!;

describe('references in memos', () => {
  it('are addresses of links, and others are not', () => {
    const passage = { type: 'passage', id: ID, documentId: OTHER } as const;
    expect(referenceOf(addressOf(passage))).toEqual(passage);
    expect(referenceOf(`filum:code/${ID}`)).toEqual({ type: 'code', id: ID });
    for (const address of ['filum:code/1', `filum:passage/${ID}`, 'https://example.org', `filum:script/${ID}`])
      expect(referenceOf(address)).toBeNull();
    expect(referencesIn(`See [a](filum:code/${ID}), [a](filum:code/${ID}) and [b](${addressOf(passage)}).`)).toEqual([
      { type: 'code', id: ID },
      passage,
    ]);
  });
});

describe('a memo as HTML', () => {
  it('shows what is written, and leads only to the web and to Filum', () => {
    const html = memoHtml(`# Head\n\n- *one*\n\n> said\n\n[w](filum:code/${ID}) [x](https://example.org) [y](javascript:alert(1))`);
    expect(html).toContain('<h1>Head</h1>');
    expect(html).toContain('<em>one</em>');
    expect(html).toContain('<blockquote>');
    expect(html).toContain(`<a href="#filum:code/${ID}">w</a>`);
    expect(html).toContain('rel="noopener noreferrer"');
    expect(html).not.toContain('javascript:');
  });

  it('shows markup as text, and says what is gone', () => {
    expect(memoHtml('<img src=x onerror=alert(1)> <b>x</b>')).not.toMatch(/<img|<b>/);
    expect(memoHtml('![alt](https://example.org/x.png)')).not.toContain('<img');
    expect(memoHtml(`[Worry](filum:code/${ID})`, (_, words) => ({ words, gone: true }))).toContain(
      '<s>Worry</s> <em>(no longer there)</em>',
    );
  });
});

describe('memos', () => {
  const build = () => {
    const bench = new Bench();
    const document = bench.addDocument('Interview', ['We waited at the pier.']);
    const code = bench.addCode('Waiting');
    bench.code(document, 0, 9, code);
    const [passage] = unpackPassages(bench.state.passages[document.id]!);
    return { bench, document, code, passage: passage! };
  };

  it('keep an entry’s date, and say when it was edited later than the hour it was written', () => {
    const { bench } = build();
    bench.run(addMemo({ title: 'T', kind: 'analytic', about: null, text: 'First.', tags: ['a', ' a ', ''] }));
    const { id, entries } = memoOf(bench);
    expect(memoOf(bench).tags).toEqual(['a']);
    bench.run(editMemoEntry(id, entries[0]!.id, 'First!'));
    expect(memoOf(bench).entries[0]).toEqual({ ...entries[0]!, text: 'First!' });
    const late = { ...bench.context(), now: entries[0]!.writtenAt + 3 * 3_600_000 };
    const after = editMemoEntry(id, entries[0]!.id, 'First?')(bench.state, late)!.change[0]!.after as ReturnType<typeof memoOf>;
    expect(after.entries[0]!.editedAt).toBe(late.now);
    bench.run(addMemoEntry(id, 'Second.'));
    expect(memoOf(bench).entries.map((entry) => entry.text)).toEqual(['First!', 'Second.']);
  });

  it('are pinned, put away, asked and answered, and carry nothing where there is nothing', () => {
    const { bench } = build();
    bench.run(addMemo({ title: 'T', kind: 'analytic', about: null, text: 'x', question: 'open' }));
    const { id } = memoOf(bench);
    bench.run(editMemo(id, { pinned: true, archived: true, question: 'answered', tags: ['b'] }));
    expect(memoOf(bench)).toEqual(jasmine.objectContaining({ pinned: true, archived: true, question: 'answered', tags: ['b'] }));
    bench.run(editMemos([id], { pinned: false, archived: false, question: false, tags: [] }));
    for (const key of ['pinned', 'archived', 'question', 'tags']) expect(key in memoOf(bench)).toBeFalse();
    expect(bench.run(editMemo(id, { pinned: false }))).toBeNull();
    bench.run(colourKinds([{ name: 'analytic', colour: 5 }]));
    bench.run(renameKind('analytic', 'sense'));
    expect([memoOf(bench).kind, bench.state.study.memoKinds]).toEqual(['sense', [{ name: 'sense', colour: 5 }]]);
    bench.run(deleteMemos([id]));
    expect(bench.state.tables.memo).toEqual({});
  });

  it('are linked to more than one thing, and stay linked to the rest', () => {
    const { bench, document, code } = build();
    bench.run(addMemo({ title: 'T', kind: 'analytic', about: { type: 'code', id: code }, text: 'x' }));
    const { id } = memoOf(bench);
    bench.run(linkMemo(id, { type: 'document', id: document.id }, true));
    expect(bench.run(linkMemo(id, { type: 'document', id: document.id }, true))).toBeNull();
    expect(isAbout(memoOf(bench), 'document', document.id)).toBeTrue();
    bench.run(linkMemo(id, { type: 'code', id: code }, false));
    expect(memoOf(bench).about).toEqual({ type: 'document', id: document.id });
    expect('also' in memoOf(bench)).toBeFalse();
  });

  it('are made of comments, which can be questions; and become documents that say where they are from', () => {
    const { bench, document, passage } = build();
    const at = () => unpackPassages(bench.state.passages[document.id]!)[0]!;
    bench.run(setComment(document.id, passage.id, 'Why at the pier of all places?'));
    bench.run(askComment(document.id, passage.id, true));
    expect(unpackPassages(structuredClone(bench.state.passages[document.id]!))[0]!.open).toBeTrue();
    bench.run(setComment(document.id, passage.id, ''));
    expect(at().open).toBeUndefined();
    bench.run(setComment(document.id, passage.id, 'Why?'));
    bench.run(askComment(document.id, passage.id, true));
    bench.run(memoFromComment(document.id, passage.id));
    expect([at().comment, at().open, memoOf(bench).question, memoOf(bench).title]).toEqual(['', undefined, 'open', 'Why?']);
    const action = bench.run(memoToDocument(memoOf(bench).id))!;
    const made = action.change.find((one) => one.type === 'document')!.after as typeof document;
    expect(made.description).toContain('From the memo “Why?”');
    expect(isAbout(memoOf(bench), 'document', made.id)).toBeTrue();
    expect(checkStudy(bench.state, null)).toEqual([]);
  });
});

describe('finding memos', () => {
  const bench = new Bench();
  bench.run(addMemo({ title: 'Café at the pier', kind: 'analytic', about: null, text: 'People **wait** there.', tags: ['place'] }));
  bench.run(addMemo({ title: 'Method', kind: 'method', about: { type: 'code', id: bench.addCode('Asking') }, text: 'How I asked.' }));
  bench.run(addMemo({ title: 'Apples', kind: 'analytic', about: null, text: '', question: 'open' }));
  const memos = Object.values(bench.state.tables.memo);
  const titles = (filter: Parameters<typeof findMemos>[1]) => findMemos(memos, filter).map((memo) => memo.title);

  it('looks at words, kind, tag, subject, coder, date and state, all at once', () => {
    expect(titles({ words: 'cafe wait' })).toEqual(['Café at the pier']);
    expect(titles({ kind: 'analytic', openQuestions: true })).toEqual(['Apples']);
    expect(titles({ tag: 'place' })).toEqual(['Café at the pier']);
    expect(titles({ about: 'code' })).toEqual(['Method']);
    expect(titles({ about: 'nothing', coderId: bench.coderId })).toEqual(['Café at the pier']);
    expect(titles({ from: memos[1]!.entries[0]!.writtenAt })).toEqual(['Method']);
    expect(titles({ archived: true })).toEqual([]);
  });

  it('sorts with the pinned first, and shows words around a hit', () => {
    const pinned = memos.map((memo) => (memo.title === 'Method' ? { ...memo, pinned: true as const } : memo));
    expect(sortMemos(pinned, 'title').map((memo) => memo.title)).toEqual(['Method', 'Apples', 'Café at the pier']);
    expect(sortMemos(memos, 'last written')[0]!.title).toBe('Apples');
    expect(snippetOf(memos[0]!, 'wait')).toBe('People wait there.');
  });
});

describe('memos in and out', () => {
  const bench = new Bench();
  bench.run(addCode({ name: 'Fare' }));
  const code = Object.keys(bench.state.tables.code)[0]!;
  bench.run(
    addMemo({
      title: '=Cost',
      kind: 'theory',
      about: { type: 'code', id: code },
      text: 'A **bold** thought.\n\n- one\n- two\n\n> quoted',
      tags: ['x', 'y z'],
    }),
  );
  bench.run(addMemoEntry(memoOf(bench).id, 'Later.'));
  const memos = Object.values(bench.state.tables.memo);

  it('as a table come back with kind, tags, dates and every entry', () => {
    const [header = [], ...rows] = memoTable(bench.state, memos).map((row) => row.map(String));
    const table = { header, rows, encoding: null };
    expect(rows[0]!.slice(0, 4)).toEqual(['=Cost', 'theory', 'x; y z', 'Fare']);
    const other = new Bench();
    other.run(importMemos(memosFromTable(table, 'memos.csv'), 'memos.csv'));
    const back = memoOf(other);
    expect([back.title, back.kind, back.tags]).toEqual(['=Cost', 'theory', ['x', 'y z']]);
    expect(back.entries.map((entry) => [entry.text, entry.writtenAt])).toEqual(
      memoOf(bench).entries.map((entry) => [entry.text, entry.writtenAt]),
    );
    // a second time nothing is new
    expect(other.run(importMemos(memosFromTable(table, 'memos.csv'), 'memos.csv'))).toBeNull();
    expect(() => memosFromTable({ header: ['a', 'b'], rows: [], encoding: null }, 'x')).toThrowError(/No column holds the text/);
  });

  it('as Markdown and Word hold headings, emphasis and lists', async () => {
    expect(memosMarkdown(bench.state, memos)).toMatch(
      /^# =Cost\n\n<!-- memo: .* -->\n\n\*theory · #x · #y-z · about Fare\*\n\n## 1970-01-01, Ada\n\n<!-- entry: .* -->\n\nA \*\*bold\*\* thought\./,
    );
    const { paragraphs } = await readDocx(await memosDocx('Pier', bench.state, memos));
    const lines = paragraphs.map((paragraph) => paragraph.text);
    expect(lines).toContain('A bold thought.');
    expect(lines.filter((line) => /one|two|quoted/.test(line)).length).toBe(3);
  });

  it('take a Markdown file’s first heading for the title, or else its name', () => {
    expect(memosFromMarkdown('a/b/thoughts.md', '\uFEFF---\ntags: x\n---\n# On boats\r\n\r\nText.', 5)).toEqual([
      jasmine.objectContaining({ title: 'On boats', text: 'Text.', writtenAt: 5 }),
    ]);
    expect(memosFromMarkdown('a/b/thoughts.md', 'Only text.', null)[0]!.title).toBe('thoughts');
  });
});
