import { TestBed } from '@angular/core/testing';
import { EVERYTHING } from '@core/model/scope';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { ReaderSettings } from '../../state/reader-settings';
import { Notices } from '../../state/notices';
import { ScopeActions } from '../../state/study.actions';
import { readingPane, type ReadingPane } from '../../testing/reading-pane';

const LINES = ['They held the boat. Nobody said a word.', 'We waited at the pier for an hour.', 'Then it came.'];
const BEN = 'beeeeeee-0000-4000-8000-000000000001';

describe('work on passages', () => {
  let pane: ReadingPane;
  const codes: Record<string, Id> = {};
  const said = () => TestBed.inject(Notices).current()?.text ?? '';

  beforeEach(() => {
    localStorage.removeItem('filum-pinned-codes');
    pane = readingPane(LINES, (bench) => {
      codes['Waiting'] = bench.addCode('Waiting');
      codes['Help'] = bench.addCode('Help');
    });
  });
  afterEach(() => TestBed.inject(Notices).dismiss());

  it('codes the selection, and with the code used last the paragraph at the caret', () => {
    pane.work.codeSame();
    expect(said()).toBe('No code was used yet since the study was opened.');
    pane.surface.selectWords('held the boat');
    pane.work.code(pane.work.place()!, { codeId: codes['Help']! });
    expect(pane.passages()).toEqual(['held the boat: Help']);
    expect(pane.here.chosen()).toBeDefined();
    pane.surface.collapse();
    pane.surface.at = pane.words.indexOf('waited');
    pane.work.codeSame();
    expect(pane.passages()).toEqual(['held the boat: Help', 'We waited at the pier for an hour.: Help']);
  });

  it('makes a code of the selected words, once', () => {
    pane.work.codeWords();
    expect(said()).toBe('Select the words that are to become a code.');
    pane.surface.selectWords('Nobody said a word');
    pane.work.codeWords();
    pane.surface.selectWords('Nobody said a word');
    pane.work.codeWords();
    expect(pane.passages()).toEqual(['Nobody said a word: Nobody said a word']);
    expect(Object.values(pane.here.codes()).filter((code) => code.name === 'Nobody said a word').length).toBe(1);
  });

  it('codes by number keys: the pinned codes first, then those used last', () => {
    pane.work.codeNumber(1);
    expect(said()).toMatch(/^No code has the key 1 yet/);
    TestBed.inject(ReaderSettings).pin(codes['Waiting']!);
    pane.surface.selectWords('waited');
    pane.work.codeNumber(1);
    pane.surface.selectWords('pier');
    pane.work.code(pane.work.place()!, { codeId: codes['Help']! });
    pane.surface.selectWords('hour');
    pane.work.codeNumber(2);
    expect(pane.passages()).toEqual(['waited: Waiting', 'pier: Help', 'hour: Help']);
    TestBed.inject(ReaderSettings).pin(codes['Waiting']!);
  });

  it('marks now what is decided later, and finds the mark again instead of making another', () => {
    pane.surface.selectWords('Then it came.');
    pane.work.mark();
    expect(pane.passages()).toEqual(['Then it came.: –']);
    expect(pane.here.undecided().length).toBe(1);
    pane.here.chosenId.set(null);
    pane.surface.selectWords('Then it came.');
    expect(pane.work.passageHere()).toBe(pane.here.passages()[0]!.id);
    expect(pane.here.passages().length).toBe(1);
  });

  it('moves the ends of the chosen passage by words and sentences, and never lets it become empty', () => {
    pane.work.moveEdge('end', 1, 'word');
    expect(said()).toMatch(/^Choose a passage first/);
    pane.surface.selectWords('waited at');
    pane.work.code(pane.work.place()!, { codeId: codes['Waiting']! });
    pane.work.moveEdge('end', 1, 'word');
    pane.work.moveEdge('start', -1, 'word');
    expect(pane.passages()).toEqual(['We waited at the: Waiting']);
    pane.work.moveEdge('end', 1, 'sentence');
    expect(pane.passages()).toEqual(['We waited at the pier for an hour.: Waiting']);
    for (let at = 0; at < 20; at++) pane.work.moveEdge('end', -1, 'word');
    expect(pane.passages()).toEqual(['We: Waiting']);
  });

  it('chooses the one that stays where two passages become one', () => {
    pane.surface.selectWords('waited at');
    pane.work.code(pane.work.place()!, { codeId: codes['Waiting']! });
    pane.surface.selectWords('waited');
    pane.work.code(pane.work.place()!, { codeId: codes['Help']! });
    pane.work.moveEdge('end', 1, 'word');
    expect(pane.here.passages().length).toBe(1);
    expect(pane.here.chosen()!.codings.length).toBe(2);
    pane.session.undo();
    expect(pane.passages()).toEqual(['waited at: Waiting', 'waited: Help']);
  });

  it('takes a code off by putting another in its place', () => {
    pane.surface.selectWords('pier');
    pane.work.code(pane.work.place()!, { codeId: codes['Help']! });
    pane.work.recode(codes['Help']!, { newCode: { name: 'Places' } });
    expect(pane.passages()).toEqual(['pier: Places']);
    expect(pane.session.done.length).toBe(2);
  });

  it('removes the chosen passage, but not what the scope hides of it', () => {
    pane.surface.selectWords('pier');
    pane.work.code(pane.work.place()!, { codeId: codes['Help']! });
    const [passage] = pane.here.allPassages();
    pane.session.run(() => ({
      change: [
        {
          type: 'passage',
          before: passage!,
          after: { ...passage!, codings: [...passage!.codings, { codeId: codes['Waiting']!, coderId: BEN, createdAt: 5 }] },
        },
      ],
      sentence: 'Ben coded too',
    }));
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [], given: { coderIds: [pane.bench.coderId] } } }));
    pane.here.chosenId.set(passage!.id);
    pane.work.removeChosen();
    expect(said()).toBe('One more coding of it is not shown here and stayed.');
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: { parts: [], given: { coderIds: [BEN] } } }));
    pane.surface.selectWords('waited');
    pane.work.code(pane.work.place()!, { codeId: codes['Help']! });
    expect(said()).toBe('Coded, but not shown here: it is not among what is looked at.');
    pane.session.undo();
    TestBed.inject(Store).dispatch(ScopeActions.chosen({ scope: EVERYTHING }));
    expect(pane.passages()).toEqual(['pier: Waiting']);
    pane.here.chosenId.set(passage!.id);
    pane.work.removeChosen();
    expect(pane.passages()).toEqual([]);
    expect(pane.here.chosenId()).toBeNull();
  });

  it('steps from passage to passage from wherever the caret is, and says where it ends', () => {
    for (const words of ['held', 'waited', 'came']) {
      pane.surface.selectWords(words);
      pane.work.code(pane.work.place()!, { codeId: codes['Help']! });
    }
    pane.here.chosenId.set(null);
    pane.surface.place = null;
    pane.surface.at = pane.words.indexOf('pier');
    pane.work.step(1);
    expect(pane.passages()[pane.here.passages().indexOf(pane.here.chosen()!)]).toBe('came: Help');
    pane.work.step(1);
    expect(said()).toBe('This was the last passage.');
    pane.work.step(-1);
    pane.work.step(-1);
    pane.work.step(-1);
    expect(said()).toBe('This was the first passage.');
    expect(pane.surface.shown.map((place) => pane.words.slice(place.start, place.end))).toEqual(['came', 'waited', 'held']);
  });

  it('goes to what is not coded, selected so that it can be', () => {
    pane.surface.at = 0;
    pane.surface.selectWords(LINES[0]!);
    pane.work.code(pane.work.place()!, { codeId: codes['Help']! });
    pane.surface.place = null;
    pane.surface.at = 0;
    pane.work.stepUncoded(1);
    expect(pane.words.slice(pane.surface.place!.start, pane.surface.place!.end)).toContain('We waited at the pier');
    pane.surface.place = null;
    pane.surface.at = 0;
    pane.work.stepUncoded(-1);
    expect(said()).toBe('Everything before is coded.');
  });

  it('grows the selection from word to text, and shrinks it the way it came', () => {
    pane.surface.at = pane.words.indexOf('waited') + 2;
    const sizes: string[] = [];
    const selected = () => pane.words.slice(pane.surface.place!.start, pane.surface.place!.end);
    for (let at = 0; at < 3; at++) {
      pane.work.resizeSelection(1);
      sizes.push(selected());
    }
    // nothing is larger than the paragraph here
    expect(sizes).toEqual(['waited', 'We waited at the pier for an hour.', 'We waited at the pier for an hour.']);
    pane.work.resizeSelection(-1);
    expect(selected()).toBe('waited');
    pane.work.resizeSelection(-1);
    expect(selected()).toBe('');
  });

  it('notes how far the document is read, and takes it back when asked again', () => {
    pane.surface.at = pane.words.indexOf('waited');
    pane.work.readToHere();
    expect(said()).toBe('Marked as read up to here.');
    expect(pane.here.document()!.readTo).toBe(pane.words.indexOf('\nThen'));
    pane.work.readToHere();
    expect(pane.here.document()!.readTo).toBeUndefined();
    pane.surface.at = pane.words.length - 1;
    pane.work.readToHere();
    expect(said()).toBe('Read to the end.');
    pane.work.nextUnread(1);
    expect(said()).toBe('Every other document in scope is marked as read.');
  });
});
