import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import type { StudyState } from '@core/model/study-state';
import { buildLargeStudy } from '@core/sample/large-study';
import { openedStudy } from '../testing/opened-study';
import { CoderScope } from './coder-scope';
import { StudyActions } from './study.actions';
import { selectScope } from './study.selectors';
import { emptyStore } from '../testing/study-store';

describe('narrowing a large study to one coder', () => {
  const large = (seed: number): StudyState =>
    buildLargeStudy({ documents: 60, words: 60_000, passages: 40_000, codings: 60_000, codes: 80, cases: 10, attributes: 2 }, seed).state;
  const [one, other] = [large(1), large(2)];
  const [first, second] = Object.keys(one.tables.coder);
  let coders: CoderScope;
  const scoped = () => TestBed.inject(Store).selectSignal(selectScope)().coderId;
  const open = (state: StudyState): void =>
    TestBed.inject(Store).dispatch(StudyActions.opened({ opened: { ...openedStudy([]).opened, state }, role: 'writer' }));

  beforeEach(() => {
    emptyStore();
    coders = TestBed.inject(CoderScope);
    open(one);
  });

  it('changes the scope when all of it is sorted out', async () => {
    const chosen = coders.choose(first!);
    expect(scoped()).toBeNull();
    await chosen;
    expect(scoped()).toBe(first!);
  });

  it('takes the last choice, also that of everybody', async () => {
    const choices = [coders.choose(first!), coders.choose(second!)];
    await Promise.all(choices);
    expect(scoped()).toBe(second!);
    const taken = coders.choose(first!);
    await coders.choose(null);
    await taken;
    expect(scoped()).toBeNull();
  });

  it('leaves alone another study that was opened meanwhile', async () => {
    const chosen = coders.choose(first!);
    open(other);
    await chosen;
    expect(scoped()).toBeNull();
  });
});
