import { addCode } from '@core/commands/codes';
import type { AskedPattern } from '@core/model/pattern';
import { Bench } from '@core/testing/make';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { until } from '../../testing/until';
import { lackingFor } from './lacking';
import { SaturationView } from './saturation-view';
import { TogetherView } from './together-view';

describe('a pattern of a study that has little yet', () => {
  const said = (view: Drawn<unknown>) => view.texts('.empty strong').filter((_, at) => view.all('.empty')[at]!.offsetHeight > 0);

  it('says that there are no documents, whatever it is set to', async () => {
    const view = await drawn(SaturationView, new Bench(), {}, [analysisHere]);
    expect(said(view)).toEqual(['No documents yet']);
    expect(view.find<HTMLAnchorElement>('.empty a').getAttribute('href')).toMatch(/material\/import$/);
  });

  it('says that there are no codes until there are', async () => {
    const bench = new Bench();
    bench.addDocument('One', ['We waited for the last boat.']);
    const view = await drawn(TogetherView, bench, {}, [analysisHere]);
    await until(() => said(view).join() === 'No codes yet');
    view.session.run(addCode({ name: 'Waiting', parentId: null }));
    await until(() => said(view).join() !== 'No codes yet');
  });

  it('asks for no codes where they are not what is looked for', () => {
    const has = { documents: true, codes: false };
    const queries = { pattern: 'frequencies', rows: { of: 'queries', queryIds: null } } as AskedPattern;
    expect(lackingFor(queries, has)).toBeNull();
    expect(lackingFor({ ...queries, rows: { of: 'top codes' } } as AskedPattern, has)).toBe('codes');
    expect(lackingFor({ pattern: 'words' } as AskedPattern, has)).toBeNull();
    expect(lackingFor({ pattern: 'attributes' } as AskedPattern, { documents: false, codes: false })).toBeNull();
  });
});
