import { EditorState, RangeSetBuilder, StateEffect, StateField } from '@codemirror/state';
import { Decoration, EditorView, type DecorationSet } from '@codemirror/view';

/** A stretch with the look that Filum gives it. */
export interface BareMark {
  readonly start: number;
  readonly end: number;
  readonly look: string;
}

const setMarks = StateEffect.define<DecorationSet>();
const marksField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (marks, transaction) => transaction.effects.find((effect) => effect.is(setMarks))?.value ?? marks,
  provide: (field) => EditorView.decorations.from(field),
});

function decorations(marks: readonly BareMark[]): DecorationSet {
  const builder = new RangeSetBuilder<Decoration>();
  for (const mark of marks) builder.add(mark.start, mark.end, Decoration.mark({ class: mark.look }));
  return builder.finish();
}

const painted = (): Promise<number> => new Promise((resolve) => requestAnimationFrame(() => setTimeout(() => resolve(performance.now()))));

/** CodeMirror alone with the same text and the same marks: what Filum's reading surface is held against. */
export const bare = {
  view: null as EditorView | null,
  marks: [] as readonly BareMark[],

  /** Milliseconds from nothing to painted. */
  async open(text: string, marks: readonly BareMark[]): Promise<number> {
    this.view?.destroy();
    this.marks = marks;
    document.body.replaceChildren();
    const begun = performance.now();
    this.view = new EditorView({
      parent: document.body,
      state: EditorState.create({
        doc: text,
        extensions: [
          EditorState.readOnly.of(true),
          EditorView.lineWrapping,
          marksField.init(() => decorations(marks)),
          EditorView.theme({
            '&': { height: '660px', width: '926px' },
            '.cm-scroller': { overflow: 'auto', fontFamily: 'var(--face-read)', fontSize: '16.5px', lineHeight: '1.62' },
          }),
        ],
      }),
    });
    return (await painted()) - begun;
  },

  /** Milliseconds from the call to painted, for one more mark near the top, the set built anew as Filum does. */
  async addMark(extra: BareMark): Promise<number> {
    const begun = performance.now();
    const all = [...this.marks.filter((mark) => mark.end <= extra.start), extra, ...this.marks.filter((mark) => mark.start >= extra.end)];
    this.view!.dispatch({ effects: setMarks.of(decorations(all)) });
    return (await painted()) - begun;
  },
};

(window as unknown as { bare: typeof bare }).bare = bare;
