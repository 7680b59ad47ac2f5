import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addAttribute, deleteAttribute, setValues } from '@core/commands/attributes';
import { addCase, ownDocuments } from '@core/commands/cases';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { ScopeActions } from '../../state/study.actions';
import { selectData } from '../../state/study.selectors';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { PatternHere } from '../../testing/pattern-here';
import { until } from '../../testing/until';
import { AttributesView } from './attributes-view';

describe('attributes on the screen', () => {
  let view: Drawn<AttributesView>;
  let here: PatternHere<'attributes'>;
  const ids: Record<string, Id> = {};
  const lines = () => view.all('.line').map((one) => one.getAttribute('aria-label'));
  const against = (name: string | null) =>
    here.ask({ as: 'as they are', of: { attributeId: ids['home']! }, against: name ? { attributeId: ids[name]! } : null });

  beforeEach(async () => {
    const bench = new Bench();
    for (const [name, type] of [
      ['home', 'text'],
      ['age', 'number'],
    ] as const) {
      bench.run(addAttribute('case', name, type));
      ids[name] = Object.values(bench.state.tables.attribute).find((one) => one.name === name)!.id;
    }
    for (const [name, home, age] of [
      ['Ann', 'Saltpans', '30'],
      ['Ben', 'Saltpans', '40'],
      ['Cid', 'Northholm', '50'],
      ['Dot', '', '60'],
    ] as const) {
      bench.run(addCase(name, (ids[name] = bench.newId())));
      bench.run(ownDocuments(ids[name]!, [bench.addDocument(name, ['We waited.']).id], true));
      bench.run(
        setValues([
          { ownerId: ids[name]!, attributeId: ids['age']!, raw: age },
          ...(home ? [{ ownerId: ids[name]!, attributeId: ids['home']!, raw: home }] : []),
        ]),
      );
    }
    view = await drawn(AttributesView, bench, {}, [analysisHere]);
    here = new PatternHere(view, 'attributes');
    await against(null);
    await until(() => view.all('.line').length > 0);
  });

  it('shows how many have which value, and of how many it is not known', () => {
    expect(lines()).toEqual(['Northholm: 1', 'Saltpans: 2', 'not known: 1']);
    expect(view.find('.said').textContent).toContain('Of 4 participants in scope');
  });

  it('opens a number to whom it counts, and makes a set of them', async () => {
    await view.click(view.all('.line')[1]!);
    expect(view.texts('fl-members-side li')).toEqual(['Ann', 'Ben']);
    view.answers.text = 'At home in Saltpans';
    await view.click(view.button('Make a set'));
    const sets = Object.values(TestBed.inject(Store).selectSignal(selectData)()!.tables.set);
    expect(sets.map((one) => [one.name, one.memberIds])).toEqual([['At home in Saltpans', [ids['Ann']!, ids['Ben']!]]]);
  });

  it('holds two against each other, and each cell opens to as many as it says', async () => {
    await against('age');
    const cell = (name: string) => view.all('[role=gridcell]').find((one) => one.getAttribute('aria-label')!.startsWith(name))!;
    expect(cell('Saltpans, all').textContent).toBe('2');
    expect(cell('Northholm, 40').textContent).toBe('–');
    await view.click(cell('Saltpans, 40'));
    expect(view.texts('fl-members-side li')).toEqual(['Ben']);
    await view.click(cell('all, all'));
    expect(view.texts('fl-members-side li').length).toBe(4);
  });

  it('follows the scope, and what becomes of an attribute', async () => {
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [{ ofCases: [ids['Ann']!] }] } }));
    await here.settled();
    expect(lines()).toEqual(['Saltpans: 1']);
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [] } }));
    view.session.run(deleteAttribute(ids['home']!));
    await here.settled();
    // another one stands in its place
    expect(view.find('h1').textContent).toBe('age');
  });
});
