import { addAttribute, setValues } from '@core/commands/attributes';
import { addCase, ownDocuments } from '@core/commands/cases';
import { deleteCodes } from '@core/commands/codes';
import { deleteAttribute } from '@core/commands/attributes';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { PatternHere } from '../../testing/pattern-here';
import { until } from '../../testing/until';
import { SimilarityView } from './similarity-view';

describe('similarity on the screen', () => {
  let view: Drawn<SimilarityView>;
  let here: PatternHere<'similarity'>;
  const ids: Record<string, Id> = {};
  const points = () => view.all('.point').map((one) => one.getAttribute('aria-label'));

  beforeEach(async () => {
    const bench = new Bench();
    for (const name of ['Waiting', 'Boats', 'Help', 'Unused']) ids[name] = bench.addCode(name);
    bench.run(addAttribute('case', 'age', 'number'));
    ids['age'] = Object.keys(bench.state.tables.attribute)[0]!;
    for (const [at, title] of ['One', 'Two', 'Three'].entries()) {
      const document = bench.addDocument(title, ['We waited for the last boat and it was late.']);
      bench.run(addCase(title, (ids[title] = bench.newId())));
      bench.run(ownDocuments(ids[title]!, [document.id], true));
      bench.run(setValues([{ ownerId: ids[title]!, attributeId: ids['age']!, raw: String(20 + 10 * at) }]));
      if (title === 'Three') bench.code(document, 0, 9, ids['Help']!);
      else for (const code of ['Waiting', 'Boats']) bench.code(document, 0, 9, ids[code]!);
    }
    view = await drawn(SimilarityView, bench, {}, [analysisHere]);
    here = new PatternHere(view, 'similarity');
    await until(() => view.all('.point').length > 0);
  });

  it('lays out what is found somewhere, in as many parts as are asked for', async () => {
    await here.ask({ clusters: 2 });
    expect(points()).toEqual(['Waiting, part 1', 'Boats, part 1', 'Help, part 2']);
    expect(view.find('.said').textContent).toContain('Stress 0.00');
    await here.ask({ clusters: 1 });
    expect(points().every((one) => one!.endsWith('part 1'))).toBeTrue();
  });

  it('lists the nearest, and draws a tree that is cut where it is asked for', async () => {
    await here.choose('on a plan', 'as a list of the nearest');
    const near = view.all('tbody tr').map((row) => row.textContent!.replace(/\s+/g, ' ').trim());
    expect(near.find((row) => row.includes('Waiting'))).toContain('Boats 1.00');
    expect(near.find((row) => row.includes('Help'))).toContain('nothing is like it');
    await here.choose('as a list of the nearest', 'as a tree');
    expect(view.all('.leaf').length).toBe(3);
    expect(view.all('.branch').length).toBe(2);
  });

  it('opens a thing to its passages, by the keys as well', async () => {
    const [first] = view.all('.point');
    first!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await until(() => view.all('fl-evidence article').length === 2);
    expect(view.texts('fl-evidence-side h2')).toEqual(['Waiting']);
    expect(view.find('[data-behind]').textContent).toBe('2 passages, 2 participants');
    await here.ask({ compared: 'cases' });
    (view.all('.point').find((one) => one.getAttribute('aria-label')!.startsWith('Three')) as HTMLElement).dispatchEvent(
      new MouseEvent('click', { bubbles: true }),
    );
    await until(() => view.all('fl-evidence article').length === 1);
  });

  it('compares participants by attributes as well, and no longer by one that is gone', async () => {
    await here.ask({ compared: 'cases', attributeIds: [ids['age']!] });
    expect(view.find('.said').textContent).toContain('Gower');
    view.session.run(deleteAttribute(ids['age']!));
    await here.settled();
    expect(here.asked().attributeIds).toEqual([]);
    expect(view.find('.said').textContent).toContain('Jaccard');
  });

  it('says what is needed where there is nothing to compare', async () => {
    view.session.run(deleteCodes([ids['Waiting']!, ids['Boats']!]));
    await here.settled();
    expect(view.find('.empty').textContent).toContain('At least two codes are needed');
  });
});
