import { TestBed } from '@angular/core/testing';
import type { Id } from '@core/model/ids';
import { Notices } from '../../state/notices';
import { Drawn, Answers } from '../../testing/component-with-study';
import { readingPane, type ReadingPane } from '../../testing/reading-pane';
import { FindBar } from './find-bar';
import type { FoundWords } from './surface/find-marks';

describe('finding in a document', () => {
  let pane: ReadingPane;
  let bar: Drawn<FindBar>;
  let found: FoundWords;
  let help: Id;
  const box = 'input[type=search]';
  const said = () => bar.find('[role=status]').textContent;

  beforeEach(async () => {
    pane = readingPane(['The boat waits. The Boat goes by boat.', 'Boats came. No boat left.'], (bench) => {
      help = bench.addCode('Help');
    });
    const fixture = TestBed.createComponent(FindBar);
    fixture.componentInstance.found.subscribe((one) => (found = one));
    bar = new Drawn(fixture, new Answers());
    await bar.settle();
  });

  it('counts what it finds, whatever the case, and goes round from the last to the first', async () => {
    await bar.type(box, 'boat');
    expect(said()).toBe('1 of 5');
    expect(found.hits.map((hit) => pane.words.slice(hit.start, hit.end))).toEqual(['boat', 'Boat', 'boat', 'Boat', 'boat']);
    await bar.press(box, 'Enter', { shiftKey: true });
    expect([said(), found.at]).toEqual(['5 of 5', 4]);
    await bar.press(box, 'Enter');
    expect(said()).toBe('1 of 5');
  });

  it('finds whole words only, or as typed only, when asked', async () => {
    await bar.type(box, 'boat');
    const [whole, cased] = bar.all('input[type=checkbox]') as HTMLInputElement[];
    whole!.click();
    await bar.settle();
    expect(said()).toBe('1 of 4');
    cased!.click();
    await bar.settle();
    expect(said()).toBe('1 of 3');
    await bar.type(box, 'ferry');
    expect(said()).toBe('not in this document');
    expect(found.at).toBe(-1);
  });

  it('codes the sentences around the hits, each once, as one step', async () => {
    await bar.type(box, 'boat');
    await bar.click(bar.button('Code these 5'));
    await bar.click(bar.all('fl-code-picker [role=option]').find((one) => one.textContent.includes('Help'))!);
    expect(pane.passages()).toEqual(['The boat waits.: Help', 'The Boat goes by boat.: Help', 'Boats came.: Help', 'No boat left.: Help']);
    expect(pane.session.done.length).toBe(1);
    expect(TestBed.inject(Notices).current()!.text).toBe('4 passages coded with Help.');
  });

  it('says so where all of them carry the code already', async () => {
    await bar.type(box, 'left');
    for (let turn = 0; turn < 2; turn++) bar.fixture.componentInstance['code']({ codeId: help });
    expect(TestBed.inject(Notices).current()!.text).toBe('All of them carry Help already.');
    TestBed.inject(Notices).dismiss();
  });

  it('takes the selected words to look for, but not a whole paragraph', async () => {
    bar.fixture.componentInstance.focus('waits');
    await bar.settle();
    expect(bar.find<HTMLInputElement>(box).value).toBe('waits');
    bar.fixture.componentInstance.focus('two\nlines');
    await bar.settle();
    expect(bar.find<HTMLInputElement>(box).value).toBe('waits');
  });
});
