import { undo, redo, history } from '@codemirror/commands';
import { EditorState } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { FIRST_SHORT_FORMS } from '@core/text/short-forms';
import { beginTurn, retimed, timeHere, timesOf, transcribing, unclearHere, type Listening } from './transcribing';

describe('Typing what is heard', () => {
  let view: EditorView;
  let now = 0;
  const listening: Listening = {
    times: [],
    speakers: () => ['I', 'Ellen', 'Arne'],
    shortForms: () => [...FIRST_SHORT_FORMS, { short: 'bc', long: 'because' }],
    now: () => now,
    seek: (time) => (now = time),
  };
  const open = (doc = '', times: Listening['times'] = []): void => {
    const state = EditorState.create({
      doc,
      selection: { anchor: doc.length },
      extensions: [history({ newGroupDelay: 0 }), transcribing({ ...listening, times })],
    });
    view = new EditorView({ state, parent: document.body });
  };
  const text = (): string => view.state.doc.toString();
  /** Types as a hand does: each sign goes through what listens for it. */
  const type = (words: string): void => {
    for (const sign of words) {
      const { from, to } = view.state.selection.main;
      const handled = view.state
        .facet(EditorView.inputHandler)
        .some((handler) => handler(view, from, to, sign, () => view.state.update({})));
      if (!handled)
        view.dispatch({ changes: { from, to, insert: sign }, selection: { anchor: from + sign.length }, userEvent: 'input.type' });
    }
  };
  const press = (key: string, init: KeyboardEventInit = {}): void =>
    void view.contentDOM.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...init }));

  beforeEach(() => (now = 0));
  afterEach(() => view.destroy());

  it('begins the turn of the next speaker at Enter, with the time of its first words', () => {
    open();
    now = 800;
    press('Enter');
    type('Where?');
    now = 2_400;
    press('Enter');
    type('By the shed.');
    expect(text()).toBe('I: Where?\nEllen: By the shed.');
    expect(timesOf(view.state)).toEqual([
      { at: 3, value: 800 },
      { at: 17, value: 2_400 },
    ]);
  });

  it('gives an empty turn to another speaker by a key, and goes on in the same turn at Shift and Enter', () => {
    open('I: Where?');
    press('Enter');
    press('™', { code: 'Digit3', altKey: true });
    type('There.');
    press('Enter', { shiftKey: true });
    type('Behind it.');
    press('Enter');
    expect(text()).toBe('I: Where?\nArne: There.\nBehind it.\nI: ');
  });

  it('makes short forms long when they are complete, and leaves words that only begin so', () => {
    open('Ellen: ');
    type('bc, bcd ;p and');
    press('Enter');
    expect(text()).toBe('Ellen: because, bcd (pause) and\nArne: ');
    type('bc');
    press('Enter');
    expect(text()).toContain('Arne: because\nI: ');
  });

  it('keeps times with the words behind them, whatever is typed in front, and takes them back and brings them again', () => {
    open('I: Where?\nEllen: There.', [
      { at: 3, value: 500 },
      { at: 17, value: 1_500 },
    ]);
    view.dispatch({ changes: { from: 0, to: 1, insert: 'Interviewer' } });
    expect(timesOf(view.state).map((one) => one.at)).toEqual([13, 27]);
    view.dispatch({ changes: { from: 5, to: 22, insert: '' } });
    expect(timesOf(view.state).map((one) => one.value)).toEqual([1_500]);
    undo(view);
    expect(timesOf(view.state)).toEqual([
      { at: 13, value: 500 },
      { at: 27, value: 1_500 },
    ]);
    undo(view);
    expect([text(), timesOf(view.state).map((one) => one.at)]).toEqual(['I: Where?\nEllen: There.', [3, 17]]);
    now = 9_000;
    press('Enter');
    undo(view);
    expect(timesOf(view.state).length).toBe(2);
    redo(view);
    expect(timesOf(view.state).map((one) => one.value)).toContain(9_000);
  });

  it('notes the time at the caret, one a place, and an unclear word with its time', () => {
    open('Ellen: There is a');
    now = 74_200;
    timeHere(view, listening);
    now = 74_900;
    timeHere(view, listening);
    expect(timesOf(view.state)).toEqual([{ at: 17, value: 74_900 }]);
    unclearHere(view, listening);
    expect(text()).toBe('Ellen: There is a (unclear 1:14) ');
  });

  it('begins plain turns where nobody is named, and takes times from a draft', () => {
    open('One.');
    beginTurn(view, { ...listening, speakers: () => [] });
    expect(text()).toBe('One.\n');
    view.dispatch({
      effects: retimed([
        { at: 1, value: 7 },
        { at: 900, value: 8 },
      ]),
    });
    expect(timesOf(view.state)).toEqual([{ at: 1, value: 7 }]);
  });
});
