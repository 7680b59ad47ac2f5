import { invertedEffects } from '@codemirror/commands';
import {
  EditorSelection,
  MapMode,
  Prec,
  RangeSet,
  RangeValue,
  StateEffect,
  StateField,
  type EditorState,
  type Extension,
} from '@codemirror/state';
import { Decoration, EditorView, keymap, WidgetType } from '@codemirror/view';
import type { TimeMark } from '@core/commands/correct-text';
import type { Text } from '@core/model/document';
import { clock } from '@core/text/clock';
import { expanded, type ShortForm } from '@core/text/short-forms';

/** What transcribing needs to know of the recording and the study. */
export interface Listening {
  /** Times of the text when it is begun, by position. */
  readonly times: readonly TimeMark[];
  /** Names that label turns, in the order in which they take turns. */
  readonly speakers: () => readonly string[];
  readonly shortForms: () => readonly ShortForm[];
  /** Where the recording is now, milliseconds. */
  readonly now: () => number;
  readonly seek: (time: number) => void;
}

/** The times that a text has, by position. */
export const timesIn = (text: Text): TimeMark[] => text.marks.flatMap(({ kind, at, value }) => (kind === 'time' ? [{ at, value }] : []));

/** A time in the text: it stays with the words behind it. */
class Time extends RangeValue {
  override readonly startSide = -1;
  override readonly mapMode = MapMode.TrackDel;

  constructor(readonly value: number) {
    super();
  }

  override eq(other: RangeValue): boolean {
    return other instanceof Time && other.value === this.value;
  }
}

const rangesOf = (times: readonly TimeMark[]): RangeSet<Time> =>
  RangeSet.of(
    times.map(({ at, value }) => new Time(value).range(at)),
    true,
  );

const addTime = StateEffect.define<TimeMark>({ map: ({ at, value }, changes) => ({ at: changes.mapPos(at), value }) });
const dropTime = StateEffect.define<TimeMark>({ map: ({ at, value }, changes) => ({ at: changes.mapPos(at), value }) });

const timesField = StateField.define<RangeSet<Time>>({
  create: () => RangeSet.empty,
  update(times, transaction) {
    let next = times.map(transaction.changes);
    for (const effect of transaction.effects) {
      // one time a place
      if (effect.is(addTime))
        next = next.update({ filter: (from) => from !== effect.value.at, add: [new Time(effect.value.value).range(effect.value.at)] });
      else if (effect.is(setTimes)) next = rangesOf(effect.value.filter(({ at }) => at <= transaction.newDoc.length));
      else if (effect.is(dropTime))
        next = next.update({ filter: (from, _to, { value }) => from !== effect.value.at || value !== effect.value.value });
    }
    return next;
  },
});

const setTimes = StateEffect.define<readonly TimeMark[]>();

/** Puts these times in the place of all. */
export const retimed = (times: readonly TimeMark[]): StateEffect<readonly TimeMark[]> => setTimes.of(times);

/** The times as they are typed, by position. */
export function timesOf(state: EditorState): TimeMark[] {
  const times: TimeMark[] = [];
  for (const cursor = state.field(timesField).iter(); cursor.value; cursor.next())
    times.push({ at: cursor.from, value: cursor.value.value });
  return times;
}

/** The time of a place, in small figures before its words; a click goes there. */
class TimeSign extends WidgetType {
  constructor(
    private readonly value: number,
    private readonly seek: (time: number) => void,
  ) {
    super();
  }

  override eq(other: TimeSign): boolean {
    return other.value === this.value;
  }

  override toDOM(view: EditorView): HTMLElement {
    const sign = view.dom.ownerDocument.createElement('span');
    sign.className = 'time-sign';
    sign.textContent = clock(this.value);
    sign.title = `Heard at ${clock(this.value)}`;
    sign.addEventListener('mousedown', (event) => {
      event.preventDefault();
      this.seek(this.value);
    });
    return sign;
  }
}

/** What a turn begins with. */
const labelOf = (name: string): string => `${name}: `;

/** The speaker whose label a line has. */
const speakerOf = (line: string, speakers: readonly string[]): number => speakers.findIndex((name) => line.startsWith(labelOf(name)));

/**
 * Begins a turn where the caret is: of a speaker, or of the one after whoever speaks. A turn without words only changes
 * who speaks. Where the recording is then becomes the time of its first words.
 */
