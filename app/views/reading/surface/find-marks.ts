import { RangeSet, StateEffect, StateField } from '@codemirror/state';
import { Decoration, EditorView, ViewPlugin, type DecorationSet, type PluginValue, type ViewUpdate } from '@codemirror/view';
import type { Stretch } from '@core/model/stretch';

/** What was found in the text, and which of it is looked at; nothing when `hits` is empty. */
export interface FoundWords {
  readonly hits: readonly Stretch[];
  readonly at: number;
}

/** Shows what was found. */
export const showFound = StateEffect.define<FoundWords>();

const hit = Decoration.mark({ class: 'hit' });
const here = Decoration.mark({ class: 'hit hit-here' });

const foundField = StateField.define<FoundWords>({
  create: () => ({ hits: [], at: -1 }),
  update: (found, transaction) => transaction.effects.find((effect) => effect.is(showFound))?.value ?? found,
});

function marksNear(view: EditorView): DecorationSet {
  const { hits, at } = view.state.field(foundField);
  const { from, to } = view.viewport;
  const ranges = hits.flatMap((one, row) =>
    one.end <= from || one.start >= to ? [] : [(row === at ? here : hit).range(one.start, one.end)],
  );
  return RangeSet.of(ranges);
}

/** Ticks beside the scroll bar that are drawn at most: more would lie on one another. */
const MOST_TICKS = 400;

class FoundMarks implements PluginValue {
  marks: DecorationSet;
  private readonly ticks: HTMLElement;

  constructor(private readonly view: EditorView) {
    this.marks = marksNear(view);
    this.ticks = view.dom.ownerDocument.createElement('div');
    this.ticks.className = 'hit-ticks';
    this.ticks.setAttribute('aria-hidden', 'true');
    view.dom.appendChild(this.ticks);
  }

  update(update: ViewUpdate): void {
    const changed = update.startState.field(foundField) !== update.state.field(foundField);
    if (changed || update.viewportChanged) this.marks = marksNear(update.view);
    if (changed) this.drawTicks();
  }

  destroy(): void {
    this.ticks.remove();
  }

  private drawTicks(): void {
    const { hits, at } = this.view.state.field(foundField);
    const { length } = this.view.state.doc;
    const step = Math.max(1, Math.ceil(hits.length / MOST_TICKS));
    const ticks = hits.flatMap((one, row) => {
      if (row % step !== 0 && row !== at) return [];
      const tick = this.view.dom.ownerDocument.createElement('i');
      tick.style.top = `${(100 * one.start) / Math.max(1, length)}%`;
      if (row === at) tick.className = 'here';
      return [tick];
    });
    this.ticks.replaceChildren(...ticks);
  }
}

/** Words that were found: tinted in the text, and ticked beside the scroll bar. */
export const foundMarks = [
  foundField,
  ViewPlugin.fromClass(FoundMarks, {
    provide: (plugin) => EditorView.decorations.of((view) => view.plugin(plugin)?.marks ?? Decoration.none),
  }),
];
