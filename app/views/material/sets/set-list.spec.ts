import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addAttribute, attributesOf, setValues } from '@core/commands/attributes';
import { addCase } from '@core/commands/cases';
import { codePlace } from '@core/commands/passages';
import { deleteQuery, saveQuery } from '@core/commands/queries';
import { addSet } from '@core/commands/sets';
import type { Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { PassageCondition } from '@core/model/passage-condition';
import { Bench } from '@core/testing/make';
import { ScopeChoice } from '../../../state/scope-choice';
import { selectQueries, selectScopedDocuments, selectSets } from '../../../state/study.selectors';
import { analysisHere } from '../../../testing/analysis-here';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { until } from '../../../testing/until';
import { SetList } from './set-list';

describe('sets of documents and cases', () => {
  let list: Drawn<SetList>;
  const members = () => list.texts('.members li');
  const make = async (name: string) => {
    await list.type('form .field input', name);
    list.find('form').dispatchEvent(new Event('submit', { cancelable: true }));
    await list.settle();
  };
  const part = async (at: number, what: string, how: string, value?: string) => {
    const row = () => list.all('.condition')[at]!;
    await list.type(row().querySelectorAll('select')[0]!, what, 'change');
    await list.type(row().querySelectorAll('select')[1]!, how, 'change');
    if (value !== undefined) await list.type(row().querySelector('input')!, value);
  };
  const ids: Record<string, Id> = {};

  beforeEach(async () => {
    const bench = new Bench();
    for (const name of ['Shona', 'Calum', 'Mhairi']) bench.run(addCase(name, (ids[name] = bench.newId())));
    bench.run(addAttribute('case', 'age', 'number'));
    bench.run(addAttribute('case', 'home', 'choice', ['Gull Bay', 'Saltpans']));
    for (const one of attributesOf(bench.state, 'case')) ids[one.name] = one.id;
    const values: readonly (readonly [string, string, string])[] = [
      ['Shona', 'age', '44'],
      ['Calum', 'age', '9'],
      ['Shona', 'home', 'Gull Bay'],
      ['Calum', 'home', 'Gull Bay'],
    ];
    bench.run(setValues(values.map(([who, what, raw]) => ({ ownerId: ids[who]!, attributeId: ids[what]!, raw }))));
    bench.run(addSet('case', 'By hand', [ids['Mhairi']!, ids['Shona']!]));
    list = await drawn(SetList, bench);
  });

  it('filled by hand let members go', async () => {
    expect(members()).toEqual(['Mhairi', 'Shona']);
    await list.click(list.button('Take out Mhairi'));
    expect(members()).toEqual(['Shona']);
  });

  it('defined by a condition fill themselves, and say by what', async () => {
    await list.click(list.button('Live set of participants'));
    await part(0, ids['home']!, 'is', 'Gull Bay');
    await list.click(list.button('and'));
    await part(1, ids['age']!, 'is under', '40');
    await make('Young in the bay');
    expect(list.host.textContent).toContain('Fills itself: home is Gull Bay and age is under 40.');
    expect(members()).toEqual(['Calum']);
    list.session.run(setValues([{ ownerId: ids['Shona']!, attributeId: ids['age']!, raw: '39' }]));
    await list.settle();
    expect(members()).toEqual(['Calum', 'Shona']);
    expect(list.all('.members button').length).toBe(0);
  });

  it('refuse a value that cannot be held against the attribute, and stay open', async () => {
    await list.click(list.button('Live set of participants'));
    await part(0, ids['age']!, 'is over', 'old');
    await make('Old');
    expect(list.find('[role=alert]').textContent).toContain('“old” cannot be held against age.');
    expect(list.all('.condition').length).toBe(1);
    await part(0, ids['age']!, 'is not known');
    await make('Ageless');
    expect(members()).toEqual(['Mhairi']);
  });

  it('of documents ask for kind and folder', async () => {
    await list.click(list.button('Live set of documents'));
    await part(0, 'kind', 'is', 'article');
    await make('Articles');
    expect(list.host.textContent).toContain('Fills itself: kind is article.');
    expect(members()).toEqual(['Nothing is in it at present.']);
  });

  it('are renamed and deleted', async () => {
    list.answers.text = 'Mine';
    await list.click(list.button('Rename'));
    expect(list.texts('h2.title')).toEqual(['Mine']);
    await list.click(list.button('Delete'));
    expect(list.host.textContent).toContain('No sets yet');
  });

  it('give up a part of their condition, change it, and can be filled by hand from then on', async () => {
    await list.click(list.button('Live set of participants'));
    await part(0, ids['age']!, 'is over', '30');
    await list.click(list.button('and'));
    await part(1, ids['age']!, 'is known');
    await list.click(list.button('Take away condition 2'));
    expect(list.all('.condition').length).toBe(1);
    await make('Over thirty');
    const before = members();
    await list.click(list.button('Change the condition'));
    await part(0, ids['age']!, 'is known');
    list.find('form').dispatchEvent(new Event('submit', { cancelable: true }));
    await list.settle();
    expect(members().length).toBeGreaterThan(before.length);
    await list.click(list.button('Fill it by hand from now on'));
    expect(list.all('.members button').length).toBe(members().length);
    list.session.undo();
    await list.settle();
    expect(list.all('.members button').length).toBe(0);
  });
});

describe('live sets of what a kept query finds', () => {
  let list: Drawn<SetList>;
  let worry: Id;
  let documents: Document[];
  const members = () => list.texts('.members li').join(', ');
  const makeOf = async (query: Id) => {
    await list.click(list.button('Live set of documents'));
    await list.type('.condition select', query, 'change');
    await list.type('form .field input', 'Worried');
    list.find('form').dispatchEvent(new Event('submit', { cancelable: true }));
    await list.settle();
  };
  const keep = (): Id => {
    const carries: PassageCondition = {
      carries: 'any',
      codes: { codeIds: [worry], setIds: [], withUnder: false },
      reach: 'passage',
    };
    list.session.run(saveQuery('Worries', { all: [carries] }));
    return Object.keys(TestBed.inject(Store).selectSignal(selectQueries)())[0]!;
  };
  const code = (at: number) =>
    list.session.run(codePlace({ documentId: documents[at]!.id, place: { start: 0, end: 5 }, codeIds: [worry] }));

  beforeEach(async () => {
    const bench = new Bench();
    worry = bench.addCode('Worry');
    documents = ['One', 'Two', 'Three'].map((title) => bench.addDocument(title, ['We waited at the pier.']));
    bench.code(documents[0]!, 0, 9, worry);
    list = await drawn(SetList, bench, {}, [analysisHere]);
    // keeps known what live sets hold, as it does wherever there is a scope
    TestBed.inject(ScopeChoice);
  });

  it('are made by naming the query, say what they ask for, and follow every coding', async () => {
    await makeOf(keep());
    expect(list.host.textContent).toContain('Fills itself: “Worries” finds something.');
    await until(
      () => members() === 'One',
      () => list.settle(),
    );
    code(2);
    await until(
      () => members() === 'One, Three',
      () => list.settle(),
    );
    await list.click(list.button('Change the condition'));
    expect([...list.find('.condition').querySelectorAll('select')].map((one) => one.selectedOptions[0]!.textContent.trim())).toEqual([
      '“Worries”',
      'finds something',
    ]);
    await list.type(list.all('.condition select')[1]!, 'finds nothing', 'change');
    list.find('form').dispatchEvent(new Event('submit', { cancelable: true }));
    await list.settle();
    await until(
      () => members() === 'Two',
      () => list.settle(),
    );
  });

  it('are filled by hand when the query is deleted, with what is in them then', async () => {
    const query = keep();
    await makeOf(query);
    await until(
      () => members() === 'One',
      () => list.settle(),
    );
    code(1);
    // what was not worked out of the study of now is not put down as if it were
    list.session.run(deleteQuery(query));
    expect(list.session.refused.at(-1)).toContain('“Worried” is still being worked out');
    await until(
      () => members() === 'One, Two',
      () => list.settle(),
    );
    list.session.run(deleteQuery(query));
    await list.settle();
    expect(list.all('.members button').length).toBe(2);
    list.session.undo();
    await list.settle();
    await until(
      () => members() === 'One, Two' && list.all('.members button').length === 0,
      () => list.settle(),
    );
  });

  it('narrow the scope to what they hold', async () => {
    await makeOf(keep());
    await until(
      () => members() === 'One',
      () => list.settle(),
    );
    const [setId] = Object.keys(TestBed.inject(Store).selectSignal(selectSets)());
    await TestBed.inject(ScopeChoice).choose({ parts: [{ liesIn: { documentIds: [], folderIds: [], setIds: [setId!] } }] });
    const scoped = TestBed.inject(Store).selectSignal(selectScopedDocuments);
    expect(scoped().map((document) => document.title)).toEqual(['One']);
    code(1);
    await until(
      () => scoped().length === 2,
      () => list.settle(),
    );
  });
});
