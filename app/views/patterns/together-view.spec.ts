import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { codePlace } from '@core/commands/passages';
import { addCodeSet } from '@core/commands/code-sets';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { selectData } from '../../state/study.selectors';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { PatternHere } from '../../testing/pattern-here';
import { until } from '../../testing/until';
import { TogetherView } from './together-view';

describe('codes together on the screen', () => {
  let view: Drawn<TogetherView>;
  let here: PatternHere<'together'>;
  const ids: Record<string, Id> = {};
  const links = () => view.all('.link').map((one) => one.getAttribute('aria-label'));

  beforeEach(async () => {
    const bench = new Bench();
    for (const name of ['Waiting', 'Boats', 'Help', 'Calm']) ids[name] = bench.addCode(name);
    const one = bench.addDocument('One', ['We waited for the last boat and it was late.']);
    ids['One'] = one.id;
    bench.code(one, 0, 9, ids['Waiting']!);
    bench.code(one, 5, 20, ids['Boats']!);
    bench.code(one, 8, 25, ids['Boats']!);
    bench.code(one, 6, 12, ids['Help']!);
    bench.code(one, 30, 40, ids['Calm']!);
    bench.run(addCodeSet('Of the boat', [ids['Waiting']!, ids['Boats']!], null));
    ids['boat set'] = Object.keys(bench.state.tables.codeSet)[0]!;
    bench.run(addCodeSet('Of the rest', [ids['Calm']!], null));
    view = await drawn(TogetherView, bench, {}, [analysisHere]);
    here = new PatternHere(view, 'together');
    await until(() => view.all('[role=gridcell]').length > 0);
  });

  it('draws what goes together as links, the broadest the strongest, each opening to its pairs', async () => {
    await here.choose('as a table', 'as links');
    expect(links()).toEqual(['Waiting with Boats: 2', 'Boats with Help: 2', 'Waiting with Help: 1']);
    const widths = view.all('.link .line').map((one) => Number(one.getAttribute('stroke-width')));
    expect(widths).toEqual([9, 9, 4.5]);
    expect(view.all('.node').length).toBe(3);
    view.all('.link')[2]!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await until(() => view.all('fl-evidence article').length === 2);
    expect(view.find('[data-behind]').textContent).toBe('1 pair: 2 passages');
  });

  it('goes from link to link by the arrow keys', async () => {
    await here.choose('as a table', 'as links');
    const [first] = view.all('.link');
    first!.focus();
    first!.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }));
    await until(() => document.activeElement === view.all('.link')[1]);
  });

  it('draws a flow from some codes to others, in which nothing leads to itself', async () => {
    await here.ask({
      rows: { of: 'codes', codeIds: [ids['Waiting']!, ids['Help']!], withUnder: false },
      to: { of: 'codes', codeIds: [ids['Boats']!, ids['Help']!, ids['Calm']!], withUnder: false },
    });
    await here.choose('as a table', 'as a flow from one group to another');
    expect(links()).toEqual(['Waiting with Boats: 2', 'Help with Boats: 2', 'Waiting with Help: 1']);
    view.all('.link')[0]!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await until(() => view.all('fl-evidence article').length === 3);
    expect(view.find('fl-evidence-side h2').textContent).toBe('Waiting and Boats');
    expect(view.find('[data-behind]').textContent).toBe('2 pairs: 3 passages');
    // back in the table there are the first codes alone, and nothing of the flow is open
    await here.choose('as a flow from one group to another', 'as a table');
    expect(view.texts('.name button')).toEqual(['Waiting', 'Help']);
    expect(view.all('fl-evidence-side').length).toBe(0);
    expect('shown' in here.asked()).toBeFalse();
  });

  it('asks what a line of a flow shows as a question', async () => {
    await here.ask({ shown: 'flow', by: 'near', within: { count: 2, unit: 'paragraph' } });
    view.all('.link')[0]!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await until(() => view.all('fl-evidence article').length > 0);
    view.answers.text = 'So near';
    await view.click(view.button('Keep as a query'));
    const [query] = Object.values(TestBed.inject(Store).selectSignal(selectData)()!.tables.query);
    expect(query!.question.all).toEqual([
      jasmine.objectContaining({ carries: 'any' }),
      jasmine.objectContaining({ standing: 'near', within: { count: 2, unit: 'paragraph' } }),
    ]);
    // what it leads to is asked for by its own id, not by its place in the flow
    const { to } = query!.question.all[1] as { to: { codes: { codeIds: Id[] } } };
    expect(Object.values(ids)).toContain(to.codes.codeIds[0]!);
  });

  it('follows what is coded, and lists what never meets', async () => {
    await here.choose('as a table', 'the pairs that never meet');
    expect(view.all('.pairs li').length).toBe(3);
    view.session.run(codePlace({ documentId: ids['One']!, place: { start: 0, end: 44 }, codeIds: [ids['Calm']!] }));
    await until(() => view.find('.pairs').textContent!.includes('Every two of them meet somewhere.'));
  });

  it('holds chosen sets of codes together, and all of them where none is chosen', async () => {
    await here.ask({ rows: { of: 'code sets', setIds: null } });
    expect(view.texts('.name button')).toEqual(['Of the boat', 'Of the rest']);
    expect(view.button('all of them')).toBeDefined();
    await here.ask({ rows: { of: 'code sets', setIds: [ids['boat set']!] } });
    expect(view.find('.empty').textContent).toContain('Choose at least two');
  });
});
