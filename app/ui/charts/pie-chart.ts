import { ArcElement, Chart, Legend, PieController, Tooltip } from 'chart.js';
import { codeColour } from '@core/model/palette';
import { hexOf } from '@core/model/colour-hex';
import type { Area } from './area-chart';
import { chartFont, FINE, tokensOf, tooltipLook } from './chart-look';

Chart.register(ArcElement, Legend, PieController, Tooltip);

/** Draws parts of a whole with the design's tokens, in the colours of their codes; the names stand at the right. */
export function drawPie(
  canvas: HTMLCanvasElement,
  style: CSSStyleDeclaration,
  parts: readonly Area[],
  dark: boolean,
  picked: (id: string) => void,
): Chart {
  const token = tokensOf(style);
  const whole = parts.reduce((sum, part) => sum + part.count, 0) || 1;
  return new Chart(canvas, {
    type: 'pie',
    data: {
      labels: parts.map(({ name, count }) => `${name}: ${count.toLocaleString()} (${Math.round((count / whole) * 100)} %)`),
      datasets: [
        {
          data: parts.map((part) => part.count),
          backgroundColor: parts.map((part) => hexOf(codeColour(part.colour, dark ? 'dark' : 'light'))),
          borderColor: token('--surface'),
          borderWidth: 2,
        },
      ],
    },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      devicePixelRatio: FINE,
      onClick: (_event, hits) => {
        const part = hits[0] && parts[hits[0].index];
        if (part) picked(part.id);
      },
      plugins: {
        legend: {
          position: 'right',
          labels: { color: token('--ink'), font: { ...chartFont(token), size: 13 }, boxWidth: 14, boxHeight: 3 },
        },
        tooltip: { ...tooltipLook(token), callbacks: { label: (item) => item.label } },
      },
    },
  });
}
