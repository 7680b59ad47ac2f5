import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addCode } from '@core/commands/codes';
import { Bench } from '@core/testing/make';
import { StudyActions } from '../state/study.actions';
import { drawn, type Drawn } from '../testing/component-with-study';
import { SaveLine } from './save-line';

describe('the save state', () => {
  let line: Drawn<SaveLine>;
  const store = () => TestBed.inject(Store);
  const said = () => line.host.textContent.replace(/\s+/g, ' ').trim();

  beforeEach(async () => {
    line = await drawn(SaveLine, new Bench(), {}, [], { width: 300, height: 30 });
  });

  it('says saved only when the disk has said so for the last thing done', async () => {
    expect(said()).toBe('saved');
    line.session.run(addCode({ name: 'One' }));
    line.session.run(addCode({ name: 'Two' }));
    await line.settle();
    expect(said()).toBe('saving…');
    store().dispatch(StudyActions.saved({ seq: 1, at: Date.now() }));
    await line.settle();
    expect(said()).toBe('saving…');
    store().dispatch(StudyActions.saved({ seq: 2, at: new Date(2025, 2, 1, 14, 5).getTime() }));
    await line.settle();
    expect(said()).toBe('saved 14:05');
  });

  it('counts what is not saved where writing failed, and tries again when asked', async () => {
    let tried = 0;
    line.session.onRetry = () => tried++;
    line.session.run(addCode({ name: 'One' }));
    store().dispatch(StudyActions.saveFailed({ message: 'The browser’s storage is full.' }));
    await line.settle();
    expect(said()).toBe('not saved: 1 step Try again');
    expect(line.find('button').title).toBe('The browser’s storage is full.');
    await line.click(line.button('Try again'));
    expect(tried).toBe(1);
    line.session.run(addCode({ name: 'Two' }));
    await line.settle();
    expect(said()).toContain('not saved: 2 steps');
  });

  it('says that a tab follows another, and claims nothing of the disk then', async () => {
    store().dispatch(StudyActions.roleChanged({ role: 'follower' }));
    await line.settle();
    expect(said()).toBe('following');
  });
});
