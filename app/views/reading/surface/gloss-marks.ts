import { RangeSet, StateEffect, StateField, type Extension } from '@codemirror/state';
import { Decoration, EditorView, hoverTooltip, ViewPlugin, type DecorationSet } from '@codemirror/view';
import { GlossFinder, type GlossHit } from '@core/glosses/find-glosses';

/** Looks for other words. */
export const showGlosses = StateEffect.define<GlossFinder>();

const finderField = StateField.define<GlossFinder>({
  create: () => new GlossFinder([]),
  update: (finder, transaction) => transaction.effects.find((effect) => effect.is(showGlosses))?.value ?? finder,
});

const mark = Decoration.mark({ class: 'glossed' });

/** Defined words near the window, paragraph by paragraph. */
function hitsNear(view: EditorView): GlossHit[] {
  const { from, to } = view.viewport;
  return view.state.field(finderField).in(view.state.sliceDoc(from, to), from);
}

const plugin = ViewPlugin.define(
  (view) => ({
    hits: hitsNear(view),
    update(update) {
      if (update.viewportChanged || update.docChanged || update.startState.field(finderField) !== update.state.field(finderField))
        this.hits = hitsNear(update.view);
    },
  }),
  {
    provide: (own) =>
      EditorView.decorations.of((view): DecorationSet => {
        const hits = view.plugin(own)?.hits ?? [];
        return hits.length === 0 ? Decoration.none : RangeSet.of(hits.map((hit) => mark.range(hit.start, hit.end)));
      }),
  },
);

const hover = hoverTooltip(
  (view, position) => {
    const hit = view.plugin(plugin)?.hits.find((one) => one.start <= position && position <= one.end);
    if (!hit) return null;
    return {
      pos: hit.start,
      end: hit.end,
      create: () => {
        const dom = document.createElement('div');
        dom.className = 'gloss-hover';
        const term = dom.appendChild(document.createElement('strong'));
        term.textContent = hit.gloss.term;
        dom.append(` ${hit.gloss.meaning || 'has no meaning written down yet'}`);
        return { dom };
      },
    };
  },
  { hoverTime: 350, hideOnChange: true },
);

/** Defined words, finely marked, with their meaning on hover; beginning with these. */
export const glossMarks = (finder: GlossFinder): Extension => [finderField.init(() => finder), plugin, hover];
