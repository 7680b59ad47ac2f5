import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { EMPTY_HISTORY } from '@core/change/journal';
import { addMemo, linkMemo } from '@core/commands/memos';
import { codePlace } from '@core/commands/passages';
import type { Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { unpackPassages } from '@core/passages/columns';
import { Bench } from '@core/testing/make';
import { ScopeActions } from '../../state/study.actions';
import { ReaderSettings } from '../../state/reader-settings';
import { openInStore } from '../../testing/study-store';
import { ReadingHere } from './reading-here';
import { SetMembers } from './set-members';
import type { ReadingSurface } from './surface/reading-surface';

describe('what is read in a pane', () => {
  let bench: Bench;
  let document: Document;
  let here: ReadingHere;
  const codes: Record<string, Id> = {};
  const ben = 'beeeeeee-0000-4000-8000-000000000001';
  const shown = (): string[] =>
    here
      .passages()
      .map(
        (passage) =>
          `${passage.start}: ${passage.codings.map((coding) => Object.keys(codes).find((name) => codes[name] === coding.codeId)).join(', ')}`,
      );

  beforeEach(() => {
    bench = new Bench();
    bench.state = {
      ...bench.state,
      tables: { ...bench.state.tables, coder: { ...bench.state.tables.coder, [ben]: { id: ben, name: 'Ben' } } },
    };
    document = bench.addDocument('One', ['The boat waits for nobody here.', 'The queue grows.']);
    codes['Crossing'] = bench.addCode('Crossing');
    codes['Waiting'] = bench.addCode('Waiting', codes['Crossing']);
    codes['Help'] = bench.addCode('Help');
    bench.code(document, 4, 8, codes['Waiting']);
    bench.run(codePlace({ documentId: document.id, place: { start: 4, end: 8 }, codeIds: [codes['Help']] }));
    bench.run(codePlace({ documentId: document.id, place: { start: 9, end: 14 }, codeIds: [codes['Help']] }), ben);
    const [first, second] = unpackPassages(bench.state.passages[document.id]!);
    bench.run(addMemo({ title: 'Boats', kind: 'analytic', about: { type: 'passage', id: first!.id, documentId: document.id }, text: '' }));
    const memoId = Object.keys(bench.state.tables.memo)[0]!;
    bench.run(linkMemo(memoId, { type: 'passage', id: second!.id, documentId: document.id }, true));
    TestBed.configureTestingModule({ providers: [ReadingHere, SetMembers] });
    openInStore({ state: bench.state, history: EMPTY_HISTORY, backup: null });
    here = TestBed.inject(ReadingHere);
    here.documentId.set(document.id);
  });

  it('is every passage in reading order, until somebody narrows it', () => {
    expect(shown()).toEqual(['4: Waiting, Help', '9: Help']);
    here.only.set(codes['Crossing']!);
    expect(shown()).toEqual(['4: Waiting']);
    here.only.set('a code that is gone');
    expect(shown().length).toBe(2);
    here.only.set(null);
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [], given: { coderIds: [ben] } } }));
    expect(shown()).toEqual(['9: Help']);
    expect(here.allPassages().length).toBe(2);
  });

  it('has a memo at each passage that it is linked to', () => {
    for (const passage of here.passages()) {
      here.chosenId.set(passage.id);
      expect(here.chosenMemos().map((memo) => memo.title)).toEqual(['Boats']);
      expect(here.memoTitles().get(passage.id)).toBe('Boats');
    }
    here.chosenId.set(null);
    expect(here.chosenMemos()).toEqual([]);
  });

  it('names in the margin what is chosen to be named there', () => {
    const named = (): string[] =>
      here
        .passages()
        .flatMap((passage) => passage.codings.filter(here.slipsOf()).map((coding) => bench.state.tables.code[coding.codeId]!.name))
        .sort();
    expect(named()).toEqual(['Help', 'Help', 'Waiting']);
    here.slipChoice.set({ of: 'category', id: codes['Crossing']! });
    expect(named()).toEqual(['Waiting']);
    here.slipChoice.set({ of: 'coder', id: ben });
    expect(named()).toEqual(['Help']);
    here.slipChoice.set({ of: 'pinned' });
    expect(named()).toEqual([]);
    const settings = TestBed.inject(ReaderSettings);
    settings.pin(codes['Help']!);
    expect(named()).toEqual(['Help', 'Help']);
    settings.pin(codes['Help']!);
  });

  it('remembers where a jump led away from, but not a step within what is on the screen', () => {
    const gone: number[] = [];
    const surface = { shows: (position: number) => position < 20, goTo: ({ start }: { start: number }) => void gone.push(start) };
    here.surface = () => surface as unknown as ReadingSurface;
    here.at.set(3);
    here.goTo({ start: 9, end: 14 });
    expect(here.trail.back(here.place())).toBeUndefined();
    here.goTo({ start: 40, end: 44 });
    expect(gone).toEqual([9, 40]);
    expect(here.trail.back(here.place())).toEqual({ documentId: document.id, position: 3 });
  });
});
