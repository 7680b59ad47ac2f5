import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { EVERYTHING, type Scope } from '@core/model/scope';
import type { StudyState } from '@core/model/study-state';
import { buildLargeStudy } from '@core/sample/large-study';
import { openedStudy } from '../testing/opened-study';
import { ScopeChoice } from './scope-choice';
import { StudyActions } from './study.actions';
import { selectScope } from './study.selectors';
import { emptyStore } from '../testing/study-store';

describe('narrowing a large study', () => {
  const large = (seed: number): StudyState =>
    buildLargeStudy({ documents: 60, words: 60_000, passages: 40_000, codings: 60_000, codes: 80, cases: 10, attributes: 2 }, seed).state;
  const [one, other] = [large(1), large(2)];
  const [first, second] = Object.keys(one.tables.coder);
  let coders: ScopeChoice;
  const scoped = () => TestBed.inject(Store).selectSignal(selectScope)().given?.coderIds?.[0] ?? null;
  const of = (coderId: Id): Scope => ({ parts: [], given: { coderIds: [coderId] } });
  const open = (state: StudyState): void =>
    TestBed.inject(Store).dispatch(StudyActions.opened({ opened: { ...openedStudy([]).opened, state }, role: 'writer' }));

  beforeEach(() => {
    emptyStore();
    coders = TestBed.inject(ScopeChoice);
    open(one);
  });

  it('changes the scope when all of it is sorted out', async () => {
    const chosen = coders.choose(of(first!));
    expect(scoped()).toBeNull();
    await chosen;
    expect(scoped()).toBe(first!);
  });

  it('takes the last choice, also that of everybody', async () => {
    const choices = [coders.choose(of(first!)), coders.choose(of(second!))];
    await Promise.all(choices);
    expect(scoped()).toBe(second!);
    const taken = coders.choose(of(first!));
    await coders.choose(EVERYTHING);
    await taken;
    expect(scoped()).toBeNull();
  });

  it('begins the next change from what was chosen last, and not from what is still shown', async () => {
    const alone = coders.choose(of(first!));
    expect(coders.scope()).toEqual(of(first!));
    const both = coders.choose({ ...coders.scope(), parts: [{ kinds: ['interview'] }] });
    await Promise.all([alone, both]);
    expect(TestBed.inject(Store).selectSignal(selectScope)()).toEqual({ ...of(first!), parts: [{ kinds: ['interview'] }] });
  });

  it('leaves alone another study that was opened meanwhile', async () => {
    const chosen = coders.choose(of(first!));
    open(other);
    await chosen;
    expect([scoped(), coders.scope()]).toEqual([null, EVERYTHING]);
  });
});
