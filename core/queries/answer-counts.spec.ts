import { unzipSync, strFromU8 } from 'fflate';
import { addCase, ownDocuments } from '../commands/cases';
import { answerDocx } from '../formats/docx-out/answer-docx';
import { answerHtml } from '../formats/html-out/answer-html';
import { caseFinderOf } from '../passages/case-finder';
import { unpackPassages } from '../passages/columns';
import { Bench } from '../testing/make';
import { AnswerCounter } from './answer-counts';

describe('an answer', () => {
  it('is counted in passages, codings, documents, cases, and words of which none counts twice', () => {
    const bench = new Bench();
    const codes = ['Waiting', 'Night'].map((name) => bench.addCode(name));
    const documents = ['One', 'Two', 'Three'].map((title) => bench.addDocument(title, ['We waited at the pier all night.']));
    bench.run(addCase('Ann'));
    bench.run(ownDocuments(Object.keys(bench.state.tables.case)[0]!, [documents[0]!.id, documents[1]!.id], true));
    bench.code(documents[0]!, 0, 9, ...codes); // We waited
    bench.code(documents[0]!, 3, 12, codes[0]!); // waited at
    bench.code(documents[1]!, 13, 21, codes[1]!); // the pier
    bench.code(documents[2]!, 0, 2, codes[0]!);
    const counter = new AnswerCounter(caseFinderOf(bench.state.tables.case));
    for (const columns of Object.values(bench.state.passages)) {
      const ids = unpackPassages(columns).flatMap((passage) => (passage.documentId === documents[2]!.id ? [] : [passage.id]));
      const document = bench.state.tables.document[columns.documentId]!;
      counter.add(columns, document, bench.texts.get(document.id)!, new Set(ids));
    }
    expect(counter.result()).toEqual({ passages: 3, codings: 4, documents: 2, cases: 1, words: 5 });
  });

  const passages = [
    { document: 'One <1>', where: 'Ann, turn 4', words: 'We waited.\nAll "night" & day', codes: ['Waiting', '<b>'], comment: 'Again?' },
    { document: 'One <1>', where: 'Ann, turn 9', words: '=1+1', codes: [], comment: '' },
    { document: 'Two', where: 'paragraph 1', words: 'انتظرنا', codes: [], comment: '' },
  ];

  it('goes out as a page in which every sign is itself, a heading a document', () => {
    const html = answerHtml('Pier', 'passages that carry Waiting', passages);
    expect(html.match(/<h2>/g)!.length).toBe(2);
    expect(html).toContain('One &lt;1&gt;');
    expect(html).toContain('We waited.<br>All &quot;night&quot; &amp; day');
    expect(html).not.toContain('<b>');
    expect(html).toContain('passages that carry Waiting: 3 passages.');
  });

  it('goes out as a Word document', async () => {
    const files = unzipSync(await answerDocx('Pier', 'passages that carry Waiting', passages));
    const words = strFromU8(files['word/document.xml']!);
    for (const part of ['One &lt;1&gt;', 'We waited.', 'Ann, turn 4 · Waiting · &lt;b&gt;', 'Again?', 'انتظرنا'])
      expect(words).toContain(part);
  });
});
