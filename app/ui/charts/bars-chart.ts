import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { chartFont, FINE, tokensOf, tooltipLook } from './chart-look';
import { mixed } from './mixed';

Chart.register(BarController, BarElement, CategoryScale, Legend, LinearScale, Tooltip);

/** Bars beside each other: of each thing one for each group. */
export interface GroupedBars {
  readonly things: readonly string[];
  readonly groups: readonly string[];
  /** By group, and of each by thing; null where nothing can be said. */
  readonly values: readonly (readonly (number | null)[])[];
  /** What is said of one. */
  readonly said: (thing: number, group: number) => string;
}

/** Draws bars with the design's tokens: one hue, from dark to light by group. @param style of an element in the chart's place */
export function drawBars(
  canvas: HTMLCanvasElement,
  style: CSSStyleDeclaration,
  { things, groups, values, said }: GroupedBars,
  picked: (thing: number, group: number) => void,
): Chart {
  const token = tokensOf(style);
  const font = chartFont(token);
  return new Chart(canvas, {
    type: 'bar',
    data: {
      labels: [...things],
      datasets: groups.map((group, at) => ({
        label: group,
        data: [...values[at]!],
        backgroundColor: mixed(token('--accent'), token('--surface'), (0.72 * at) / Math.max(1, groups.length - 1)),
        hoverBackgroundColor: token('--here'),
        borderColor: token('--accent'),
        borderWidth: 1,
        barPercentage: 0.9,
        categoryPercentage: 0.8,
      })),
    },
    options: {
      animation: false,
      indexAxis: 'y',
      responsive: true,
      maintainAspectRatio: false,
      devicePixelRatio: FINE,
      onClick: (_event, hits) => hits[0] && picked(hits[0].index, hits[0].datasetIndex),
      interaction: { mode: 'nearest', intersect: true },
      scales: {
        x: {
          beginAtZero: true,
          position: 'top',
          ticks: { color: token('--ink-second'), font, maxTicksLimit: 8 },
          grid: { color: token('--rule') },
          border: { display: false },
        },
        y: {
          ticks: { color: token('--ink'), font: { ...font, size: 12 }, autoSkip: false },
          grid: { display: false },
          border: { color: token('--rule-strong') },
        },
      },
      plugins: {
        legend: {
          position: 'top',
          align: 'start',
          labels: { color: token('--ink'), font: { ...font, size: 12 }, boxWidth: 14, boxHeight: 8 },
        },
        tooltip: {
          ...tooltipLook(token),
          callbacks: { title: () => '', label: (item) => said(item.dataIndex, item.datasetIndex) },
        },
      },
    },
  });
}
