import { TestBed } from '@angular/core/testing';
import { Title } from '@angular/platform-browser';
import { Bench } from '@core/testing/make';
import { addCode } from '@core/commands/codes';
import { drawn, type Drawn } from '../testing/component-with-study';
import { WritingDesk } from '../ui/memo/writing-desk';
import { StudyShell } from './study-shell';

describe('the frame around a study', () => {
  let shell: Drawn<StudyShell>;
  let bench: Bench;
  const codes = () => shell.session.sentences;
  const press = (key: string, init: KeyboardEventInit = {}, on: EventTarget = document.body) => {
    on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...init }));
    return shell.settle();
  };

  beforeEach(async () => {
    bench = new Bench();
    shell = await drawn(StudyShell, bench, { studyId: bench.state.study.id }, [], { width: 1_200, height: 700 });
  });
  afterEach(() => TestBed.inject(WritingDesk).close());

  it('names the study, and leads to every place of it', () => {
    expect(TestBed.inject(Title).getTitle()).toBe('A study – Filum');
    const ways = shell.all('nav[aria-label=Places] a').map((one) => one.getAttribute('href'));
    expect(ways).toEqual(
      ['overview', 'material', 'reading', 'codebook', 'memos', 'queries', 'patterns', 'write-up'].map(
        (view) => `/study/${bench.state.study.id}/${view}`,
      ),
    );
  });

  it('takes back and does again by keys, wherever the hands are, but not while they write', async () => {
    shell.session.run(addCode({ name: 'Worry' }));
    const undone = spyOn(shell.session, 'step').and.callThrough();
    await press('z', { ctrlKey: true });
    await press('z', { ctrlKey: true, shiftKey: true });
    await press('y', { ctrlKey: true });
    expect(undone.calls.allArgs()).toEqual([['undo'], ['redo'], ['redo']]);
    const field = shell.host.appendChild(document.createElement('textarea'));
    await press('z', { ctrlKey: true }, field);
    await press('m', {}, field);
    expect(undone.calls.count()).toBe(3);
    expect(TestBed.inject(WritingDesk).task()).toBeNull();
    expect(codes().length).toBe(1);
  });

  it('opens the desk by M, about what is looked at', async () => {
    TestBed.inject(WritingDesk).about.set(null);
    await press('m');
    expect(TestBed.inject(WritingDesk).task()).toEqual({ about: null });
  });

  it('is left only when everything is on disk, or what is not was given up', async () => {
    const instance = shell.fixture.componentInstance;
    shell.session.stuck = { steps: ['made the code Worry'], reason: 'The disk is full.' };
    shell.answers.yes = false;
    expect(await instance.mayLeave()).toBeFalse();
    shell.answers.yes = true;
    let tries = 0;
    shell.session.onRetry = () => {
      if (++tries === 2) shell.session.stuck = null;
    };
    expect(await instance.mayLeave()).toBeTrue();
    expect(tries).toBe(2);
    expect(shell.answers.asked).toEqual(['The last step is not on disk', 'The last step is not on disk']);
    shell.session.stuck = { steps: ['one', 'two'], reason: 'The disk is full.' };
    shell.answers.chose = 'other';
    expect(await instance.mayLeave()).toBeTrue();
    expect(shell.answers.asked.at(-1)).toBe('The last 2 steps are not on disk');
  });
});
