import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { analysisHere } from '../../testing/analysis-here';
import { selectQueries } from '../../state/study.selectors';
import { ScopeActions } from '../../state/study.actions';
import { TextCache } from '../../state/text-cache';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { EMPTY_QUESTION } from './query-draft';
import { Queries } from './queries';
import { deleteCode } from '@core/commands/codes';
import { joinCodes } from '@core/commands/join-codes';
import { addMemo } from '@core/commands/memos';
import { saveQuery } from '@core/commands/study';

describe('asking for passages', () => {
  let queries: Drawn<Queries>;
  const codes: Record<string, Id> = {};
  const summary = () => queries.find('[data-summary]').textContent;
  const choose = async (part: string, ...names: string[]) => {
    await queries.click(queries.button(`Choose codes: ${part}`));
    for (const name of names) {
      const label = queries.all('fl-choose-codes label').find((one) => one.textContent.includes(name))!;
      label.querySelector('input')!.click();
      await queries.settle();
    }
    await queries.press('fl-choose-codes input', 'Escape');
  };

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
    queries = await drawn(Queries, bench, {}, [analysisHere]);
    for (const text of bench.texts.values()) TestBed.inject(TextCache).put(text, null);
  });

  it('begins by saying what can be asked', () => {
    expect(queries.find('.empty').textContent).toContain('Choose codes in the sentence above');
    expect(queries.all('[data-summary]').length).toBe(0);
  });

  it('answers all, at least one and none, and takes a code back out of the sentence', async () => {
    await choose('that carry all of', 'Waiting');
    expect(summary()).toBe('2 passages in 1 document');
    await choose('and none of', 'Worry');
    expect(summary()).toBe('1 passage in 1 document');
    await queries.click(queries.button('Without Worry'));
    expect(summary()).toBe('2 passages in 1 document');
    await queries.click(queries.button('Without Waiting'));
    await choose('and at least one of', 'Waiting', 'Worry');
    expect(summary()).toBe('3 passages in 2 documents');
  });

  it('counts a category by itself, or with what is under it where that is the step that brings something back', async () => {
    await choose('that carry all of', 'Crossing');
    expect(queries.find('.empty').textContent).toContain('No passage answers this');
    expect(queries.texts('.empty li')).toEqual(['with what is under the codes2 passages']);
    await queries.click(queries.button('with what is under the codes'));
    expect(summary()).toBe('2 passages in 1 document');
    await queries.click(queries.button('with what is under it'));
    expect(summary()).toBe('0 passages in 0 documents');
  });

  it('says of an empty answer which one step brings something back, and takes it', async () => {
    await choose('that carry all of', 'Waiting', 'Relief');
    expect(queries.texts('.empty li button')).toEqual(['without asking for “Relief”']);
    await queries.click(queries.button('without asking for “Relief”'));
    expect(summary()).toBe('2 passages in 1 document');
  });

  it('names the scope where that is what leaves nothing', async () => {
    await choose('that carry all of', 'Waiting');
    TestBed.inject(Store).dispatch(ScopeActions.kindsChosen({ kinds: ['article'] }));
    await queries.settle();
    await queries.click(queries.button('looking at the whole study'));
    expect(summary()).toBe('2 passages in 1 document');
  });

  it('says by name what it asks for that was deleted, instead of finding more, and takes it out', async () => {
    await choose('that carry all of', 'Waiting', 'Worry');
    expect(summary()).toBe('1 passage in 1 document');
    queries.session.run(deleteCode(codes['Worry']!));
    await queries.settle();
    expect(queries.texts('.sentence .code')).toEqual(['Wa Waiting', 'Worry (deleted)']);
    expect(queries.texts('.empty li button')).toEqual(['without asking for “Worry (deleted)”']);
    await queries.click(queries.button('Without Worry (deleted)'));
    expect(summary()).toBe('2 passages in 1 document');
  });

  it('asks for the code that another was joined into', async () => {
    await choose('that carry all of', 'Worry');
    queries.session.run(joinCodes(codes['Relief']!, [codes['Worry']!]));
    await queries.settle();
    expect(queries.texts('.sentence .code')).toEqual(['Re Relief']);
    expect(summary()).toBe('2 passages in 2 documents');
  });

  it('is asked when the address names a kept one', async () => {
    queries.session.run(saveQuery('Worries', { ...EMPTY_QUESTION, all: [codes['Worry']!] }));
    const [kept] = Object.values(TestBed.inject(Store).selectSignal(selectQueries)());
    queries.fixture.componentRef.setInput('query', kept!.id);
    await queries.settle();
    expect(summary()).toBe('2 passages in 2 documents');
  });

  it('names what stands on a kept one before it is deleted', async () => {
    queries.session.run(saveQuery('Worries', { ...EMPTY_QUESTION, all: [codes['Worry']!] }));
    const [kept] = Object.values(TestBed.inject(Store).selectSignal(selectQueries)());
    queries.session.run(addMemo({ title: 'Of worries', kind: 'analytic', about: { type: 'query', id: kept!.id }, text: 'x' }));
    await queries.settle();
    queries.answers.yes = false;
    await queries.click(queries.button('Saved queries'));
    document.querySelector<HTMLElement>('[aria-label="Delete the query Worries"]')!.click();
    await queries.settle();
    expect(queries.answers.asked).toEqual(['Delete the query “Worries”?']);
    expect(Object.keys(TestBed.inject(Store).selectSignal(selectQueries)())).toEqual([kept!.id]);
  });

  it('is kept under a name and asked again', async () => {
    await choose('that carry all of', 'Worry');
    queries.answers.text = 'Worries';
    await queries.click(queries.button('Save'));
    expect(Object.values(TestBed.inject(Store).selectSignal(selectQueries)()).map((one) => [one.name, one.question.all])).toEqual([
      ['Worries', [codes['Worry']!]],
    ]);
    await queries.click(queries.button('Ask anew'));
    expect(queries.all('[data-summary]').length).toBe(0);
    await queries.click(queries.button('Saved queries'));
    await queries.click(queries.button('Worries'));
    expect(summary()).toBe('2 passages in 2 documents');
  });
});
