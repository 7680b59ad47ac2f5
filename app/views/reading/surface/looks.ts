import { RangeSet, StateEffect, StateField, type Extension, type Range } from '@codemirror/state';
import { Decoration, EditorView, lineNumbers, ViewPlugin, WidgetType, type DecorationSet } from '@codemirror/view';
import { firstStartingAt } from '@core/passages/groups';
import { union } from '@core/passages/union';
import type { Looks } from '../../../state/reader-settings';
import { codingField, showCoding } from './threads';

/** Shows the coding otherwise. */
export const showLooks = StateEffect.define<Looks>();

export const looksField = StateField.define<Looks | null>({
  create: () => null,
  update: (looks, transaction) => transaction.effects.find((effect) => effect.is(showLooks))?.value ?? looks,
});

/** Stands where coded words are folded away. */
class FoldedWords extends WidgetType {
  override eq(): boolean {
    return true;
  }

  override toDOM(view: EditorView): HTMLElement {
    const mark = view.dom.ownerDocument.createElement('span');
    mark.className = 'folded-words';
    mark.textContent = '···';
    mark.setAttribute('aria-label', 'coded words, folded away');
    return mark;
  }
}

const folded = Decoration.replace({ widget: new FoldedWords() });

/** Coded words near the window, line by line: a line end stays, so that every paragraph keeps its place. */
function foldNear(view: EditorView): DecorationSet {
  if (view.state.field(looksField)?.coded !== 'folded away') return Decoration.none;
  const { passages } = view.state.field(codingField);
  const { from, to } = view.viewport;
  const near = passages.slice(firstStartingAt(passages, from - LONGEST), firstStartingAt(passages, to + 1));
  const ranges: Range<Decoration>[] = [];
  for (const { start, end } of union(near)) {
    for (let at = Math.max(start, from); at < Math.min(end, to);) {
      const line = view.state.doc.lineAt(at);
      const until = Math.min(end, line.to);
      if (until > at) ranges.push(folded.range(at, until));
      at = line.to + 1;
    }
  }
  return RangeSet.of(ranges);
}

/** A passage that begins this far before the window may still reach into it. */
const LONGEST = 100_000;

const folding = ViewPlugin.define(
  (view) => ({
    ranges: foldNear(view),
    update(update) {
      const changed = update.transactions.some((one) => one.effects.some((effect) => effect.is(showCoding) || effect.is(showLooks)));
      if (changed || update.viewportChanged) this.ranges = foldNear(update.view);
    },
  }),
  {
    provide: (plugin) => {
      const ranges = (view: EditorView): DecorationSet => view.plugin(plugin)?.ranges ?? Decoration.none;
      // the caret passes over what is folded away: it never stands, and no selection ends, where nobody sees it
      return [EditorView.decorations.of(ranges), EditorView.atomicRanges.of(ranges)];
    },
  },
);

/** Classes of the surface, from which the styles follow. */
const classes = EditorView.editorAttributes.compute([looksField], (state) => {
  const looks = state.field(looksField);
  const names = looks
    ? [
        looks.coded === 'dimmed' ? 'dim-coded' : '',
        looks.coded === 'tinted' ? 'tint-coded' : '',
        looks.threads ? '' : 'no-threads',
        looks.numbers ? 'numbered' : '',
        looks.speakers === 'coloured' ? 'colour-speakers' : '',
        looks.dimInterviewer ? 'dim-asks' : '',
      ]
    : [];
  return { class: names.filter(Boolean).join(' ') };
});

/** Ways of showing the coding, beginning with these. */
export const readingLooks = (looks: Looks): Extension => [looksField.init(() => looks), classes, folding];

/** Numbers of paragraphs at the left, or nothing. */
export const paragraphNumbers = (shown: boolean): Extension => (shown ? lineNumbers() : []);
