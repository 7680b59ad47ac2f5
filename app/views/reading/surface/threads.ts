import { RangeSet, StateEffect, StateField, type Extension, type Range, type Text } from '@codemirror/state';
import { Decoration, EditorView, ViewPlugin, type DecorationSet } from '@codemirror/view';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import type { Table } from '@core/model/study-state';
import { IntervalIndex } from '@core/passages/interval-index';
import { PassageGroups } from '@core/passages/groups';
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

const marks = new Map<string, Decoration>();

/** One decoration object for each look, so that unchanged stretches are recognised and not drawn again. */
function markFor(look: string): Decoration {
  let mark = marks.get(look);
  if (!mark) marks.set(look, (mark = Decoration.mark({ class: `thread ${look}` })));
  return mark;
}

/** The looks of the stretches, ascending. */
export function segmentMarks(threads: readonly Thread[], { codes }: Coding): Range<Decoration>[] {
  return cutSegments(threads).map((segment) => {
    let depth = 0;
    let lanes = '';
    const seen = new Set<number>();
    for (const thread of segment.threads) {
      const lane = Math.min(thread.lane, LANES - 1);
      if (seen.has(lane)) continue;
      seen.add(lane);
      depth = Math.max(depth, lane + 1);
      lanes += ` t${lane}-c${codes[thread.codeId]!.colour}`;
    }
    return markFor(`d${depth}${lanes}`).range(segment.start, segment.end);
  });
}

/** The coding that is shown. */
export const codingField = StateField.define<Coding>({
  create: () => ({ passages: [], codes: {} }),
  update: (coding, transaction) => transaction.effects.find((effect) => effect.is(showCoding))?.value ?? coding,
});

interface Drawn {
  readonly lines: DecorationSet;
  readonly room: DecorationSet;
}

const groups = new WeakMap<readonly Passage[], PassageGroups>();

/** Lays out what is near the window, and of the rest nothing: what opening and coding cost does not grow with the document. */
function drawNear(view: EditorView): Drawn {
  const coding = view.state.field(codingField);
  let grouped = groups.get(coding.passages);
  if (!grouped) groups.set(coding.passages, (grouped = new PassageGroups(coding.passages)));
  const { from, to } = view.viewport;
  const { first, last } = grouped.touching({ start: from, end: to });
  const threads = layThreads(coding.passages.slice(first, last), (id) => Object.hasOwn(coding.codes, id));
  return { lines: RangeSet.of(segmentMarks(threads, coding)), room: RangeSet.of(roomForLanes(threads, view.state.doc)) };
}

/** The threads under the words near the window. */
const drawnThreads = ViewPlugin.define(
  (view) => ({
    drawn: drawNear(view),
    update(update) {
      if (update.viewportChanged || update.startState.field(codingField) !== update.state.field(codingField))
        this.drawn = drawNear(update.view);
    },
  }),
  {
    provide: (plugin) => [
      EditorView.decorations.of((view) => view.plugin(plugin)?.drawn.lines ?? Decoration.none),
      EditorView.decorations.of((view) => view.plugin(plugin)?.drawn.room ?? Decoration.none),
    ],
  },
);

/** Lanes that fit between two lines of text. */
const LANES_THAT_FIT = 3;
const ROOM = Array.from({ length: LANES }, (_, lanes) => Decoration.line({ class: `lanes-${lanes}` }));

/** A paragraph with more lanes than fit gets wider line spacing. */
function roomForLanes(threads: readonly Thread[], document: Text): Range<Decoration>[] {
  const lanesByLine = new Map<number, number>();
  for (const thread of threads) {
    if (thread.lane < LANES_THAT_FIT) continue;
    for (let at = thread.start; at < thread.end;) {
      const line = document.lineAt(at);
      lanesByLine.set(line.from, Math.max(lanesByLine.get(line.from) ?? 0, Math.min(thread.lane, LANES - 1)));
      at = line.to + 1;
    }
  }
  return [...lanesByLine].sort(([a], [b]) => a - b).map(([from, lane]) => ROOM[lane]!.range(from));
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
    const passage = transaction.state.field(codingField).passages.find((one) => one.id === id);
    return { id, decorations: passage ? Decoration.set(chosenMark.range(passage.start, passage.end)) : Decoration.none };
  },
  provide: (field) => EditorView.decorations.from(field, (chosen) => chosen.decorations),
});

const indexes = new WeakMap<readonly Passage[], IntervalIndex>();

/** Made when a pointer first asks: most codings never need it. */
function indexOf(passages: readonly Passage[]): IntervalIndex {
  let index = indexes.get(passages);
  if (!index) {
    index = new IntervalIndex({ starts: passages.map((passage) => passage.start), ends: passages.map((passage) => passage.end) });
    indexes.set(passages, index);
  }
  return index;
}

/** Passages that cover a position, the shortest first. */
export function passagesAt(view: EditorView, position: number): Passage[] {
  const { passages } = view.state.field(codingField);
  return indexOf(passages)
    .at(position)
    .map((row) => passages[row]!)
    .sort((a, b) => a.end - a.start - (b.end - b.start));
}

/** Threads and the chosen passage, beginning with this coding. */
export const threads = (coding: Coding): Extension => [codingField.init(() => coding), drawnThreads, chosenField];
