import { TestBed } from '@angular/core/testing';
import type { Store } from '@ngrx/store';
import { applyChange } from '@core/change/apply';
import { carryOut } from '@core/commands/carry-out';
import { addFolder, removeFolder } from '@core/commands/documents';
import { codePlace } from '@core/commands/passages';
import type { Document } from '@core/model/document';
import { sequentialIds } from '@core/model/ids';
import type { ScopePart } from '@core/model/scope';
import { openedStudy } from '../testing/opened-study';
import type { OpenedStudy } from '../storage/study-storage';
import { ScopeActions, StudyActions } from './study.actions';
import { CodeCounts } from './code-counts';
import { selectCodeRows, selectScope, selectScopedDocuments } from './study.selectors';
import { emptyStore } from '../testing/study-store';

describe('what everything is looking at', () => {
  const { opened, codes, coderId } = openedStudy(['Feelings', 'Worry:Feelings', 'Relief:Feelings', 'Doors']);
  const newId = sequentialIds(21);
  const context = { coderId, now: 1, newId };
  let { state } = opened;
  const outer = addFolder('Outer')(state, context)!.change[0]!.after!.id;
  state = applyChange(state, addFolder('Outer', null, outer)(state, context)!.change);
  const inner = newId();
  state = applyChange(state, addFolder('Inner', outer, inner)(state, context)!.change);
  const add = (title: string, kind: Document['kind'], folderId: string | null): string => {
    const document: Document = {
      id: newId(),
      title,
      ground: { of: 'text' },
      kind,
      date: null,
      folderId,
      description: '',
      speakers: [],
      characters: 100,
      words: 20,
      source: null,
      values: {},
      answers: [],
      createdAt: 0,
    };
    state = applyChange(state, [{ type: 'document', before: null, after: document }]);
    state = applyChange(
      state,
      codePlace({ documentId: document.id, place: { start: 0, end: 9 }, codeIds: [codes['Worry']!] })(state, context)!.change,
    );
    return document.id;
  };
  add('Interview 10', 'interview', inner);
  add('Interview 9', 'interview', outer);
  add('Field note', 'field note', null);
  const study: OpenedStudy = { ...opened, state };
  let store: Store;
  const titles = () =>
    store
      .selectSignal(selectScopedDocuments)()
      .map((document) => document.title);
  const look = (...parts: ScopePart[]) => store.dispatch(ScopeActions.chosen({ scope: { parts } }));
  const inFolder = (id: string): ScopePart => ({ liesIn: { documentIds: [], folderIds: [id], setIds: [] } });
  const worries = () => TestBed.inject(CodeCounts).scoped().own.get(codes['Worry']!) ?? 0;

  beforeEach(() => {
    store = emptyStore();
    store.dispatch(StudyActions.opened({ opened: study, role: 'writer' }));
  });

  it('is everything at first, by folder and in natural order', () => {
    expect(titles()).toEqual(['Field note', 'Interview 10', 'Interview 9']);
    expect(worries()).toBe(3);
  });

  it('narrows to kinds, and to a folder with all folders in it', () => {
    look({ kinds: ['interview'] });
    expect(titles()).toEqual(['Interview 10', 'Interview 9']);
    look({ kinds: ['interview'] }, inFolder(inner));
    expect(titles()).toEqual(['Interview 10']);
    expect(worries()).toBe(1);
    look(inFolder(outer));
    expect(titles()).toEqual(['Interview 10', 'Interview 9']);
  });

  it('lets go of a folder or set that is taken away, instead of leaving nothing under the name of everything', () => {
    look(inFolder(inner));
    const { change } = carryOut(removeFolder(inner), state, context)!;
    const entry = { seq: study.history.seq + 1, at: 1, coderId, kind: 'act' as const, of: null, sentence: 'x', change };
    store.dispatch(StudyActions.acted({ entry }));
    expect(store.selectSignal(selectScope)().parts).toEqual([]);
    expect(titles().length).toBe(3);
  });

  it('counts one coder’s codings when a coder is chosen, and all again when cleared', () => {
    store.dispatch(ScopeActions.chosen({ scope: { parts: [], given: { coderIds: [newId()] } } }));
    expect(worries()).toBe(0);
    look();
    expect(worries()).toBe(3);
  });

  it('stays when the same study is read anew, and goes with another study', () => {
    look({ kinds: ['field note'] });
    store.dispatch(StudyActions.opened({ opened: study, role: 'follower' }));
    expect(titles()).toEqual(['Field note']);
    const other = { ...study, state: { ...state, study: { ...state.study, id: newId() } } };
    store.dispatch(StudyActions.opened({ opened: other, role: 'writer' }));
    expect(store.selectSignal(selectScope)().parts).toEqual([]);
  });

  it('lists the codebook in the order of its tree', () => {
    const rows = store
      .selectSignal(selectCodeRows)()
      .map((row) => [row.code.name, row.level, row.hasChildren]);
    expect(rows).toEqual([
      ['Feelings', 0, true],
      ['Worry', 1, false],
      ['Relief', 1, false],
      ['Doors', 0, false],
    ]);
  });
});
