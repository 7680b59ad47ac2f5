import { setComment } from '../../commands/passages';
import { unpackPassages } from '../../passages/columns';
import { Bench } from '../../testing/make';
import { parseDocument, DomUtils } from 'htmlparser2';
import { documentHtml } from './document-html';

describe('a document as a page', () => {
  const bench = new Bench();
  const document = bench.addDocument('Boats <script>alert(1)</script>', ['Moira: I sold the boat & left.', 'For good.'], ['Moira']);
  const [selling, leaving] = [bench.addCode('selling "it"'), bench.addCode('leaving')];
  const text = bench.texts.get(document.id)!;
  const at = (words: string) => text.text.indexOf(words);
  bench.code(document, at('sold'), at('sold') + 13, selling);
  bench.code(document, at('boat'), at('good') + 4, leaving);
  const passages = unpackPassages(bench.state.passages[document.id]!);
  bench.run(setComment(document.id, passages[0]!.id, 'why <b>then</b>?'));
  const html = documentHtml(
    document,
    text,
    unpackPassages(bench.state.passages[document.id]!),
    bench.state.tables.code,
    bench.state.tables.coder,
  );
  const page = parseDocument(html);
  const all = (name: string) => DomUtils.getElementsByTagName(name, page);

  it('holds every word once, with what is coded underlined and marked', () => {
    const [first, second] = all('p').slice(1);
    expect(DomUtils.textContent(first!).replace(/[A-Z]{2}\b/g, '')).toContain('I sold the boat');
    expect(all('u').map((one) => DomUtils.textContent(one))).toEqual(['sold the ', 'boat', ' & left.', 'For good']);
    expect(DomUtils.textContent(second!)).toContain('For good');
    expect(all('sup').length).toBe(2);
  });

  it('lists passages with codes, coder and comment', () => {
    expect(all('tr').length).toBe(3);
    expect(DomUtils.textContent(all('tr')[1]!)).toContain('selling "it" (Ada)');
    expect(DomUtils.textContent(all('tr')[1]!)).toContain('why <b>then</b>?');
  });

  it('runs nothing that stood in a title, a text or a comment', () => {
    expect(all('script')).toEqual([]);
    expect(all('b').map((one) => DomUtils.textContent(one))).toEqual(['Moira']);
  });
});
