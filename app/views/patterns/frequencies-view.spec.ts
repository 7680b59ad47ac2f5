import { editCode } from '@core/commands/codes';
import { codePlace } from '@core/commands/passages';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { PatternHere } from '../../testing/pattern-here';
import { until } from '../../testing/until';
import { FrequenciesView } from './frequencies-view';

describe('frequencies on the screen', () => {
  let view: Drawn<FrequenciesView>;
  let here: PatternHere<'frequencies'>;
  const ids: Record<string, Id> = {};
  const number = (name: string, measure: string) =>
    view.all('button.number').find((one) => one.getAttribute('aria-label')!.startsWith(`${name}, ${measure}: `))!;

  beforeEach(async () => {
    const bench = new Bench();
    ids['Sea'] = bench.addCode('Sea');
    ids['Waiting'] = bench.addCode('Waiting', ids['Sea']);
    ids['Help'] = bench.addCode('Help');
    const one = bench.addDocument('One', ['We waited for the last boat and it was late.']);
    ids['One'] = one.id;
    bench.code(one, 0, 9, ids['Waiting']!);
    bench.code(one, 10, 20, ids['Waiting']!, ids['Help']!);
    view = await drawn(FrequenciesView, bench, {}, [analysisHere]);
    here = new PatternHere(view, 'frequencies');
    await until(() => view.all('button.number').length > 0);
  });

  it('counts by every measure, with what is under it, and all together once', async () => {
    expect(['Sea', 'Waiting', 'Help', 'any of them'].map((name) => number(name, 'passages').textContent!.trim())).toEqual([
      '2',
      '2',
      '1',
      '2',
    ]);
    await view.click(number('Waiting', 'passages'));
    await until(() => view.all('fl-evidence article').length === 2);
    view.session.run(codePlace({ documentId: ids['One']!, place: { start: 22, end: 27 }, codeIds: [ids['Waiting']!] }));
    await until(() => view.all('fl-evidence article').length === 3);
    expect(number('Sea', 'passages').textContent!.trim()).toBe('3');
  });

  it('is drawn as areas or as a pie, with the same numbers in a table behind it that open as well', async () => {
    await here.choose('in a list with bars', 'as a pie');
    // seen by those who come to it by the keys
    const table = view.find('fl-share-chart table');
    const inside = view.all('fl-share-chart button')[0]!;
    expect(table.offsetWidth).toBeLessThan(2);
    inside.focus();
    expect(table.offsetWidth).toBeGreaterThan(60);
    inside.blur();
    expect(view.texts('fl-share-chart tr').map((row) => row.replace(/\s+/g, ' '))).toEqual(['Waiting2', 'Help1']);
    await view.click(view.all('fl-share-chart button')[1]!);
    await until(() => view.all('fl-evidence article').length === 1);
    expect(view.texts('fl-evidence-side h2')).toEqual(['Help']);
    await here.choose('as a pie', 'as areas');
    await until(() => (view.find<HTMLCanvasElement>('fl-share-chart canvas').width ?? 0) > 300);
  });

  it('is a cloud of what is found, each name over the thread of its code, opening to its passages', async () => {
    await here.choose('in a list with bars', 'as a cloud');
    const words = () => view.all('fl-word-cloud .word');
    expect(words().map((one) => one.getAttribute('aria-label'))).toEqual(['Help: 1 passage', 'Sea: 2 passages', 'Waiting: 2 passages']);
    const sizes = view.all('fl-word-cloud text').map((one) => Number(one.getAttribute('font-size')));
    expect(sizes[1]).toBe(40);
    expect(sizes[0]).toBeLessThan(40);
    expect(view.all('fl-word-cloud line').length).toBe(3);
    words()[0]!.focus();
    await view.press(words()[0]!, 'ArrowRight');
    await until(() => document.activeElement === words()[1]);
    await view.press(words()[1]!, 'Enter');
    await until(() => view.all('fl-evidence article').length === 2);
    expect(here.asked().shown).toBe('cloud');
    // a name of any length stays on the picture
    view.session.run(editCode(ids['Sea']!, { name: 'Wide '.repeat(40) }));
    await until(() => view.texts('fl-word-cloud text').some((one) => one.startsWith('Wide')));
    const boxes = view.all('fl-word-cloud .reach').map((one) => Number(one.getAttribute('x')) + Number(one.getAttribute('width')));
    expect(Math.max(...boxes)).toBeLessThanOrEqual(966);
  });

  it('leaves out what is found less often than asked for, and says so', async () => {
    await here.ask({ minimum: 9 });
    expect(view.find('.empty').textContent).toContain('Nothing is found so often');
    expect(view.button('in a list with bars')).toBeDefined();
  });
});
