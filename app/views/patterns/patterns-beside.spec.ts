import { deletePattern, keepPattern } from '@core/commands/patterns';
import type { Id } from '@core/model/ids';
import { EVERYTHING } from '@core/model/scope';
import { Bench } from '@core/testing/make';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { until } from '../../testing/until';
import { PatternsBeside } from './patterns-beside';

describe('two kept patterns beside each other', () => {
  let view: Drawn<PatternsBeside>;
  const ids: Record<string, Id> = {};
  const halves = () => view.all('fl-kept-half');
  const numbers = (half: number) => [...halves()[half]!.querySelectorAll('[role=gridcell]')].map((one) => one.textContent);

  beforeEach(async () => {
    const bench = new Bench();
    ids['Waiting'] = bench.addCode('Waiting');
    const document = bench.addDocument('One', ['We waited for the last boat and it was late.']);
    bench.code(document, 0, 9, ids['Waiting']!);
    bench.code(document, 5, 20, ids['Waiting']!);
    const rows = { of: 'codes', codeIds: null, withUnder: false } as const;
    const plain = {
      pattern: 'cross-table',
      rows,
      columns: { by: 'document' },
      coders: 'together',
      as: 'as they are',
      turned: false,
      empty: 'all',
    } as const;
    bench.run(keepPattern('As passages', { ...plain, counting: 'passages' }, EVERYTHING));
    bench.run(keepPattern('As documents', { ...plain, counting: 'documents' }, EVERYTHING));
    for (const one of Object.values(bench.state.tables.pattern)) ids[one.name] = one.id;
    view = await drawn(PatternsBeside, bench, { left: ids['As passages'], right: ids['As documents'] }, [analysisHere]);
    await until(() => view.all('[role=gridcell]').length === 8);
  });

  it('each show what they ask, under one heading', () => {
    expect(view.texts('h1')).toEqual(['Side by side']);
    expect(view.texts('h2')).toEqual(['As passages', 'As documents']);
    expect([numbers(0), numbers(1)]).toEqual([
      ['2', '2', '2', '2'],
      ['1', '1', '1', '1'],
    ]);
  });

  it('open their numbers each in its half', async () => {
    await view.click(halves()[1]!.querySelector<HTMLElement>('[role=gridcell]')!);
    await until(() => halves()[1]!.querySelectorAll('fl-evidence article').length === 2);
    expect(halves()[0]!.querySelectorAll('fl-evidence-side').length).toBe(0);
  });

  it('make room for another where one is deleted, and say so where none is left', async () => {
    view.session.run(deletePattern(ids['As documents']!));
    await until(() => view.texts('h2').join() === 'As passages,As passages');
    view.session.run(deletePattern(ids['As passages']!));
    await until(() => view.all('.empty').length === 1);
    expect(view.find('.empty').textContent).toContain('Nothing kept yet');
  });
});
