import { afterRenderEffect } from '@angular/core';
import type { Chart } from 'chart.js';

/**
 * Draws a chart whenever what it shows has changed, in place of the one before. To be called while a component is made.
 * @param begin reads what is shown, and brings what draws it: the library is loaded when the first chart is drawn, no
 * place waits for it; null where there is nothing to draw
 */
export function keepDrawn(begin: () => Promise<() => Chart> | null): void {
  afterRenderEffect((onCleanup) => {
    let chart: Chart | null = null;
    let gone = false;
    void begin()?.then((draw) => {
      if (!gone) chart = draw();
    });
    onCleanup(() => {
      gone = true;
      chart?.destroy();
    });
  });
}
