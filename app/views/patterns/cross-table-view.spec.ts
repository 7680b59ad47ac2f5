import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addAttribute, setValues } from '@core/commands/attributes';
import { addCase, ownDocuments } from '@core/commands/cases';
import { addCode, deleteCodes } from '@core/commands/codes';
import { joinCodes } from '@core/commands/join-codes';
import { codePlace } from '@core/commands/passages';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { AnalysisService } from '../../workers/analysis-service';
import { ScopeActions } from '../../state/study.actions';
import { selectPatterns } from '../../state/study.selectors';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { PatternHere } from '../../testing/pattern-here';
import { until } from '../../testing/until';
import { CrossTableView } from './cross-table-view';

describe('a cross-table on the screen', () => {
  let view: Drawn<CrossTableView>;
  let here: PatternHere<'cross-table'>;
  const ids: Record<string, Id> = {};
  const cell = (row: string, column: string) =>
    view.all('[role=gridcell]').find((one) => one.getAttribute('aria-label')!.startsWith(`${row}, ${column}: `));
  const columns = () => view.texts('.head');
  const rows = () => view.texts('.name button');

  beforeEach(async () => {
    const bench = new Bench();
    for (const name of ['Waiting', 'Worry']) ids[name] = bench.addCode(name);
    for (const title of ['One', 'Two', 'Three']) {
      const document = bench.addDocument(title, ['We waited for the last boat and it was late.']);
      ids[title] = document.id;
      bench.run(addCase(`Case ${title}`, (ids[`Case ${title}`] = bench.newId())));
      bench.run(ownDocuments(ids[`Case ${title}`]!, [document.id], true));
      if (title === 'Three') continue;
      bench.code(document, 0, 9, ids['Waiting']!);
      bench.code(document, 20, 30, ids['Waiting']!);
    }
    bench.run(addAttribute('case', 'age', 'number'));
    ids['age'] = Object.keys(bench.state.tables.attribute)[0]!;
    const facts = (['One', 'Two'] as const).map((title, at) => ({
      ownerId: ids[`Case ${title}`]!,
      attributeId: ids['age']!,
      raw: String(20 + 30 * at),
    }));
    bench.run(setValues(facts));
    view = await drawn(CrossTableView, bench, {}, [analysisHere]);
    here = new PatternHere(view, 'cross-table');
    await until(() => view.all('[role=gridcell]').length > 0);
  });

  it('says so when what stands behind a number cannot be read, and reads it when it is asked again', async () => {
    const analysis = TestBed.inject(AnalysisService);
    const read = spyOn(analysis, 'cell').and.rejectWith(new Error('The disk does not answer.'));
    const opened = cell('Waiting', 'One')!;
    opened.click();
    await until(() => view.host.querySelector('.unread') !== null);
    expect(view.find('.unread [role=alert]').textContent).toContain('could not be read: The disk does not answer.');
    read.and.callThrough();
    view.all('.unread button')[0]!.click();
    await until(() => view.host.querySelector('fl-evidence-side') !== null);
    await until(() => view.all('fl-evidence article').length === 2);
    expect(view.host.querySelector('.unread')).toBeNull();
  });

  it('is shown as bars in groups, which the keys walk and open as cells do', async () => {
    await here.choose('as a table', 'as bars in groups');
    const frame = view.find('fl-group-bars .frame');
    const said = () => view.find('fl-group-bars [aria-live]').textContent;
    await until(() => (view.find<HTMLCanvasElement>('fl-group-bars canvas').width ?? 0) > 300);
    await view.press(frame, 'ArrowRight');
    expect(said()).toBe('Waiting, Three: 0');
    await view.press(frame, 'ArrowRight');
    expect(said()).toBe('Waiting, Two: 2');
    await view.press(frame, 'ArrowDown');
    expect(said()).toBe('Worry, Two: 0');
    await view.press(frame, 'ArrowUp');
    await view.press(frame, 'Enter');
    await until(() => view.all('fl-evidence article').length === 2);
    expect(view.find('[data-behind]').textContent).toContain('in Two');
    await here.ask({ turned: true });
    await view.press(frame, 'ArrowDown');
    expect(said()).toBe('Three, Waiting: 0');
  });

  it('shows what is not there as well, and hides it or shows only it', async () => {
    expect(columns()).toEqual(['One', 'Three', 'Two', 'all']);
    expect(cell('Waiting', 'One')!.textContent).toBe('2');
    expect(cell('Worry', 'One')!.textContent).toBe('–');
    await here.ask({ empty: 'without empty' });
    expect([rows(), columns()]).toEqual([
      ['Waiting', 'all'],
      ['One', 'Two', 'all'],
    ]);
    await here.ask({ empty: 'only empty' });
    expect([rows(), columns()]).toEqual([
      ['Worry', 'all'],
      ['Three', 'all'],
    ]);
  });

  it('keeps one column of everything apart from the one of all', async () => {
    await here.ask({ columns: { by: 'everything' }, empty: 'without empty' });
    expect(columns()).toEqual(['all', 'all']);
    const [first, last] = view.all('.head button') as [HTMLElement, HTMLElement];
    await view.click(first);
    const sortedBy = () => [first, last].map((one) => one.closest('[aria-sort]')?.getAttribute('aria-sort') ?? 'none');
    expect(sortedBy()).toEqual(['descending', 'none']);
  });

  it('opens a cell, and says of an empty one that it was looked for', async () => {
    await view.click(cell('Waiting', 'One')!);
    await until(() => view.all('fl-evidence article').length === 2);
    expect(view.texts('fl-evidence-side h2')).toEqual(['Waiting']);
    expect(view.find('[data-behind]').textContent).toBe('in One · 2 passages, 1 participant');
    await view.click(cell('Worry', 'all')!);
    await until(() => view.find('fl-absence-note').textContent!.includes('Looked for here, and not found.'));
    await view.click(view.button('Close the evidence'));
    expect(view.all('fl-evidence-side')).toEqual([]);
  });

  it('marks an empty cell as expected, with a memo, until it is taken back', async () => {
    await view.click(cell('Worry', 'One')!);
    await until(() => view.all('fl-absence-note').length === 1);
    view.answers.text = 'She spoke of it at the door.';
    await view.click(view.button('Mark as expected…'));
    await until(() => cell('Worry', 'One')!.textContent === '∅');
    expect(cell('Worry', 'One')!.getAttribute('aria-label')).toContain('expected, not found');
    expect(view.find('fl-absence-note').textContent).toContain('She spoke of it at the door.');
    expect([cell('Worry', 'Two')!.textContent, cell('Worry', 'all')!.textContent]).toEqual(['–', '–']);
    // it was expected in all of the study, not in what is looked at now
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [{ ofCases: [ids['Case One']!] }] } }));
    await here.settled();
    expect(cell('Worry', 'One')!.textContent).toBe('–');
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [] } }));
    await here.settled();
    await view.click(view.button('No longer expected'));
    expect(cell('Worry', 'One')!.textContent).toBe('–');
  });

  it('groups by bands of an attribute, turns, and shows rates with their group sizes', async () => {
    await here.ask({ columns: { nested: [{ attributeId: ids['age']!, cuts: [40] }] } });
    expect(columns()).toEqual(['under 40', '40 and over', 'not known', 'all']);
    await here.ask({ as: 'per case' });
    expect(cell('Waiting', 'all')!.textContent).toBe('1.3');
    expect(view.find('.sentence').textContent).toContain('divided by all of its group, coded or not');
    expect(view.find('.sentence').textContent).toContain('Each group has fewer than 5 participants');
    await here.ask({ turned: true });
    expect(rows()).toEqual(['under 40', '40 and over', 'not known', 'all']);
    await view.click(cell('under 40', 'Waiting')!);
    await until(() => view.all('fl-evidence article').length === 2);
    expect(view.find('[data-behind]').textContent).toContain('in under 40');
  });

  it('orders by a column or row that is pressed, and as it was by a second press', async () => {
    await here.ask({ columns: { by: 'case' } });
    const before = columns();
    await view.click(view.button('Waiting'));
    expect(columns().at(0)).not.toBe('Case Three');
    expect(columns().at(-2)).toBe('Case Three');
    await view.click(view.button('Waiting'));
    expect(columns()).toEqual(before);
  });

  it('follows the scope and what is coded, and stays open where it was', async () => {
    await view.click(cell('Waiting', 'One')!);
    await until(() => view.all('fl-evidence article').length === 2);
    view.session.run(codePlace({ documentId: ids['One']!, place: { start: 31, end: 36 }, codeIds: [ids['Waiting']!] }));
    await until(() => view.all('fl-evidence article').length === 3);
    expect(cell('Waiting', 'One')!.textContent).toBe('3');
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [{ ofCases: [ids['Case Two']!] }] } }));
    await here.settled();
    expect(columns()).toEqual(['Two', 'all']);
  });

  it('follows codes that are joined and deleted: what was chosen and is gone is not taken for all', async () => {
    await here.ask({ rows: { of: 'codes', codeIds: [ids['Worry']!, ids['Waiting']!], withUnder: false } });
    view.session.run(joinCodes(ids['Waiting']!, [ids['Worry']!]));
    await here.settled();
    expect(rows()).toEqual(['Waiting', 'all']);
    view.session.run(addCode({ name: 'Never chosen', parentId: null }));
    view.session.run(deleteCodes([ids['Waiting']!]));
    await here.settled();
    expect(view.find('.empty').textContent).toContain('Nothing to count yet');
  });

  it('is kept under a name with what is looked at, and says when that is something else', async () => {
    view.answers.text = 'Who waits';
    await view.click(view.button('Keep'));
    expect(Object.values(TestBed.inject(Store).selectSignal(selectPatterns)()).map((one) => one.name)).toEqual(['Who waits']);
    expect(view.find('h1').textContent).toBe('Who waits');
    expect(view.host.textContent).not.toContain('something else was looked at');
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [{ kinds: ['interview'] }] } }));
    await here.settled();
    expect(view.host.textContent).toContain('something else was looked at');
  });
});
