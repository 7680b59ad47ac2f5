import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { memoDrafts } from '../../state/memo-drafts';
import { selectMemos } from '../../state/study.selectors';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { until } from '../../testing/until';
import { Desk } from './desk';

describe('the desk where memos are written', () => {
  let bench: Bench;
  let code: Id;
  let desk: Drawn<Desk>;
  const memos = () => Object.values(TestBed.inject(Store).selectSignal(selectMemos)());
  const task = () => ({ about: { type: 'code' as const, id: code } });
  const open = async () => {
    desk = await drawn(Desk, bench, { task: task() }, [], { width: 500, height: 600 });
    await until(
      () => desk.all('[contenteditable=true]').length > 0,
      () => desk.fixture.detectChanges(),
    );
  };
  const write = async (words: string) => {
    desk.find('[contenteditable=true]').focus();
    document.execCommand('insertText', false, words);
    await desk.settle();
  };

  beforeEach(async () => {
    bench = new Bench();
    code = bench.addCode('Worry');
    await open();
  });
  // what is on the desk when it goes is kept as a draft
  afterEach(() => {
    desk.fixture.destroy();
    memoDrafts.drop(bench.state.study.id, task());
  });

  it('keeps a memo about what it was begun for, with its words', async () => {
    expect(desk.host.textContent).toContain('Worry');
    await desk.type('[aria-label=Title], input', 'On worry');
    await write('They worried aloud.');
    await desk.press(desk.host, 'Enter', { ctrlKey: true });
    expect(memos().map((memo) => [memo.title, memo.about, memo.entries[0]!.text.trim()])).toEqual([
      ['On worry', { type: 'code', id: code }, 'They worried aloud.'],
    ]);
  });

  it('asks nothing more of the focus when it has gone', async () => {
    await write('Half a thought');
    desk.fixture.destroy();
    TestBed.resetTestingModule();
    // begun before, so that the text has the focus
    await open();
    const trigger = document.createElement('button');
    trigger.className = 'mat-mdc-menu-trigger';
    document.body.append(trigger);
    desk.fixture.destroy();
    // an error of whoever still listens to it fails this
    trigger.focus();
    expect(document.activeElement).toBe(trigger);
    trigger.remove();
  });

  it('keeps nothing of what is empty, and says nothing was lost', async () => {
    await desk.press(desk.host, 'Escape');
    expect([memos(), desk.answers.asked]).toEqual([[], []]);
  });

  it('finds what was being written when it went otherwise than by its own buttons', async () => {
    await desk.type('[aria-label=Title], input', 'Half a thought');
    await write('It was dark and');
    desk.fixture.destroy();
    TestBed.resetTestingModule();
    await open();
    expect(desk.find<HTMLInputElement>('[aria-label=Title], input').value).toBe('Half a thought');
    expect(desk.find('[contenteditable=true]').textContent).toContain('It was dark and');
    expect(memos()).toEqual([]);
  });
});