export function beginTurn(view: EditorView, listening: Listening, speaker?: number): boolean {
  const speakers = listening.speakers();
  const { state } = view;
  const { head } = state.selection.main;
  const line = state.doc.lineAt(head);
  const before = speakerOf(line.text, speakers);
  // the line before says who spoke where this one does not
  let spoke = before;
  for (let at = line.number - 1; spoke < 0 && at >= 1; at--) spoke = speakerOf(state.doc.line(at).text, speakers);
  const next = speaker ?? (speakers.length === 0 ? -1 : (spoke + 1) % speakers.length);
  const label = speakers[next] === undefined ? '' : labelOf(speakers[next]);
  const bare = before >= 0 ? labelOf(speakers[before]!).length : 0;
  const empty = line.text.slice(bare).trim() === '';
  const [from, to] = empty ? [line.from, line.to] : [head, head];
  const insert = empty ? label : `\n${label}`;
  const at = from + insert.length;
  view.dispatch({
    changes: { from, to, insert },
    selection: EditorSelection.cursor(at),
    effects: addTime.of({ at, value: listening.now() }),
    scrollIntoView: true,
    userEvent: 'input.type',
  });
  return true;
}

/** Notes where the recording is as the time of the words at the caret. */
export function timeHere(view: EditorView, listening: Listening): void {
  view.dispatch({ effects: addTime.of({ at: view.state.selection.main.head, value: listening.now() }) });
}

/** Notes a word that cannot be made out, with its time, to come back to. */
export function unclearHere(view: EditorView, listening: Listening): void {
  const { from, to } = view.state.selection.main;
  const before = view.state.doc.sliceString(Math.max(0, from - 1), from);
  const insert = `${/^\S/.test(before) ? ' ' : ''}(unclear ${clock(listening.now())}) `;
  view.dispatch({ changes: { from, to, insert }, selection: EditorSelection.cursor(from + insert.length), userEvent: 'input.type' });
}

/** Times at turns, keys for who speaks, and short forms that become long: the text as it is typed while one listens. */
export function transcribing(listening: Listening): Extension {
  return [
    timesField.init(() => rangesOf(listening.times)),
    // taking back what was typed takes its times back, and doing it again brings them again
    invertedEffects.of((transaction) => {
      const undone: StateEffect<unknown>[] = [];
      const before = timesOf(transaction.startState);
      for (const effect of transaction.effects) {
        if (!effect.is(addTime) && !effect.is(dropTime)) continue;
        // what takes it back stands in the text as it was: the time that stood there comes again, or this one goes
        const there = before.filter((mark) => transaction.changes.mapPos(mark.at, -1) === effect.value.at);
        if (there.length > 0) undone.push(...there.map((mark) => addTime.of(mark)));
        else undone.push(dropTime.of({ ...effect.value, at: transaction.changes.invertedDesc.mapPos(effect.value.at, -1) }));
      }
      for (const mark of before) if (transaction.changes.mapPos(mark.at, -1, MapMode.TrackDel) === null) undone.push(addTime.of(mark));
      return undone;
    }),
    EditorView.decorations.compute(['doc', timesField], (state) =>
      Decoration.set(
        // where a pause begins is known as well, and not shown: the time that matters is that of the next words
        timesOf(state)
          .filter(({ at }) => !/^\S(?:\s|$)/.test(state.doc.sliceString(at - 1, at + 1)))
          .map(({ at, value }) => Decoration.widget({ widget: new TimeSign(value, listening.seek), side: -1 }).range(at)),
      ),
    ),
    EditorView.inputHandler.of((view, from, to, typed) => {
      const line = view.state.doc.lineAt(from);
      const form = expanded(line.text.slice(0, from - line.from), typed, listening.shortForms());
      if (!form) return false;
      const insert = form.put + typed;
      view.dispatch({
        changes: { from: from - form.take, to, insert },
        selection: EditorSelection.cursor(from - form.take + insert.length),
        userEvent: 'input.type',
      });
      return true;
    }),
    Prec.high(
      keymap.of([
        {
          key: 'Enter',
          run: (view) => {
            expandAtEnd(view, listening);
            return beginTurn(view, listening);
          },
          shift: (view) => {
            expandAtEnd(view, listening);
            view.dispatch(view.state.replaceSelection('\n'), { userEvent: 'input.type' });
            return true;
          },
        },
      ]),
    ),
    Prec.high(
      EditorView.domEventHandlers({
        keydown: (event, view) => {
          // by the place of the key: with Alt many keyboards write another sign
          const digit = event.altKey && !event.ctrlKey && !event.metaKey ? /^Digit([1-9])$/.exec(event.code) : null;
          const speaker = Number(digit?.[1]) - 1;
          if (!digit || listening.speakers()[speaker] === undefined) return false;
          event.preventDefault();
          return beginTurn(view, listening, speaker);
        },
      }),
    ),
  ];
}

/** A short form at the end of a line becomes long as well. */
function expandAtEnd(view: EditorView, listening: Listening): void {
  const { head } = view.state.selection.main;
  const line = view.state.doc.lineAt(head);
  const form = expanded(line.text.slice(0, head - line.from), '\n', listening.shortForms());
  if (form) view.dispatch({ changes: { from: head - form.take, to: head, insert: form.put } });
}
