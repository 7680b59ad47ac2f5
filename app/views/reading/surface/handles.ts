import { StateField } from '@codemirror/state';
import { Decoration, EditorView, WidgetType, type DecorationSet } from '@codemirror/view';
import { tidySelection } from '@core/text/stretch';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/model/stretch';
import { choosePassage, chosenField, codingField, showCoding } from './threads';

/** Told when an end was dragged: the passage, and where it is to be. */
export type Moved = (passageId: Id, place: Stretch) => void;

/** A grip at one end of the chosen passage. */
class Grip extends WidgetType {
  constructor(
    private readonly side: 'start' | 'end',
    private readonly passageId: Id,
    private readonly moved: Moved,
  ) {
    super();
  }

  override eq(other: Grip): boolean {
    return other.side === this.side && other.passageId === this.passageId;
  }

  override toDOM(view: EditorView): HTMLElement {
    const grip = view.dom.ownerDocument.createElement('span');
    grip.className = `grip grip-${this.side}`;
    grip.title = this.side === 'start' ? 'Drag to move where the passage begins' : 'Drag to move where the passage ends';
    grip.setAttribute('aria-hidden', 'true');
    grip.addEventListener('pointerdown', (event) => this.drag(view, grip, event));
    return grip;
  }

  override ignoreEvent(): boolean {
    return true;
  }

  private drag(view: EditorView, grip: HTMLElement, down: PointerEvent): void {
    down.preventDefault();
    grip.setPointerCapture(down.pointerId);
    let place: Stretch | null = null;
    const move = (event: PointerEvent): void => {
      const at = view.posAtCoords({ x: event.clientX, y: event.clientY - 4 }, false);
      const passage = view.state.field(codingField).passages.find((one) => one.id === this.passageId);
      if (!passage) return;
      place = tidySelection(view.state.sliceDoc(), this.side === 'start' ? at : passage.start, this.side === 'start' ? passage.end : at);
      // the selection shows where it would go
      if (place) view.dispatch({ selection: { anchor: place.start, head: place.end } });
    };
    grip.addEventListener('pointermove', move);
    const end = (event: PointerEvent): void => {
      grip.removeEventListener('pointermove', move);
      if (event.type === 'pointerup' && place) this.moved(this.passageId, place);
      else view.dispatch({ selection: { anchor: view.state.selection.main.from } });
    };
    grip.addEventListener('pointerup', end, { once: true });
    grip.addEventListener('pointercancel', end, { once: true });
  }
}

/** Grips at the ends of the chosen passage, to be dragged. */
export const grips = (moved: Moved) =>
  StateField.define<DecorationSet>({
    create: () => Decoration.none,
    update(ranges, transaction) {
      if (!transaction.effects.some((effect) => effect.is(choosePassage) || effect.is(showCoding))) return ranges;
      const { id } = transaction.state.field(chosenField);
      const passage = id && transaction.state.field(codingField).passages.find((one) => one.id === id);
      if (!passage) return Decoration.none;
      return Decoration.set([
        Decoration.widget({ widget: new Grip('start', passage.id, moved), side: -1 }).range(passage.start),
        Decoration.widget({ widget: new Grip('end', passage.id, moved), side: 1 }).range(passage.end),
      ]);
    },
    provide: (field) => EditorView.decorations.from(field),
  });
