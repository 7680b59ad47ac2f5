import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { openedStudy } from '../testing/opened-study';
import { openInStore } from '../testing/study-store';
import { FIRST_TYPE, ReaderSettings } from './reader-settings';
import { StudyActions } from './study.actions';

describe('how a reader reads', () => {
  const KEYS = ['filum-reader-type', 'filum-reader-looks', 'filum-pinned-codes'];
  const { opened, codes } = openedStudy(['Help', 'Queue', 'Worry']);

  function settings(): ReaderSettings {
    TestBed.resetTestingModule();
    openInStore(opened);
    return TestBed.inject(ReaderSettings);
  }

  beforeEach(() => KEYS.forEach((key) => localStorage.removeItem(key)));
  afterAll(() => KEYS.forEach((key) => localStorage.removeItem(key)));

  it('is kept in the browser, and what does not fit is forgotten', () => {
    settings().setType({ size: 20 });
    TestBed.tick();
    expect(settings().type().size).toBe(20);
    localStorage.setItem('filum-reader-type', '{"face":"comic","size":900}');
    expect(settings().type()).toEqual(FIRST_TYPE);
    localStorage.setItem('filum-reader-looks', '{');
    expect(settings().looks().coded).toBe('as they are');
  });

  it('gives number keys to pinned codes first, then to those used last, each once', () => {
    const reader = settings();
    const store = TestBed.inject(Store);
    for (const name of ['Worry', 'Help', 'Queue']) store.dispatch(StudyActions.codeUsed({ codeId: codes[name]! }));
    reader.pin(codes['Help']!);
    expect(reader.byNumber()).toEqual([codes['Help']!, codes['Queue']!, codes['Worry']!]);
    reader.pin(codes['Help']!);
    expect(reader.pinned()).toEqual([]);
    expect(reader.byNumber()[0]).toBe(codes['Queue']!);
  });

  it('leaves out pinned codes of other studies', () => {
    localStorage.setItem('filum-pinned-codes', JSON.stringify(['00000000-0000-4000-8000-00000000dead', codes['Queue']]));
    expect(settings().pinned()).toEqual([codes['Queue']!]);
  });
});
