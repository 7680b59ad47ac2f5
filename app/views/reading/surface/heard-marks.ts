import { RangeSet, StateEffect, StateField, type Extension } from '@codemirror/state';
import { Decoration, EditorView, ViewPlugin, type DecorationSet } from '@codemirror/view';
import type { UnsureWords } from '@core/model/document';
import type { Stretch } from '@core/model/stretch';

/** What a recording has to do with the words: those that are spoken now, and those that a service was not sure of. */
export interface HeardWords {
  readonly spoken: Stretch | null;
  readonly unsure: readonly UnsureWords[];
}

/** Shows other words as spoken now, or as unsure. */
export const showHeard = StateEffect.define<HeardWords>();

const spoken = Decoration.mark({ class: 'spoken' });
const unsure = Decoration.mark({ class: 'unsure' });
const unclear = Decoration.mark({ class: 'unclear' });

/** Where the researcher noted that a word cannot be made out, with its time: `(unclear 1:14)`. */
export const UNCLEAR = /\(unclear(?: (\d{1,2}(?::\d\d){1,2}))?\)/g;

const heardField = StateField.define<HeardWords>({
  create: () => ({ spoken: null, unsure: [] }),
  update: (heard, transaction) => transaction.effects.find((effect) => effect.is(showHeard))?.value ?? heard,
});

/** Only words near the window: a transcript of a long interview may have thousands that are unsure. */
function marksNear(view: EditorView): DecorationSet {
  const heard = view.state.field(heardField);
  const length = view.state.doc.length;
  const { from, to } = view.viewport;
  const near = heard.unsure.filter((one) => one.end > from && one.start < to && one.end <= length);
  const now = heard.spoken && heard.spoken.end <= length ? [spoken.range(heard.spoken.start, heard.spoken.end)] : [];
  const signs = Array.from(view.state.doc.sliceString(from, to).matchAll(UNCLEAR), ({ index, 0: sign }) =>
    unclear.range(from + index, from + index + sign.length),
  );
  return RangeSet.of([...now, ...near.map((one) => unsure.range(one.start, one.end)), ...signs], true);
}

/** Words that are spoken now are tinted; those that are to be listened to again are underlined with dots. Beginning with these. */
export const heardMarks = (heard: HeardWords): Extension => [
  heardField.init(() => heard),
  ViewPlugin.define(
    (view) => ({
      marks: marksNear(view),
      update(update) {
        if (update.viewportChanged || update.docChanged || update.startState.field(heardField) !== update.state.field(heardField))
          this.marks = marksNear(update.view);
      },
    }),
    { provide: (plugin) => EditorView.decorations.of((view) => view.plugin(plugin)?.marks ?? Decoration.none) },
  ),
];
