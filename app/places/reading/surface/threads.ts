import { RangeSetBuilder, StateEffect, StateField, Text, type Extension } from '@codemirror/state';
import { Decoration, EditorView, type DecorationSet } from '@codemirror/view';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import type { Table } from '@core/model/study-state';
import { IntervalIndex } from '@core/passages/interval-index';
import { cutSegments, layThreads, type Thread } from '@core/passages/threads';
import { LANES } from '../../../styles/palette-sheet';

/** What the surface shows of a document's coding. */
export interface Coding {
  /** In reading order. */
  readonly passages: readonly Passage[];
  readonly codes: Table<Code>;
}

/** Replaces the coding that is shown. */
export const showCoding = StateEffect.define<Coding>();
/** Tints one passage's words; null for none. */
export const choosePassage = StateEffect.define<Id | null>();

interface Threads {
  readonly coding: Coding;
  readonly index: IntervalIndex;
  readonly decorations: DecorationSet;
  readonly room: DecorationSet;
}

const marks = new Map<string, Decoration>();

/** One decoration object for each look, so that unchanged stretches are recognised and not drawn again. */
function markFor(look: string): Decoration {
  let mark = marks.get(look);
  if (!mark) marks.set(look, (mark = Decoration.mark({ class: `thread ${look}` })));
  return mark;
}

function build(coding: Coding, document: Text): Threads {
  const threads = layThreads(coding.passages, (id) => Object.hasOwn(coding.codes, id));
  const builder = new RangeSetBuilder<Decoration>();
  for (const segment of cutSegments(threads)) {
    const looks = new Map(segment.threads.map((thread) => [Math.min(thread.lane, LANES - 1), coding.codes[thread.codeId]!.colour]));
    builder.add(
      segment.start,
      segment.end,
      markFor(`d${Math.max(...looks.keys()) + 1} ${[...looks].map(([lane, colour]) => `t${lane}-c${colour}`).join(' ')}`),
    );
  }
  return {
    coding,
    index: new IntervalIndex({
      starts: coding.passages.map((passage) => passage.start),
      ends: coding.passages.map((passage) => passage.end),
    }),
    decorations: builder.finish(),
    room: roomForLanes(threads, document),
  };
}

const EMPTY = build({ passages: [], codes: {} }, Text.empty);

/** The threads under the words. */
export const threadsField = StateField.define<Threads>({
  create: () => EMPTY,
  update(threads, transaction) {
    for (const effect of transaction.effects) if (effect.is(showCoding)) return build(effect.value, transaction.newDoc);
    return threads;
  },
  provide: (field) => [
    EditorView.decorations.from(field, (threads) => threads.decorations),
    EditorView.decorations.from(field, (threads) => threads.room),
  ],
});

/** Lanes that fit between two lines of text. */
const LANES_THAT_FIT = 3;
const ROOM = Array.from({ length: LANES }, (_, lanes) => Decoration.line({ class: `lanes-${lanes}` }));

/** A paragraph with more lanes than fit gets wider line spacing. */
function roomForLanes(threads: readonly Thread[], document: Text): DecorationSet {
  const lanesByLine = new Map<number, number>();
  for (const thread of threads) {
    if (thread.lane < LANES_THAT_FIT) continue;
    for (let at = thread.start; at < thread.end;) {
      const line = document.lineAt(at);
      lanesByLine.set(line.from, Math.max(lanesByLine.get(line.from) ?? 0, Math.min(thread.lane, LANES - 1)));
      at = line.to + 1;
    }
  }
  return Decoration.set(
    [...lanesByLine].map(([from, lane]) => ROOM[lane]!.range(from)),
    true,
  );
}

const chosenMark = Decoration.mark({ class: 'chosen' });

/** The chosen passage, tinted. */
export const chosenField = StateField.define<{ readonly id: Id | null; readonly decorations: DecorationSet }>({
  create: () => ({ id: null, decorations: Decoration.none }),
  update(chosen, transaction) {
    let { id } = chosen;
    let stale = false;
    for (const effect of transaction.effects) {
      if (effect.is(choosePassage)) id = effect.value;
      if (effect.is(choosePassage) || effect.is(showCoding)) stale = true;
    }
    if (!stale) return chosen;
    const passage = transaction.state.field(threadsField).coding.passages.find((one) => one.id === id);
    return { id, decorations: passage ? Decoration.set(chosenMark.range(passage.start, passage.end)) : Decoration.none };
  },
  provide: (field) => EditorView.decorations.from(field, (chosen) => chosen.decorations),
});

/** Passages that cover a position, the shortest first. */
export function passagesAt(view: EditorView, position: number): Passage[] {
  const { coding, index } = view.state.field(threadsField);
  return index
    .at(position)
    .map((row) => coding.passages[row]!)
    .sort((a, b) => a.end - a.start - (b.end - b.start));
}

/** Threads and the chosen passage, beginning with this coding. */
export const threads = (coding: Coding): Extension => [threadsField.init((state) => build(coding, state.doc)), chosenField];
