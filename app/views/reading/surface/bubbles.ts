import type { Extension } from '@codemirror/state';
import { closeHoverTooltips, type EditorView, ViewPlugin } from '@codemirror/view';

const BUBBLE = '.cm-tooltip-hover';

/**
 * What a bubble that came by hovering may not do: take a press that is meant for the words under it (it lies over the
 * line above), or stay when Escape is pressed.
 */
export function bubblesGiveWay(): Extension {
  return ViewPlugin.define((view) => {
    const press = (event: MouseEvent): void => passThrough(view, event);
    const key = (event: KeyboardEvent): void => {
      if (event.key === 'Escape' && view.dom.querySelector(BUBBLE)) view.dispatch({ effects: closeHoverTooltips });
    };
    view.dom.addEventListener('mousedown', press, { capture: true });
    // the focus may be anywhere while the pointer hovers
    document.addEventListener('keydown', key, { capture: true });
    return {
      destroy() {
        view.dom.removeEventListener('mousedown', press, { capture: true });
        document.removeEventListener('keydown', key, { capture: true });
      },
    };
  });
}

function passThrough(view: EditorView, event: MouseEvent): void {
  const bubble = (event.target as HTMLElement).closest<HTMLElement>(BUBBLE);
  if (!bubble) return;
  event.preventDefault();
  event.stopPropagation();
  bubble.style.display = 'none';
  view.dispatch({ effects: closeHoverTooltips });
  const { clientX, clientY, detail, button, buttons, shiftKey, ctrlKey, altKey, metaKey } = event;
  const below = document.elementFromPoint(clientX, clientY);
  if (below && view.dom.contains(below))
    below.dispatchEvent(
      new MouseEvent('mousedown', {
        ...{ clientX, clientY, detail, button, buttons, shiftKey, ctrlKey, altKey, metaKey },
        bubbles: true,
        cancelable: true,
        view: window,
      }),
    );
}
