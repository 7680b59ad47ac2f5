import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addAttribute, setValues } from '@core/commands/attributes';
import { joinCodes } from '@core/commands/join-codes';
import { deleteCode } from '@core/commands/codes';
import { addMemo } from '@core/commands/memos';
import { addSet } from '@core/commands/sets';
import { useRatings } from '@core/commands/study';
import { saveQuery } from '@core/commands/queries';
import type { Id } from '@core/model/ids';
import { unpackPassages } from '@core/passages/columns';
import type { PassageCondition } from '@core/model/passage-condition';
import { Bench } from '@core/testing/make';
import { selectCodes, selectData, selectQueries, selectSets } from '../../state/study.selectors';
import { ScopeActions } from '../../state/study.actions';
import { TextCache } from '../../state/text-cache';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { until } from '../../testing/until';
import { Passages } from './passages';

describe('asking for passages', () => {
  let queries: Drawn<Passages>;
  const codes: Record<string, Id> = {};
  const summary = () => queries.find('[data-summary]').textContent;
  const kept = () => Object.values(TestBed.inject(Store).selectSignal(selectQueries)());
  const overlay = async (name: string) => {
    const entry = [...document.querySelectorAll<HTMLElement>('.mat-mdc-menu-panel [mat-menu-item]')].find(
      (one) => one.textContent.trim() === name,
    );
    if (!entry) throw new Error(`There is no entry “${name}”.`);
    entry.click();
    await queries.settle();
  };
  const tick = async (...names: string[]) => {
    for (const name of names) {
      const label = queries.all('fl-choose-codes label').find((one) => one.textContent.includes(name))!;
      label.querySelector('input')!.click();
      await queries.settle();
    }
    await queries.press('fl-choose-codes input', 'Escape');
  };
  /** Begins a question that asks for one of some codes. */
  const choose = async (...names: string[]) => {
    await queries.click(queries.button('Choose codes'));
    await tick(...names);
  };
  /** Turns a part into something else. */
  const turn = async (from: string, to: string) => {
    await queries.click(queries.button(from));
    await overlay(to);
  };
  const carrying = (...names: string[]): PassageCondition => ({
    carries: 'any',
    codes: { codeIds: names.map((name) => codes[name]!), setIds: [], withUnder: false },
    reach: 'passage',
  });

  beforeEach(async () => {
    const bench = new Bench();
    codes['Crossing'] = bench.addCode('Crossing');
    codes['Waiting'] = bench.addCode('Waiting', codes['Crossing']);
    codes['Worry'] = bench.addCode('Worry');
    codes['Relief'] = bench.addCode('Relief');
    const [one, two] = ['One', 'Two'].map((title) => bench.addDocument(title, ['We waited at the pier and we worried all night long.']));
    bench.code(one!, 0, 9, codes['Waiting'], codes['Worry']);
    bench.code(one!, 10, 20, codes['Waiting']);
    bench.code(two!, 22, 40, codes['Worry']);
    queries = await drawn(Passages, bench, {}, [analysisHere]);
    for (const text of bench.texts.values()) TestBed.inject(TextCache).put(text, null);
  });

  it('begins by saying what can be asked', () => {
    expect(queries.find('.empty').textContent).toContain('Say in the sentence above what they do');
    expect(queries.all('[data-summary]').length).toBe(0);
  });

  it('opens what is to be chosen under its word, and moves nothing by it', async () => {
    await queries.click(queries.button('Choose codes'));
    const list = queries.find('fl-choose-several').getBoundingClientRect();
    const word = queries.find('fl-carries-part .anchor').getBoundingClientRect();
    expect([Math.round(list.left - word.left), Math.round(list.top - word.bottom)]).toEqual([0, 2]);
    await queries.press('fl-choose-codes input', 'Escape');
    expect(queries.find('fl-carries-part .anchor').getBoundingClientRect().top).toBe(word.top);
    await queries.click(queries.button('given by anyone'));
    const given = queries.find('.popover').getBoundingClientRect();
    expect(Math.round(given.top - queries.find('fl-given-part .anchor').getBoundingClientRect().bottom)).toBe(2);
  });

  it('answers any, all and none of some codes, and takes a code back out of the sentence', async () => {
    await choose('Waiting', 'Worry');
    expect(summary()).toBe('3 passages in 2 documents');
    await turn('any of', 'all of');
    expect(summary()).toBe('1 passage in 1 document');
    await turn('all of', 'none of');
    expect(summary()).toBe('0 passages in 0 documents');
    await queries.click(queries.button('Without Waiting'));
    expect(summary()).toBe('1 passage in 1 document');
  });

  it('says of each part how many it holds of, and how many it leaves', async () => {
    await choose('Waiting');
    await queries.click(queries.button('and'));
    await overlay('not: none of several things');
    await tick('Worry');
    expect(summary()).toBe('1 passage in 1 document');
    expect(queries.texts('fl-condition-list .count')).toEqual(['2', '2', '1', '1']);
    await queries.click(queries.button('Take away part 1'));
    expect(queries.texts('fl-condition-list .count')).toEqual(['1', '1']);
  });

  it('asks how passages stand to others that are asked for in turn', async () => {
    await choose('Waiting');
    await queries.click(queries.button('and'));
    await overlay('overlap, lie near or beside others');
    await tick('Worry');
    expect(summary()).toBe('2 passages in 1 document');
    await turn('come within', 'come after');
    expect(summary()).toBe('1 passage in 1 document');
    await turn('come after', 'overlap');
    expect(summary()).toBe('1 passage in 1 document');
  });

  it('does not ask for what is still to be chosen', async () => {
    queries.session.run(saveQuery('Worries', { all: [carrying('Worry')] }));
    await choose('Waiting');
    await queries.click(queries.button('and'));
    await overlay('answer a kept query');
    expect(summary()).toBe('2 passages in 1 document');
    expect(queries.texts('fl-condition-list .count')).toEqual(['2', '2']);
    await turn('choose one', 'Worries');
    expect(summary()).toBe('1 passage in 1 document');
  });

  it('counts a category by itself, or with what is under it where that is the step that brings something back', async () => {
    await choose('Crossing');
    expect(queries.find('.empty').textContent).toContain('No passage answers this');
    expect(queries.texts('.empty li')).toEqual(['with what is under the codes2 passages']);
    await queries.click(queries.button('with what is under the codes'));
    expect(summary()).toBe('2 passages in 1 document');
    await turn('with what is under it', 'by itself');
    expect(summary()).toBe('0 passages in 0 documents');
  });

  it('does more with what is chosen: another code in place of one, a comment, a memo linked to all, a set', async () => {
    await choose('Waiting');
    await queries.click(queries.button('Choose all'));
    await queries.click(queries.button('Do more'));
    queries.answers.text = 'Compare.';
    await overlay('Comment…');
    const data = () => TestBed.inject(Store).selectSignal(selectData)()!;
    expect(Object.values(data().passages).flatMap((columns) => columns.comments.map((one) => one.text))).toEqual(['Compare.', 'Compare.']);
    queries.session.run(addSet('document', 'Night talk', []));
    await queries.settle();
    await queries.click(queries.button('Do more'));
    await overlay('Put their documents in a set');
    await overlay('Night talk');
    expect(Object.values(data().tables.set)[0]!.memberIds.length).toBe(1);
    queries.answers.text = 'On waiting';
    await queries.click(queries.button('Do more'));
    await overlay('Write a memo about them…');
    const [memo] = Object.values(data().tables.memo);
    expect([memo!.title, memo!.about?.type, memo!.also?.length]).toEqual(['On waiting', 'passage', 1]);
  });

  it('puts another code in place of one on what is chosen, and rates it, where the study rates', async () => {
    queries.session.run(useRatings(5));
    await choose('Waiting');
    await queries.click(queries.button('Choose all'));
    await queries.click(queries.button('Do more'));
    await overlay('Rate…');
    await overlay('Waiting');
    await overlay('4');
    const data = () => TestBed.inject(Store).selectSignal(selectData)()!;
    const codings = () =>
      Object.values(data().passages).flatMap((columns) => unpackPassages(columns).flatMap((passage) => passage.codings));
    expect(codings().flatMap(({ codeId, rating }) => (rating ? [[codeId, rating]] : []))).toEqual([
      [codes['Waiting']!, 4],
      [codes['Waiting']!, 4],
    ]);
    await queries.click(queries.button('Do more'));
    await overlay('Put another code in place of…');
    await overlay('Waiting');
    const field = document.querySelector<HTMLInputElement>('mat-dialog-container input')!;
    field.value = 'Relief';
    field.dispatchEvent(new Event('input', { bubbles: true }));
    await queries.settle();
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await until(() => codings().every(({ codeId }) => codeId !== codes['Waiting']));
    expect(codings().filter(({ codeId }) => codeId === codes['Relief']).length).toBeGreaterThan(1);
  });

  it('is measured in codings, cases and words, and shown as a table of codes or with more around it', async () => {
    await choose('Waiting');
    await until(
      () => queries.find('[data-more]').textContent !== '',
      () => TestBed.tick(),
    );
    expect(queries.find('[data-more]').textContent).toBe('· 3 codings · 0 participants · 5 words');
    await turn('with some words around', 'as a table of codes');
    expect(queries.texts('[role=columnheader]')).toEqual(['Passage', 'Wa2', 'Wo1']);
    expect(queries.texts('[role=row] [role=cell]')).toEqual(['●', '●', '●', '–']);
    await turn('as a table of codes', 'with the whole paragraph');
    await until(
      () => queries.all('fl-evidence .context').length > 0,
      () => TestBed.tick(),
    );
    expect(queries.find('fl-evidence').textContent).toContain('worried all night long.');
  });

  it('says of an empty answer which one step brings something back, and takes it', async () => {
    await choose('Waiting', 'Relief');
    await turn('any of', 'all of');
    expect(queries.texts('.empty li button').sort()).toEqual(['with any of the codes in place of all', 'without asking for “Relief”']);
    await queries.click(queries.button('without asking for “Relief”'));
    expect(summary()).toBe('2 passages in 1 document');
  });

  it('names the scope where that is what leaves nothing', async () => {
    await choose('Waiting');
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [{ kinds: ['article'] }] } }));
    await queries.settle();
    await queries.click(queries.button('looking at the whole study'));
    expect(summary()).toBe('2 passages in 1 document');
  });

  it('says by name what it asks for that was deleted, instead of finding more, and takes it out', async () => {
    await choose('Waiting', 'Worry');
    await turn('any of', 'all of');
    queries.session.run(deleteCode(codes['Worry']!));
    await queries.settle();
    expect(queries.texts('.sentence .code')).toEqual(['Wa Waiting', 'Worry (deleted)']);
    expect(queries.texts('.empty li button')).toContain('without asking for “Worry (deleted)”');
    await queries.click(queries.button('Without Worry (deleted)'));
    expect(summary()).toBe('2 passages in 1 document');
  });

  it('asks for the code that another was joined into', async () => {
    await choose('Worry');
    queries.session.run(joinCodes(codes['Relief']!, [codes['Worry']!]));
    await queries.settle();
    expect(queries.texts('.sentence .code')).toEqual(['Re Relief']);
    expect(summary()).toBe('2 passages in 2 documents');
  });

  it('is asked when the address names a kept one', async () => {
    queries.session.run(saveQuery('Worries', { all: [carrying('Worry')] }));
    queries.fixture.componentRef.setInput('query', kept()[0]!.id);
    await queries.settle();
    expect(summary()).toBe('2 passages in 2 documents');
  });

  it('names what stands on a kept one before it is deleted', async () => {
    queries.session.run(saveQuery('Worries', { all: [carrying('Worry')] }));
    const [query] = kept();
    queries.session.run(addMemo({ title: 'Of worries', kind: 'analytic', about: { type: 'query', id: query!.id }, text: 'x' }));
    await queries.settle();
    queries.answers.yes = false;
    await queries.click(queries.button('Kept queries'));
    document.querySelector<HTMLElement>('[aria-label="Delete the query Worries"]')!.click();
    await queries.settle();
    expect(queries.answers.asked).toEqual(['Delete the query “Worries”?']);
    expect(kept().map((one) => one.id)).toEqual([query!.id]);
  });

  it('fills a live set of the documents in which it finds something; one that is not kept is kept first', async () => {
    await choose('Worry');
    queries.answers.text = 'Worries';
    await queries.click(queries.button('More'));
    await overlay('Make a live set of its documents');
    expect(queries.answers.asked).toEqual(['Keep the query', 'Make a live set of documents']);
    const [set] = Object.values(TestBed.inject(Store).selectSignal(selectSets)());
    expect([set!.name, set!.of, set!.condition]).toEqual([
      'Worries',
      'document',
      [{ what: { queryId: kept()[0]!.id }, comparison: 'is', value: true }],
    ]);
  });

  it('is kept under a name, asked again, and tells what is new since its answer was seen', async () => {
    await choose('Worry');
    queries.answers.text = 'Worries';
    await queries.click(queries.button('Keep'));
    expect(kept().map((one) => [one.name, one.question.all])).toEqual([['Worries', [carrying('Worry')]]]);
    await queries.click(queries.button('All seen'));
    expect(queries.host.textContent).toContain('nothing new since');
    await queries.click(queries.button('Ask anew'));
    expect(queries.all('[data-summary]').length).toBe(0);
    await queries.click(queries.button('Kept queries'));
    await queries.click(queries.button('Worries'));
    expect(summary()).toBe('2 passages in 2 documents');
    queries.session.run(joinCodes(codes['Worry']!, [codes['Waiting']!]));
    await queries.settle();
    expect(queries.host.textContent).toContain('1 new, 0 gone since');
    await queries.click(queries.button('Show the new'));
    expect(summary()).toBe('1 passage in 1 document');
  });

  it('gives a code to what is chosen and shown, and makes a code of all of it that says where it came from', async () => {
    await choose('Worry');
    await queries.click(queries.button('More'));
    queries.answers.text = 'Troubled';
    await overlay('Make a code of the answer');
    const state = TestBed.inject(Store).selectSignal(selectData)()!;
    const made = Object.values(TestBed.inject(Store).selectSignal(selectCodes)()).find((code) => code.name === 'Troubled')!;
    expect(made.notes).toBe('Made of the 2 passages that carry Worry.');
    expect(Object.values(state.passages).filter((columns) => columns.codes.includes(made.id)).length).toBe(2);
    expect(queries.all('.bar')[0]!.textContent).not.toContain('chosen');
    await queries.click(queries.button('Choose all'));
    expect(queries.all('.bar')[0]!.textContent).toContain('2 chosen');
  });

  it('sets the same question side by side for groups, and says what each counts of', async () => {
    queries.session.run(addAttribute('document', 'month', 'choice', ['January', 'October']));
    const [one, two] = Object.keys(TestBed.inject(Store).selectSignal(selectData)()!.tables.document) as [Id, Id];
    const [attributeId] = Object.keys(TestBed.inject(Store).selectSignal(selectData)()!.tables.attribute) as [Id];
    queries.session.run(
      setValues([
        { ownerId: one, attributeId, raw: 'October' },
        { ownerId: two, attributeId, raw: 'January' },
      ]),
    );
    await choose('Worry', 'Waiting');
    await turn('in one list', 'side by side by month');
    expect(queries.texts('.columns h2')).toEqual(['January 1 passage', 'October 2 passages']);
    expect(queries.texts('.columns section > p')[1]).toMatch(/^181.8 per 1,000 words, of 11 words$/);
    await turn('side by side by month', 'in one list');
    expect(queries.all('.columns').length).toBe(0);
  });

  it('is copied with citations, with codes as well, or as words alone', async () => {
    const copied: string[] = [];
    spyOn(navigator.clipboard, 'writeText').and.callFake((text) => Promise.resolve(void copied.push(text)));
    await choose('Worry');
    for (const form of ['Copy with citations', 'Copy with citations and codes', 'Copy the words alone']) {
      await queries.click(queries.button('Take out 2 passages'));
      await overlay(form);
      await until(() => copied.length > 0);
      const lines = copied.pop()!.split('\n\n');
      expect(lines.length).toBe(2);
      expect(lines[0]!.includes('We waited')).toBeTrue();
      expect(lines[0]!.includes('(One')).toBe(form !== 'Copy the words alone');
      expect(lines[0]!.endsWith('[Waiting, Worry]')).toBe(form === 'Copy with citations and codes');
    }
  });

  it('is taken out as a Word document and as a page, with the question and every passage', async () => {
    const saved: Blob[] = [];
    spyOn(URL, 'createObjectURL').and.callFake((blob) => {
      saved.push(blob as Blob);
      return 'blob:none';
    });
    spyOn(HTMLAnchorElement.prototype, 'click');
    await choose('Worry');
    for (const form of ['As a page to print (HTML)', 'As a Word document']) {
      await queries.click(queries.button('Take out 2 passages'));
      await overlay(form);
    }
    await until(() => saved.length === 2);
    const page = await saved[0]!.text();
    expect(page).toContain('carry Worry');
    expect(page.match(/We waited|we worried/g)?.length).toBe(2);
    // a Word document is an archive
    expect((await saved[1]!.slice(0, 2).text()).startsWith('PK')).toBeTrue();
    expect(saved[1]!.size).toBeGreaterThan(2_000);
  });

  it('comes in order and in groups by an attribute', async () => {
    queries.session.run(addAttribute('document', 'month', 'text'));
    const data = () => TestBed.inject(Store).selectSignal(selectData)()!;
    const [attributeId] = Object.keys(data().tables.attribute) as [Id];
    const two = Object.values(data().tables.document).find((one) => one.title === 'Two')!;
    queries.session.run(setValues([{ ownerId: two.id, attributeId, raw: 'May' }]));
    await choose('Worry');
    await turn('as in the documents', 'by month');
    expect(queries.texts('fl-evidence h3')).toEqual(['May', 'not known']);
    await turn('by month', 'the longest first');
    expect(queries.texts('fl-evidence h3')).toEqual(['up to 100 characters']);
  });

  it('comes in another order, and is taken out as a table that names what is around each', async () => {
    const saved = spyOn(URL, 'createObjectURL').and.callThrough();
    await choose('Worry', 'Waiting');
    await turn('as in the documents', 'the longest first');
    expect(queries.texts('article mark')[0]!.length).toBe(18);
    await queries.click(queries.button('Take out 3 passages'));
    await overlay('As a table (CSV)');
    const csv = await (saved.calls.mostRecent().args[0] as Blob).text();
    expect(csv.split('\r\n').slice(0, 2)).toEqual([
      'document,case,speaker,position,text,codes,coders,comment',
      'Two,,,paragraph 1,and we worried all,Worry,Ada,',
    ]);
  });
});
