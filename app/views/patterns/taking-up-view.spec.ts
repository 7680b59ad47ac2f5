import { codePlace } from '@core/commands/passages';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { PatternHere } from '../../testing/pattern-here';
import { until } from '../../testing/until';
import { TakingUpView } from './taking-up-view';

describe('who takes a theme up, on the screen', () => {
  let view: Drawn<TakingUpView>;
  let here: PatternHere<'taking-up'>;
  let talk: Id;
  let [boat, calm]: [Id, Id] = ['', ''];
  const lines = ['Ann: The boat.', 'Bob: Late, yes.', 'Eva: I slept.', 'Ann: I ate.', 'Bob: The boat again.', 'Ann: The boat.'];
  let places: readonly { start: number; end: number }[];
  const cell = (row: string, column: string) =>
    view.all('[role=gridcell]').find((one) => one.getAttribute('aria-label')!.startsWith(`${row}, ${column}: `))!;
  const numbers = (row: string) => ['Ann', 'Bob', 'Eva', 'all'].map((who) => cell(row, who).textContent!.trim());

  beforeEach(async () => {
    const bench = new Bench();
    boat = bench.addCode('Boat');
    calm = bench.addCode('Calm');
    const document = bench.addDocument('Talk', lines, ['Ann', 'Bob', 'Eva']);
    talk = document.id;
    places = bench.texts.get(talk)!.paragraphs.map(({ body, end }) => ({ start: body, end }));
    for (const at of [0, 1, 4, 5]) bench.code(document, places[at]!.start, places[at]!.end, boat);
    view = await drawn(TakingUpView, bench, {}, [analysisHere]);
    here = new PatternHere(view, 'taking-up');
    await until(() => view.all('[role=gridcell]').length > 0);
  });

  it('counts who brings it up and who takes it on, and opens to those passages', async () => {
    expect(numbers('Boat')).toEqual(['1', '–', '–', '1']);
    await here.choose('who brings it up', 'who takes it on');
    expect(numbers('Boat')).toEqual(['–', '1', '–', '1']);
    await here.ask({ apart: 2 });
    expect(numbers('Boat')).toEqual(['1', '1', '–', '2']);
    await view.click(cell('Boat', 'all'));
    await until(() => view.all('fl-evidence article').length === 2);
    expect(view.find('[data-behind]').textContent).toBe('taken on by anybody 2 times: 2 passages');
  });

  it('shows times by how much a group says, or as shares, with what was counted beside them', async () => {
    expect(view.all('.head button').map((one) => one.title)).toContain('Ann: 1 document, 6 words');
    await here.choose('as they are', 'per 1,000 words');
    // once in the six words of hers, and in the thirteen of all
    expect(numbers('Boat')).toEqual(['166.7', '–', '–', '76.9']);
    expect(cell('Boat', 'Ann').getAttribute('aria-label')).toContain('1 time');
    await here.ask({ apart: 2, as: 'per row' });
    expect(numbers('Boat')).toEqual(['50.0', '50.0', '–', '100.0']);
    expect(view.find('.said').textContent).toContain('a share of its row');
  });

  it('shows from whom to whom, and closes what other rows had opened', async () => {
    await view.click(cell('Boat', 'Ann'));
    await until(() => view.all('fl-evidence article').length === 1);
    await here.choose('who brings it up', 'from whom to whom');
    expect(view.all('fl-evidence-side').length).toBe(0);
    expect(numbers('Ann')).toEqual(['–', '1', '–', '1']);
    await view.click(cell('Ann', 'Bob'));
    await until(() => view.all('fl-evidence article').length === 2);
    expect(view.find('fl-evidence-side h2').textContent).toBe('From Ann to Bob');
  });

  it('follows what is coded, and is ordered by a heading', async () => {
    view.session.run(codePlace({ documentId: talk, place: places[2]!, codeIds: [calm] }));
    await until(() => cell('Calm', 'Eva').textContent!.trim() === '1');
    expect(view.texts('.name button')).toEqual(['Boat', 'Calm', 'all']);
    await view.click(view.all('.head button').find((one) => one.textContent!.includes('Eva'))!);
    expect(view.texts('.name button')).toEqual(['Calm', 'Boat', 'all']);
    await view.click(cell('Calm', 'Eva'));
    await until(() => view.find('[data-behind]').textContent!.includes('brought up by Eva 1 time'));
  });

  it('says that an empty cell cannot be marked, since no question asks for it', async () => {
    await view.click(cell('Boat', 'Eva'));
    await until(() => view.all('fl-absence-note').length === 1);
    expect(view.find('fl-absence-note').textContent).toContain('cannot be marked as expected');
  });
});
