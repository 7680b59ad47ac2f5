import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { chartFont, tokensOf, tooltipLook } from './chart-look';
import type { LinePoint } from './line-chart';

Chart.register(CategoryScale, LinearScale, LineController, LineElement, PointElement, Tooltip);

/** Draws a line with the design's tokens. @param style of an element in the chart's place */
export function drawLine(
  canvas: HTMLCanvasElement,
  style: CSSStyleDeclaration,
  points: readonly LinePoint[],
  picked: (at: number) => void,
): Chart {
  const token = tokensOf(style);
  const font = chartFont(token);
  return new Chart(canvas, {
    type: 'line',
    data: {
      labels: points.map((point) => point.name),
      datasets: [
        {
          data: points.map((point) => point.value),
          borderColor: token('--accent'),
          borderWidth: 1.8,
          pointRadius: points.length > 60 ? 0 : 2.2,
          pointHitRadius: 12,
          pointBackgroundColor: token('--accent'),
          stepped: 'before',
        },
      ],
    },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      onClick: (_event, hits) => hits[0] && picked(hits[0].index),
      scales: {
        x: { ticks: { display: false }, grid: { display: false }, border: { color: token('--rule-strong') } },
        y: {
          beginAtZero: true,
          ticks: { precision: 0, color: token('--ink-second'), font, maxTicksLimit: 5 },
          grid: { color: token('--rule') },
          border: { display: false },
        },
      },
      plugins: {
        legend: { display: false },
        tooltip: {
          ...tooltipLook(token),
          callbacks: { label: (item) => points[item.dataIndex]?.said ?? '' },
        },
      },
    },
  });
}
