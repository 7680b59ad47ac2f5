import { TestBed } from '@angular/core/testing';
import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { unpackPassages } from '@core/passages/columns';
import type { Hit } from '@core/queries/evaluate';
import { Bench } from '@core/testing/make';
import { Notices } from '../../state/notices';
import { TextCache } from '../../state/text-cache';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { Evidence } from './evidence';

describe('evidence', () => {
  let evidence: Drawn<Evidence>;
  let hits: Hit[];
  let text: Text;
  const LONG = `${'Before it all went on and on. '.repeat(12)}We waited at the pier.${' And after it went on again.'.repeat(12)}`;
  const words = () => evidence.texts('mark');

  async function show(count: number): Promise<void> {
    const bench = new Bench();
    const code = bench.addCode('Waiting');
    const document = bench.addDocument(
      'Interview 03',
      [`Shona: ${LONG}`, ...Array.from({ length: count }, (_, at) => `Line ${at + 1}.`)],
      ['Shona'],
    );
    text = bench.texts.get(document.id)!;
    const first = text.text.indexOf('We waited');
    bench.code(document, first, first + 'We waited at the pier.'.length, code);
    for (const paragraph of text.paragraphs.slice(1)) bench.code(document, paragraph.body, paragraph.end, code);
    hits = unpackPassages(bench.state.passages[document.id]!).map((one) => ({
      documentId: document.id,
      passageId: one.id,
      start: one.start,
      end: one.end,
    }));
    evidence = await drawn(Evidence, bench, { hits }, [], { width: 900, height: 2_000 });
    await evidence.settle();
  }
  afterEach(() => TestBed.inject(Notices).dismiss());

  it('shows each passage in its context, cut between words, with who speaks and its codes', async () => {
    await show(1);
    expect(words()).toEqual(['We waited at the pier.', 'Line 1.']);
    const [before, after] = evidence.texts('article:first-of-type .context');
    expect(before).toMatch(/^…\S.* on\.$/);
    expect(after).toMatch(/^And after .*…$/);
    expect(evidence.texts('article:first-of-type .second')[0]).toMatch(/^Shona · turn 1/);
    expect(evidence.texts('h3')).toEqual(['Interview 03']);
    expect(evidence.find('.code').textContent).toContain('Waiting');
  });

  it('says which passages cannot be shown where their words are not to be read, shows the others, and tries again', async () => {
    await show(1);
    const texts = TestBed.inject(TextCache);
    const read = spyOn(texts, 'get').and.rejectWith(new Error('The disk does not answer.'));
    texts.use(null);
    await evidence.settle();
    expect(evidence.find('[role=alert]').textContent).toContain(
      '2 passages cannot be shown: the words of “Interview 03” could not be read',
    );
    expect(words()).toEqual([]);
    read.and.returnValues(Promise.resolve(text), Promise.resolve(null));
    await evidence.click(evidence.button('Try again'));
    await evidence.settle();
    expect(evidence.find('[role=alert]').textContent).toContain('1 passage cannot be shown');
    expect(words()).toEqual(['We waited at the pier.']);
  });

  it('comes a page at a time where there is much of it', async () => {
    await show(130);
    const perPage = words().length;
    expect(perPage).toBeLessThan(131);
    expect(evidence.find('nav').textContent).toContain(`passages 1 to ${perPage} of 131`);
    await evidence.click(evidence.button('After'));
    await evidence.settle();
    expect(words()[0]).toBe(`Line ${perPage}.`);
    await evidence.click(evidence.button('Before'));
    expect(words()[0]).toBe('We waited at the pier.');
  });

  it('is copied with its citation, and read where it stands', async () => {
    await show(1);
    let copied = '';
    spyOn(navigator.clipboard, 'writeText').and.callFake((text) => Promise.resolve(void (copied = text)));
    let read: Hit | undefined;
    evidence.fixture.componentInstance.read.subscribe((hit) => (read = hit));
    await evidence.click(evidence.button('Copy with citation'));
    expect(copied).toContain('We waited at the pier.');
    expect(copied).toContain('Interview 03');
    expect(TestBed.inject(Notices).current()!.text).toBe('Copied with its citation.');
    await evidence.click(evidence.button('Read in place'));
    expect(read!.passageId).toBe(hits[0]!.passageId);
  });

  it('lets passages be chosen only where that is wanted', async () => {
    await show(1);
    expect(evidence.all('input[type=checkbox]').length).toBe(0);
    evidence.fixture.componentRef.setInput('chosen', new Set<Id>());
    await evidence.settle();
    evidence.find('[aria-label="Choose passage 2"]').click();
    await evidence.settle();
    expect([...evidence.fixture.componentInstance.chosen()!]).toEqual([hits[1]!.passageId]);
  });
});
