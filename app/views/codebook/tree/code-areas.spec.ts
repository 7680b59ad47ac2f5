import { added } from '@core/change/change';
import { codePlace } from '@core/commands/passages';
import { Bench } from '@core/testing/make';
import { inTreeOrder } from '@core/codebook/tree';
import { drawn } from '../../../testing/component-with-study';
import { CodeAreas } from './code-areas';

describe('the codebook as areas', () => {
  it('says so where no code is carried, and draws as soon as one is', async () => {
    const bench = new Bench();
    const code = bench.addCode('Waiting');
    const empty = await drawn(CodeAreas, bench, { rows: inTreeOrder(bench.state.tables.code) });
    expect(empty.host.textContent).toContain('No code is carried by a passage where you are looking.');
    expect(empty.find('.frame').hidden).toBeTrue();
    // a document that is coded from here on brings the picture up
    const document = bench.addDocument('One', ['We waited at the pier.']);
    empty.session.run(() => ({
      change: [added('document', document), added('text', bench.texts.get(document.id)!)],
      sentence: 'brought in',
    }));
    empty.session.run(codePlace({ documentId: document.id, place: { start: 0, end: 9 }, codeIds: [code] }));
    await empty.settle();
    expect(empty.find('.frame').hidden).toBeFalse();
  });
});
