import { TestBed } from '@angular/core/testing';
import { Store, type Action } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import type { Question } from '@core/model/query';
import { openedStudy } from '../testing/opened-study';
import { emptyStore } from '../testing/study-store';
import { EMPTY_QUESTION, QueryDraft } from './query-draft';
import { StudyActions } from './study.actions';
import { NO_SEARCH, WordsDraft } from './words-draft';

describe('what is remembered during a visit of a study', () => {
  const asked: Question = {
    all: [{ carries: 'any', codes: { codeIds: ['gone by then'], setIds: [], withUnder: false }, reach: 'passage' } as never],
  };
  let query: QueryDraft;
  let words: WordsDraft;
  const dispatch = (action: Action): void => {
    TestBed.inject(Store).dispatch(action);
    TestBed.tick();
  };
  const open = (id?: Id): void => {
    const { opened } = openedStudy([]);
    const { study } = opened.state;
    dispatch(
      StudyActions.opened({ opened: { ...opened, state: { ...opened.state, study: { ...study, id: id ?? study.id } } }, role: 'writer' }),
    );
  };
  const remembered = (): unknown[] => [query.question(), query.scrolled, words.search().typed];

  beforeEach(() => {
    emptyStore();
    open();
    // made while the study is open, as places make them
    query = TestBed.inject(QueryDraft);
    words = TestBed.inject(WordsDraft);
    query.question.set(asked);
    query.scrolled = 80;
    words.search.set({ ...NO_SEARCH, typed: 'boat' });
    TestBed.tick();
  });

  it('stays as long as the study is open, whatever happens in it', () => {
    dispatch(StudyActions.roleChanged({ role: 'follower' }));
    expect(remembered()).toEqual([asked, 80, 'boat']);
  });

  it('is forgotten when the same study is opened once more: it may come from an older file', () => {
    dispatch(StudyActions.closed());
    open();
    expect(remembered()).toEqual([EMPTY_QUESTION, 0, '']);
  });

  it('is forgotten when another study is opened', () => {
    open('f11f0000-0000-4000-8000-00000000000f');
    expect(remembered()).toEqual([EMPTY_QUESTION, 0, '']);
  });
});
