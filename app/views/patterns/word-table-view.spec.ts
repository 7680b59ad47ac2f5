import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { addWordList } from '@core/commands/word-lists';
import { Bench } from '@core/testing/make';
import { WordsDraft } from '../../state/words-draft';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { PatternHere } from '../../testing/pattern-here';
import { until } from '../../testing/until';
import { PatternView } from './pattern-view';

describe('words by groups on the screen', () => {
  let view: Drawn<PatternView>;
  let here: PatternHere<'words'>;
  let listId: string;
  const cell = (row: string, column: string) =>
    view.all('[role=gridcell]').find((one) => one.getAttribute('aria-label')!.startsWith(`${row}, ${column}: `))!;

  beforeEach(async () => {
    const bench = new Bench();
    bench.addDocument('One', ['The boat came late, and the ferry never.', 'A boat at night.']);
    bench.addDocument('Two', ['No boat. Nobody waited for a ferry.']);
    bench.run(addWordList({ name: 'vessels', words: ['boat', 'ferry'] }));
    [listId] = Object.keys(bench.state.tables.wordList) as [string];
    view = await drawn(PatternView, bench, { view: 'words' }, [analysisHere]);
    here = new PatternHere(view, 'words');
    await here.ask({ minimum: 1 });
    await here.choose('as a list', 'in a table by groups');
    await until(() => view.all('[role=gridcell]').length > 0);
  });

  it('has the most frequent words as rows until others are named', async () => {
    expect(view.texts('.name button').slice(0, 2)).toEqual(['boat', 'ferry']);
    expect(['One', 'Two', 'all'].map((column) => cell('boat', column).textContent!.trim())).toEqual(['2', '1', '3']);
    view.answers.text = 'wait*\n\n "no boat" \nwait*';
    await view.click(view.button('the most frequent words'));
    await here.settled();
    expect(here.asked().table!.typed).toEqual(['wait*', '"no boat"']);
    expect(view.texts('.name button')).toEqual(['wait*', '"no boat"']);
    expect(cell('wait*', 'Two').textContent!.trim()).toBe('1');
  });

  it('says what is wrong with a line, and keeps what there was', async () => {
    view.answers.text = 'boat\n(late';
    await view.click(view.button('the most frequent words'));
    expect(view.answers.refusals[0]).toContain('“(late”: A parenthesis is not closed');
    expect(here.asked().table).toBeUndefined();
  });

  it('opens a number to the places it counts, from where they can be looked for', async () => {
    await here.ask({ table: { typed: [], wordListIds: [listId], groups: { by: 'document' }, as: 'per 1,000 words' } });
    expect(view.texts('.name button')).toEqual(['vessels']);
    expect(cell('vessels', 'One').getAttribute('title')).toBe('3 places');
    await view.click(cell('vessels', 'One'));
    await until(() => view.all('fl-word-hits-side mark').length === 3);
    expect(view.texts('fl-word-hits-side mark')).toEqual(['boat', 'ferry', 'boat']);
    expect(view.find('[data-behind]').textContent).toBe('in One · 3 places');
    const went = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await view.click(view.button('Look for it in Queries'));
    expect(TestBed.inject(WordsDraft).search().typed).toBe('[vessels]');
    expect(went).toHaveBeenCalled();
  });

  it('marks a number of nothing as expected and not found, by words, way of looking and group', async () => {
    await here.ask({ table: { typed: ['night'], wordListIds: [listId], groups: { by: 'document' }, as: 'as they are' } });
    await view.click(cell('night', 'Two'));
    await until(() => view.all('fl-absence-note').length === 1);
    view.answers.text = 'They sail at night.';
    await view.click(view.button('Mark as expected…'));
    await until(() => cell('night', 'Two').textContent!.trim() === '∅');
    expect(cell('night', 'One').textContent!.trim()).toBe('1');
    expect(view.find('fl-absence-note').textContent).toContain('They sail at night.');
    expect(view.find('.said').textContent).toContain('∅: expected, not found');
    // counted by forms, something else was looked for
    await here.ask({ forms: true });
    expect(cell('night', 'Two').textContent!.trim()).toBe('–');
  });

  it('shows words as a cloud, and goes back to the list that is not said to be one', async () => {
    await here.choose('in a table by groups', 'as a cloud');
    const [first] = view.all('fl-word-cloud .word');
    expect(first!.getAttribute('aria-label')).toBe('boat: 3 times');
    await here.choose('as a cloud', 'as a list');
    expect('shown' in here.asked()).toBeFalse();
    expect(view.texts('.word').slice(0, 2)).toEqual(['boat', 'ferry']);
  });
});
