import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { unpackPassages } from '@core/passages/columns';
import { Bench } from '@core/testing/make';
import { Notices } from '../../../state/notices';
import { selectData } from '../../../state/study.selectors';
import { TextCache } from '../../../state/text-cache';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { until } from '../../../testing/until';
import { Replace } from './replace';

describe('finding and replacing words', () => {
  let page: Drawn<Replace>;
  let ids: readonly string[];
  const state = () => TestBed.inject(Store).selectSignal(selectData)()!;
  const textOf = (at: number) => TestBed.inject(TextCache).peek(ids[at]!)!.text;
  const hits = () => page.texts('.hit s');
  const look = async (words: string, by = '') => {
    const [find, other] = page.all('.field input') as HTMLInputElement[];
    await page.type(find!, words);
    await page.type(other!, by);
    await found();
  };
  const found = () =>
    until(
      () => page.find('.body').getAttribute('aria-busy') === 'false',
      () => page.fixture.detectChanges(),
    );
  const set = async (label: string, on: boolean) => {
    const box = page
      .all('label')
      .find((one) => one.textContent.includes(label))!
      .querySelector('input')!;
    if (box.checked !== on) box.click();
    await page.settle();
  };
  const replace = async () => {
    page.find('form').dispatchEvent(new Event('submit', { cancelable: true }));
    await page.settle();
  };
  const coded = () =>
    Object.values(state().passages).flatMap((columns) =>
      unpackPassages(columns).map((one) => TestBed.inject(TextCache).peek(one.documentId)!.text.slice(one.start, one.end)),
    );

  beforeEach(async () => {
    const bench = new Bench();
    const code = bench.addCode('Help');
    const documents = [
      bench.addDocument('Interview with Shona', ['Shona: Shona is my name. We waited for the boat.'], ['Shona']),
      bench.addDocument('Notes', ['I met shona at the Shonaville pier.']),
    ];
    ids = documents.map((one) => one.id);
    bench.code(documents[0]!, 25, 34, code);
    page = await drawn(Replace, bench, {}, [], { width: 1_100, height: 500 });
  });
  afterEach(() => TestBed.inject(Notices).dismiss());

  it('shows every place first, and leaves out what is not ticked', async () => {
    await set('capitals as written', false);
    await set('whole words only', false);
    await look('shona', 'Moira');
    expect(hits()).toEqual(['Shona', 'Shona', 'shona', 'Shona']);
    expect(page.button('Replace in 4 places of 2 documents')).toBeDefined();
    (page.all('.hit input')[3] as HTMLInputElement).click();
    await page.settle();
    expect(page.button('Replace in 3 places of 2 documents')).toBeDefined();
    expect(textOf(1)).toContain('shona');
  });

  it('replaces in texts, titles and speakers as one step, with passages on their words', async () => {
    await look('Shona', 'Moira Tennant');
    await replace();
    expect(textOf(0)).toBe('Moira Tennant: Moira Tennant is my name. We waited for the boat.');
    expect(coded()).toEqual(['We waited']);
    const [first] = Object.values(state().tables.document);
    expect([first!.title, first!.speakers[0]!.name]).toEqual(['Interview with Moira Tennant', 'Moira Tennant']);
    expect(page.session.done.length).toBe(1);
    page.session.undo();
    expect(coded()).toEqual(['We waited']);
    expect(textOf(0)).toContain('Shona is my name');
  });

  it('replaces nothing that was found for other words', async () => {
    await look('Shona', 'Moira');
    await page.type(page.all('.field input')[0]!, 'boat');
    await replace();
    expect(page.session.done).toEqual([]);
    await found();
    expect(hits()).toEqual(['boat']);
    await replace();
    expect(textOf(0)).toBe('Shona: Shona is my name. We waited for the Moira.');
  });

  it('keeps to whole words and to capitals as written when asked', async () => {
    await set('capitals as written', false);
    await set('whole words only', true);
    await look('shona');
    expect(hits()).toEqual(['Shona', 'Shona', 'shona']);
    await set('capitals as written', true);
    await look('shona');
    expect(hits()).toEqual(['shona']);
  });

  it('offers the key of what was replaced as a file of its own', async () => {
    expect(page.host.textContent).not.toContain('Save the key file');
    await look('Shonaville', 'the village');
    await replace();
    expect(page.button('Save the key file')).toBeDefined();
    expect(JSON.stringify(state())).not.toContain('Shonaville');
  });

  it('says so where the words stand nowhere', async () => {
    await look('ferry');
    expect(page.find('.empty').textContent).toContain('These words stand in no document here.');
  });
});
